import type { PlainMode, RehearsalDrive, RehearsalPlan } from '../model/rehearsal';
import { asksPerson, looksAlike } from './alike';

/** What a person can do beforehand. */
export type PrecautionKind =
  | 'away'
  | 'unplug'
  | 'port off'
  | 'copy'
  | 'label'
  | 'serial'
  | 'read'
  | 'menu'
  | 'stick first'
  | 'key'
  | 'target first'
  | 'stick out'
  | 'mode'
  | 'secure off'
  | 'enrol'
  | 'power';

/** What a precaution may cost besides its minutes. */
export type PrecautionRisk =
  'opens the machine' | 'the order may forget it' | 'a copy has to be compared' | 'a setting is changed';

/** One act that takes worlds away or lets them end otherwise. Minutes of a person; screws to turn. */
export interface Precaution {
  /** Stable: the kind, and the drive it is about after a colon. */
  id: string;
  kind: PrecautionKind;
  /** Id of the drive it is about; null where it is about none. */
  drive: string | null;
  minutes: number;
  screws: number;
  risks: PrecautionRisk[];
}

/** Minutes of a person. Common practice, no source. */
const MINUTES: Record<Exclude<PrecautionKind, 'unplug' | 'copy'>, number> = {
  away: 1,
  'port off': 3,
  label: 2,
  serial: 1,
  read: 2,
  menu: 1,
  'stick first': 4,
  key: 2,
  'target first': 3,
  'stick out': 1,
  mode: 3,
  'secure off': 3,
  enrol: 2,
  power: 5,
};
/** Staying beside an installer until it ends, where it does not wait for anybody. Common practice, no source. */
const STAYING = 10;

const plain = (
  kind: keyof typeof MINUTES,
  drive: string | null = null,
  risks: PrecautionRisk[] = [],
  minutes = MINUTES[kind],
): Precaution => ({
  id: drive === null ? kind : `${kind}:${drive}`,
  kind,
  drive,
  minutes,
  screws: 0,
  risks,
});

function ofDrive(d: RehearsalDrive): Precaution[] {
  const out: Precaution[] = [];
  const { unplug, copyMinutes } = d;
  if (d.role === 'other' && d.bus === 'usb') out.push(plain('away', d.id));
  if (d.role === 'other' && d.bus !== 'usb' && unplug)
    out.push({
      id: `unplug:${d.id}`,
      kind: 'unplug',
      drive: d.id,
      ...unplug,
      risks: [
        ...(unplug.screws > 0 ? (['opens the machine'] as const) : []),
        ...(d.starts.uefi !== null || d.starts.bios !== null ? (['the order may forget it'] as const) : []),
      ],
    });
  if (d.role === 'other' && d.bus !== 'usb' && d.portOff)
    out.push(plain('port off', d.id, ['a setting is changed']));
  if (d.matters && copyMinutes !== null)
    out.push({
      id: `copy:${d.id}`,
      kind: 'copy',
      drive: d.id,
      minutes: copyMinutes,
      screws: 0,
      risks: ['a copy has to be compared'],
    });
  return out;
}

/** Could a screen ask for a key at the first restart? */
export const mayEnrol = ({ kind, installer, machine }: RehearsalPlan): boolean =>
  kind === 'install' && installer.enrols && machine.secureBoot !== 'off' && machine.mode !== 'bios';

/** The mode that `mode` fixes: the one in which the installer starts, UEFI before BIOS. */
export const fixedMode = (plan: RehearsalPlan): PlainMode =>
  plan.drives.some((d) => d.role === 'installer' && d.starts.uefi !== null) ? 'uefi' : 'bios';

/**
 * All precautions that can be taken against a plan, less those that are refused: in the order of its drives, then of the
 * work. docs/rehearsal.md, “Precautions”.
 */
export function precautionsFor(plan: RehearsalPlan): Precaution[] {
  const { machine, installer, drives } = plan;
  const install = plan.kind === 'install';
  const asks = asksPerson(plan);
  const target = drives.find((d) => d.role === 'target');
  const serials = drives.filter((d) => d.serial !== null && d.serial === target?.serial);
  const out = drives.flatMap(ofDrive);
  if (asks && installer.lists.includes('label') && looksAlike(plan).length > 1) out.push(plain('label'));
  if (asks && installer.lists.includes('serial') && target?.serial != null && serials.length === 1)
    out.push(plain('serial'));
  if (asks) out.push(plain('read'));
  const byMenu = plan.startBy === 'menu' || !plan.refused.includes('menu');
  if (install) {
    if (machine.mode === null || machine.mode === 'both')
      out.push(plain('mode', null, ['a setting is changed']));
    if (machine.secureBoot !== 'off' && machine.mode !== 'bios')
      out.push(plain('secure off', null, ['a setting is changed']));
    out.push(
      plan.startBy === 'menu' ? plain('stick first', null, ['a setting is changed']) : plain('menu'),
      ...(byMenu ? [plain('key')] : []),
      installer.ends === 'restarts by itself' ? plain('stick out', null, [], STAYING) : plain('stick out'),
      plain('target first', null, ['a setting is changed']),
    );
    if (mayEnrol(plan)) out.push(plain('enrol'));
  }
  if (machine.power === 'mains') out.push(plain('power'));
  return out.filter((p) => !plan.refused.includes(p.id));
}
