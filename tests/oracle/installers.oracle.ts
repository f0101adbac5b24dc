/**
 * Installers of ours on a real kernel in the emulator, which take the first drive, the largest, and the one with a serial:
 * which virtual drive was overwritten is what the rehearsal told. One machine in every run, six (18 worlds) in
 * `npm run proof installers`.
 */
import { rehearsalPlanSchema, type RehearsalDrive } from '@zb/core/model/rehearsal';
import { Stage } from '@zb/core/rehearsal/stage';
import { everyRun, takenOf, tell } from '@zb/core/rehearsal/tally';
import { manners, overwritten, prepareKernel, type Shape } from './machines';

jest.setTimeout(1_500_000);
const ALL = process.env.ZB_INSTALLERS === 'all';
type Manner = (typeof manners)[number];

/** Drives in the order of their ports: id, bus, MiB. The serial named is that of `named`. */
interface Case {
  name: string;
  named: string;
  drives: readonly { id: string; bus: 'sata' | 'nvme' | 'usb' | 'ide'; port: number | null; mib: number }[];
}
const sata = (port: number, id: string, mib: number) => ({ id, bus: 'sata' as const, port, mib });
const ide = (port: number, id: string, mib: number) => ({ id, bus: 'ide' as const, port, mib });
const CASES: readonly Case[] = [
  {
    name: 'two on SATA, the smaller first',
    named: 'beta',
    drives: [sata(0, 'alpha', 64), sata(1, 'beta', 128)],
  },
  {
    name: 'two on IDE, the larger first',
    named: 'alpha',
    drives: [ide(0, 'beta', 128), ide(1, 'alpha', 64)],
  },
  {
    name: 'three, the named one in the middle',
    named: 'beta',
    drives: [sata(0, 'gamma', 96), sata(2, 'beta', 64), sata(4, 'alpha', 256)],
  },
  {
    name: 'one inside, a stick beside it',
    named: 'alpha',
    drives: [sata(1, 'alpha', 64), { id: 'delta', bus: 'usb', port: null, mib: 128 }],
  },
  {
    name: 'NVMe and SATA',
    named: 'alpha',
    drives: [sata(0, 'alpha', 64), { id: 'omega', bus: 'nvme', port: 0, mib: 96 }],
  },
  { name: 'one alone, the other unplugged', named: 'alpha', drives: [sata(3, 'alpha', 64)] },
];
const chosen = ALL ? CASES : CASES.slice(2, 3);

const device = ({ id, bus, port }: Case['drives'][number]): string[] =>
  bus === 'ide'
    ? ['-device', `ide-hd,drive=${id},bus=ide.0,unit=${port},serial=${id}`]
    : bus === 'sata'
      ? ['-device', `ide-hd,drive=${id},bus=ide.${port},serial=${id}`]
      : bus === 'nvme'
        ? ['-device', `nvme,drive=${id},serial=${id}`]
        : ['-device', `usb-storage,drive=${id},removable=on,serial=${id}`];
const shapeOf = (c: Case): Shape => ({
  name: c.name,
  firmware: 'bios',
  args: [
    '-M',
    c.drives.some((d) => d.bus === 'ide') ? 'pc' : 'q35',
    '-m',
    '512',
    '-vga',
    'none',
    '-nic',
    'none',
    '-device',
    'qemu-xhci',
    ...c.drives.flatMap(device),
  ],
  drives: Object.fromEntries(c.drives.map((d) => [d.id, d.mib])),
});

/** The drives that an installer of this manner takes in some world of the plan. */
function told(c: Case, manner: Manner): Set<string> {
  const drives: Partial<RehearsalDrive>[] = c.drives.map((d) => ({
    id: d.id,
    name: d.id,
    bytes: d.mib * 1024 ** 2,
    serial: d.id,
    bus: d.bus,
    role: d.id === c.named ? 'target' : 'other',
    matters: false,
  }));
  const plan = rehearsalPlanSchema.parse({
    kind: 'install',
    machine: { name: 'm', mode: 'bios', order: [['stick']], biosTries: 'each', power: 'secured' },
    drives: [
      ...drives,
      {
        id: 'stick',
        name: 'stick',
        bytes: 8e9,
        bus: 'usb',
        role: 'installer',
        matters: false,
        starts: { bios: 'it' },
      },
    ],
    installer: {
      choice:
        manner === 'first'
          ? 'takes the first drive unasked'
          : manner === 'largest'
            ? 'takes the largest drive unasked'
            : 'asks for the drive',
      lists: ['serial'],
    },
  });
  const stage = new Stage(plan);
  const taken = takenOf(stage, manner === 'serial' ? ['serial'] : []);
  const found = new Set<string>();
  everyRun(stage, taken, (_ending, asker) => {
    for (const { said } of tell(stage, taken, asker.trail()).frames)
      if (said.code === 'taken') found.add(said.drive);
    return false;
  });
  return found;
}

test.each(chosen)('$name: what is overwritten is what was told', async (c) => {
  const marks = await overwritten(shapeOf(c), prepareKernel(), c.named);
  for (const manner of manners) {
    const may = told(c, manner);
    expect({ manner, took: marks[manner] }).toEqual({ manner, took: [expect.any(String)] });
    expect([...may]).toEqual(expect.arrayContaining(marks[manner]));
    // The first is whichever answers first, so any that is there is told; the others hang on no order.
    const all = c.drives.map((d) => d.id);
    expect([...may].sort()).toEqual(manner === 'first' ? all.sort() : marks[manner]);
  }
});
