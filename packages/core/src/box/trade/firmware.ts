import { storesOf } from '../../model/bench';
import type { Store } from '../../model/bench';
import { firmwareOf } from '../../machine/firmware';
import { chainLoaderPlan, LOADER_PART_BYTES } from '../../system/chainLoader';
import { startsFromNvme, usable } from '../../system/places';
import { machineView } from '../../system/view';
import type { Scene } from '../scene';
import type { TradeLine } from './line';

/** The date of firmware is kept as month/day/year (SMBIOS 3.6 §7.1, “BIOS Release Date”); here as ISO 8601. */
function isoDay(date: unknown): string | null {
  const [, month, day, year] = /^(\d\d)\/(\d\d)\/(\d{4})$/.exec(typeof date === 'string' ? date : '') ?? [];
  return year === undefined ? null : `${year}-${month}-${day}`;
}

const modeOf = (firmware: string): 'uefi' | 'bios' => (firmware === 'bios' ? 'bios' : 'uefi');

function before(scene: Scene): TradeLine[] {
  const { machine } = scene;
  if (!machine || scene.fact('firmware.mode') === 'board') return [];
  return [
    { code: 'write settings down', machine: machine.name },
    { code: 'firmware update', machine: machine.name, date: isoDay(scene.fact('firmware.date')) },
    ...(scene.fact('firmware.graphicsMemory') === 'fixed'
      ? [{ code: 'graphics memory' as const, machine: machine.name }]
      : []),
  ];
}

const isNvme = (s: Store): boolean => s.transport === 'nvme';

/** Several NVMe drives on cards in one slot want its lanes split. Common practice, no source. */
function lanes(scene: Scene): TradeLine[] {
  const { machine, inside } = scene;
  const slots = scene.fact('ports.m2');
  const here = Array.isArray(slots) ? slots.filter((s) => /nvme/i.test(s)).length : 0;
  const onCards = inside.filter(isNvme).length - here;
  const splits = scene.fact('firmware.splitsLanes');
  return machine && onCards > 1 && splits !== true
    ? [{ code: 'lanes not split', machine: machine.name, known: splits === false, drives: onCards }]
    : [];
}

/** What was installed in one mode is not started in the other. */
function otherMode({ machine, inside }: Scene): TradeLine[] {
  const firmware = machine && firmwareOf(machine);
  if (!firmware || firmware === 'board') return [];
  const present = modeOf(firmware);
  return inside.flatMap((s): TradeLine[] => {
    const starts = (s.content?.starts ?? []).filter((x) => x.firmware !== null && x.firmware !== 'board');
    const [first] = starts;
    const all = starts.map((x) => modeOf(x.firmware ?? ''));
    return first && !all.includes(present)
      ? [
          {
            code: 'installed in another mode',
            drive: s.name,
            title: first.title || 'What',
            installed: all[0] ?? present,
            present,
          },
        ]
      : [];
  });
}

/** The way round firmware that does not start from NVMe, where that is the drive there is. */
function chain(scene: Scene): TradeLine[] {
  const { bench, box, machine, profile } = scene;
  if (!machine || !profile || scene.fact('firmware.mode') === 'board') return [];
  const view = machineView(bench, machine, undefined, box);
  const nvme = usable(view.drives).filter(
    (d) => d.transport === 'nvme' && d.bytes >= profile.needs.bootBytes,
  );
  const [drive] = nvme;
  const other = usable(view.drives).some(
    (d) => d.transport !== 'nvme' && d.kind !== 'card' && d.bytes >= profile.needs.bootBytes,
  );
  if (!drive || other || startsFromNvme(view)) return [];
  const stick = storesOf(bench)
    .filter((s) => s.kind === 'stick' && s.fate === 'may be lost' && s.in === null)
    .sort((a, b) => a.bytes - b.bytes)
    .find((s) => s.bytes >= LOADER_PART_BYTES);
  const usb = scene.fact('firmware.startsUsb');
  const splits = scene.fact('firmware.splitsLanes');
  return [
    {
      code: 'chain loader',
      machine: machine.name,
      plan: chainLoaderPlan({
        drive: drive.name,
        mode: scene.fact('firmware.mode') === 'uefi' ? 'uefi' : 'bios',
        startsUsb: typeof usb === 'boolean' ? usb : undefined,
        splitsLanes: typeof splits === 'boolean' ? splits : undefined,
        drivesOnAdapter: nvme.length,
        stick: stick ? { name: stick.name, bytes: stick.bytes } : null,
      }),
    },
  ];
}

/** Lines of the trade where firmware is set. */
export const firmwareLines = (scene: Scene): TradeLine[] => [
  ...before(scene),
  ...otherMode(scene),
  ...lanes(scene),
  ...chain(scene),
];
