import { systemDriveOf } from '../../layout/systemDrive';
import { writtenBytes } from '../../model/written';
import type { Store } from '../../model/bench';
import { driveState } from '../../system/places';
import { machineView } from '../../system/view';
import { predictTimes, type TimedTarget } from '../../write/time';
import type { Scene } from '../scene';
import type { TradeLine } from './line';

/** The cheapest new drive: common practice, no source. */
const NEW_SSD: TimedTarget = { kind: 'drive', transport: 'sata', rotational: false, serial: null };
/** A system unpacks onto the drive to about this many times its image. Common practice, no source. */
const UNPACKS = 2;
/** So much quicker has a new drive to be before it is worth a word. */
const WORTH = 2;
/** From this share of its rated life a drive counts as worn, per cent. Common practice, no source. */
const WORN = 80;

/** The drive the system would go on, and what speaks against it. */
function slowDrive({
  bench,
  box,
  machine,
  profile,
  inside,
}: Scene): { drive: Store; why: 'card' | 'turning' | 'worn' } | undefined {
  if (!machine || !profile) return undefined;
  const view = machineView(bench, machine, undefined, box, systemDriveOf(bench, box));
  const { boot } = driveState(view, profile.needs.bootBytes);
  const drive = inside.find((s) => s.id === boot?.id);
  if (!drive) return undefined;
  if ((drive.wear ?? 0) >= WORN || boot?.health === 'worn') return { drive, why: 'worn' };
  if (drive.kind === 'card') return { drive, why: 'card' };
  return drive.rotational === true ? { drive, why: 'turning' } : undefined;
}

function newDrive(scene: Scene): TradeLine[] {
  const { bench, image, profile } = scene;
  const slow = slowDrive(scene);
  if (!slow || !profile) return [];
  const bytes = UNPACKS * (image ? writtenBytes(image) : profile.stickBytes / 2);
  const old = predictTimes(bytes, slow.drive, bench.log).write.value;
  const fresh = predictTimes(bytes, NEW_SSD, []).write.value;
  const gains = slow.why === 'worn' || old.high >= fresh.high * WORTH;
  return gains ? [{ code: 'new drive is quicker', drive: slow.drive.name, why: slow.why, old, fresh }] : [];
}

/** Drives that are to go into a machine with bays want a bay and a power lead each. */
function bays(scene: Scene): TradeLine[] {
  const { machine, judged } = scene;
  const drives = judged?.repairs.filter((r) => r.kind === 'part' && r.role === 'drive').length ?? 0;
  const known = scene.fact('ports.bays') !== undefined && scene.fact('power.sataLeads') !== undefined;
  const roomy = machine && ['tower', 'office desktop', 'old desktop'].includes(machine.form);
  return machine && roomy && drives > 0 && !known
    ? [{ code: 'bays not counted', machine: machine.name, drives }]
    : [];
}

/** Lines of the trade where things are gathered. */
export const gatherLines = (scene: Scene): TradeLine[] => [...newDrive(scene), ...bays(scene)];
