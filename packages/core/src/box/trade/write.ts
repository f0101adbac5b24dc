import { storesOf } from '../../model/bench';
import { usbLinks } from '../../machine/links';
import { writtenBytes } from '../../model/written';
import { innerDriveOf, isWrittenStraight, runsFromOther } from '../../layout/systemDrive';
import { isLarge, serialTail } from '../../write/guard';
import { predictTimes, unknownStick } from '../../write/time';
import type { Scene } from '../scene';
import { usbAdapterOf } from '../../write/adapter';
import { writeWayOf } from '../../write/way';
import type { SchoolWay, TradeLine } from './line';

/** A label of a FAT volume has eleven characters at most (FAT specification, “Directory Structure”). */
const labelFor = (serial: string | null): string => `ERASE ${serialTail(serial)}`.trim();

function named({ target }: Scene): TradeLine[] {
  if (!target) return [];
  const label = labelFor(target.serial);
  return target.label === label ? [] : [{ code: 'name the target', stick: target.name, label }];
}

/** What is on USB, is not to be lost and is not the target: it need not be plugged in while another is written. */
function unplugged({ bench, target }: Scene): TradeLine[] {
  const drives = storesOf(bench)
    .filter((s) => s.in === null && s.fate !== 'may be lost' && s.id !== target?.id)
    .filter((s) => s.transport === 'usb' || s.kind === 'card')
    .map((s) => s.name);
  return drives.length === 0 ? [] : [{ code: 'unplug what stays', drives }];
}

function large({ target, image }: Scene): TradeLine[] {
  const needs = image ? writtenBytes(image) : 0;
  return target && isLarge(target)
    ? [{ code: 'target is large', stick: target.name, bytes: target.bytes, needs }]
    : [];
}

/** A whole system can go onto its final drive by an adapter, or by way of a stick. */
function school({ bench, box, machine, profile, image, target }: Scene): TradeLine[] {
  if (!machine || !profile || !isWrittenStraight(bench, box)) return [];
  const drive = innerDriveOf(bench, box);
  if (!drive) return [];
  const bytes = image ? writtenBytes(image) : profile.stickBytes;
  const stick = predictTimes(bytes, target ?? unknownStick(null), bench.log);
  const onto = predictTimes(bytes, drive, bench.log).write.value;
  const direct = predictTimes(bytes, drive, bench.log, usbLinks.usb5).whole.value;
  const adapter = usbAdapterOf(bench) !== undefined;
  const sticks = storesOf(bench).some(
    (s) => s.kind === 'stick' && s.fate === 'may be lost' && s.bytes >= bytes,
  );
  const ways: SchoolWay[] = [
    { way: 'adapter', seconds: direct, lacks: adapter ? null : 'adapter', usual: true },
    {
      way: 'installer stick',
      // Written and read back, then read once more and copied onto the drive by the started stick.
      seconds: {
        low: stick.whole.value.low + Math.max(stick.verify.value.low, onto.low),
        high: stick.whole.value.high + Math.max(stick.verify.value.high, onto.high),
      },
      lacks: sticks ? null : 'stick',
      usual: false,
    },
    {
      way: 'running system',
      seconds: predictTimes(bytes, drive, bench.log).whole.value,
      lacks: runsFromOther(bench, box, drive) ? null : 'running system',
      usual: false,
    },
  ];
  return [
    { code: 'school: stick or adapter', drive: drive.name, driveId: drive.id, ways, taken: writeWayOf(box) },
  ];
}

/** Lines of the trade where a stick is written. */
export const writeLines = (scene: Scene): TradeLine[] => [
  ...named(scene),
  ...unplugged(scene),
  ...large(scene),
  ...school(scene),
];
