import type { RehearsalDrive, RehearsalPlan } from '../model/rehearsal';
import type { DriveLook } from './frames';
import { fixedMode, precautionsFor, type Precaution, type PrecautionKind } from './precautions';
import { worldOf, type World } from './varies';

/** Places of the precautions that are about no drive; −1 where one is not offered. */
export type Offers = Record<Exclude<PrecautionKind, 'away' | 'unplug' | 'port off' | 'copy'>, number>;

/** What starts from a drive: nothing. */
export const NOTHING = 0;
/** What was there before. */
export const OLD = 1;
/** The new system. */
export const NEW = 2;

/** A plan made ready to be run many times: drives by number, precautions by number. */
export class Stage {
  readonly drives: readonly RehearsalDrive[];
  readonly installer: number;
  readonly target: number;
  readonly world: World;
  readonly precautions: Precaution[];
  readonly offers: Offers;
  /** By drive: places of the precautions about it; −1 where one is not offered. */
  readonly away: readonly number[];
  readonly unplug: readonly number[];
  readonly portOff: readonly number[];
  readonly copy: readonly number[];
  /** By drive: the drive that a chain loader on it starts; −1 where none is. */
  readonly chain: readonly number[];
  /** By drive: can the firmware start from its bus at all? */
  readonly reachable: readonly boolean[];
  readonly fixedMode: 'uefi' | 'bios';
  /** By drive, as a run begins: what starts from it under each mode, whether that is signed, how it looks. */
  readonly uefi: Uint8Array;
  readonly bios: Uint8Array;
  readonly signed: readonly boolean[];
  readonly looks: readonly DriveLook[];

  constructor(readonly plan: RehearsalPlan) {
    const { drives, machine } = plan;
    this.drives = drives;
    this.installer = drives.findIndex((d) => d.role === 'installer');
    this.target = drives.findIndex((d) => d.role === 'target');
    this.world = worldOf(plan);
    this.precautions = precautionsFor(plan);
    const places = new Map(this.precautions.map((p, i) => [p.id, i]));
    const place = (id: string): number => places.get(id) ?? -1;
    const each = (kind: string): number[] => drives.map((d) => place(`${kind}:${d.id}`));
    this.away = each('away');
    this.unplug = each('unplug');
    this.portOff = each('port off');
    this.copy = each('copy');
    this.offers = {
      label: place('label'),
      serial: place('serial'),
      read: place('read'),
      menu: place('menu'),
      'stick first': place('stick first'),
      key: place('key'),
      'target first': place('target first'),
      'stick out': place('stick out'),
      mode: place('mode'),
      'secure off': place('secure off'),
      enrol: place('enrol'),
      power: place('power'),
    };
    const indexOf = (id: string): number => drives.findIndex((d) => d.id === id);
    this.chain = drives.map((d) => (d.chainsTo === null ? -1 : indexOf(d.chainsTo)));
    this.reachable = drives.map((d) => !machine.cannotStart.includes(d.bus));
    this.fixedMode = fixedMode(plan);
    this.uefi = Uint8Array.from(drives, (d) => (d.starts.uefi === null ? NOTHING : OLD));
    this.bios = Uint8Array.from(drives, (d) => (d.starts.bios === null ? NOTHING : OLD));
    this.signed = drives.map((d) => d.signed);
    this.looks = drives.map(() => 'there');
  }
}
