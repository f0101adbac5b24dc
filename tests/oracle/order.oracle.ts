/**
 * What the boot ladder and the rehearsal tell of an order of drives, against firmware in the emulator: drives that start
 * under UEFI, under BIOS, under both or not at all, in permuted order, the stick in and out, drives gone since their entries
 * were made. What spoke on the serial line is what was told. Ten worlds in every run, all in `npm run proof order`.
 */
import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { plainMachine, plainStore } from '@zb/core/model/blank';
import { emptyBench, type Bench, type Box, type Machine, type Store } from '@zb/core/model/bench';
import { noDetails } from '@zb/core/model/details';
import { rehearsalPlanSchema } from '@zb/core/model/rehearsal';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { Stage } from '@zb/core/rehearsal/stage';
import { takenOf, tell } from '@zb/core/rehearsal/tally';
import { bootLadder } from '@zb/core/starting/ladder';
import { run, scratch } from './files';
import { Maker } from './makeImages';

jest.setTimeout(1_800_000);
const ALL = process.env.ZB_ORDER === 'all';
type Mode = 'uefi' | 'bios';
const room = scratch();
afterAll(() => room.clear());
const maker = new Maker(room);
const OVMF = '/usr/share/OVMF';

/** What each drive starts under. */
const DRIVES = {
  A: ['uefi'],
  B: ['bios'],
  C: ['uefi', 'bios'],
  E: [],
  S: ['uefi', 'bios'],
} as const satisfies Record<string, readonly Mode[]>;
type Name = keyof typeof DRIVES;
const starts = (name: Name, mode: Mode): boolean => (DRIVES[name] as readonly Mode[]).includes(mode);
const names = Object.keys(DRIVES) as Name[];
const tokenOf = (name: Name): string => `ZB-SPOKE-${name}-HERE`;

/** Boot code that says a token on the serial line and halts; 8086 instructions by hand. */
function bootCode(token: string): Buffer {
  const sector = Buffer.alloc(446);
  Buffer.from('31c08ed8be157cac84c07406baf803eeebf5f4ebfd', 'hex').copy(sector);
  sector.write(`${token}\n\0`, 21, 'latin1');
  return sector;
}

function image(name: Name): string {
  const path = room.path(`${name}.img`);
  if (starts(name, 'uefi')) {
    const config = room.path(`${name}.cfg`);
    writeFileSync(
      config,
      `serial --unit=0 --speed=115200\nterminal_output serial\necho ${tokenOf(name)}\nhalt\n`,
    );
    const loader = room.path(`${name}.efi`);
    run('grub-mkstandalone', [
      '-O',
      'x86_64-efi',
      '-o',
      loader,
      '--modules=serial terminal echo halt',
      '--locales=',
      '--fonts=',
      '--themes=',
      `boot/grub/grub.cfg=${config}`,
    ]);
    const part = maker.fat(`${name}.fat`, 40, '16', [['/EFI/BOOT/BOOTX64.EFI', loader]]);
    maker.disk(`${name}.img`, 48, 'label: gpt\nstart=2048, size=81920, type=U\n', [[part, 1]]);
  } else maker.disk(`${name}.img`, 48, 'label: dos\nstart=2048, size=81920, type=83, bootable\n', []);
  const bytes = readFileSync(path);
  if (starts(name, 'bios')) bootCode(tokenOf(name)).copy(bytes, 0);
  // Without its signature BIOS passes a sector by; GPT wants one, and code that hands back (int 18h) is passed by as well.
  else if (starts(name, 'uefi')) Buffer.from('cd18', 'hex').copy(bytes, 0);
  else bytes.fill(0, 510, 512);
  writeFileSync(path, bytes);
  return path;
}
const images = new Map<Name, string>();
beforeAll(() => names.forEach((n) => images.set(n, image(n))));

/** Starts a machine with drives in this order and answers which of them spoke; null where the firmware gave up. */
async function started(
  mode: Mode,
  order: readonly Name[],
  vars: string | null,
  byIndex = true,
): Promise<Name | null> {
  const serial = room.path('serial.txt');
  const debug = room.path('debug.txt');
  for (const f of [serial, debug]) writeFileSync(f, '');
  const args = [
    '-M',
    'q35',
    '-m',
    '256',
    '-vga',
    'none',
    '-display',
    'none',
    '-monitor',
    'none',
    '-nic',
    'none',
    '-no-reboot',
  ];
  args.push(
    '-serial',
    `file:${serial}`,
    '-debugcon',
    `file:${debug}`,
    '-global',
    'isa-debugcon.iobase=0x402',
  );
  if (vars !== null) {
    args.push('-drive', `if=pflash,format=raw,readonly=on,file=${OVMF}/OVMF_CODE_4M.fd`);
    args.push('-drive', `if=pflash,format=raw,file=${vars}`);
  }
  args.push('-device', 'qemu-xhci');
  // Ports are told by name, so that a place on the bus is no hint to the order.
  names.forEach((name, port) => {
    const place = order.indexOf(name);
    if (place < 0) return;
    const index = byIndex ? `,bootindex=${place + 1}` : '';
    args.push('-drive', `file=${images.get(name) ?? ''},format=raw,if=none,id=${name},snapshot=on`);
    args.push(
      '-device',
      name === 'S'
        ? `usb-storage,drive=${name},removable=on${index}`
        : `ide-hd,drive=${name},bus=ide.${port}${index}`,
    );
  });
  const child = spawn('qemu-system-x86_64', args, { stdio: ['ignore', 'ignore', 'pipe'] });
  let complaint = '';
  child.stderr.on('data', (d: Buffer) => (complaint += d.toString()));
  const closed = new Promise<number | null>((resolve) => child.on('close', resolve));
  const read = (f: string): string => (existsSync(f) ? readFileSync(f, 'latin1') : '');
  const limit = Date.now() + (mode === 'bios' ? 20_000 : 60_000);
  try {
    while (Date.now() < limit) {
      await new Promise((r) => setTimeout(r, 100));
      const said = read(serial);
      const spoke = names.find((n) => said.includes(tokenOf(n)));
      if (spoke) return spoke;
      if (/No bootable (device|option)|Interactive Shell|Internal Shell|UEFI Shell/.test(said + read(debug)))
        return null;
      if (child.exitCode !== null) throw new Error(`The emulator ended: ${complaint}`);
    }
    throw new Error(`Nothing was said in time: ${read(serial)}${complaint}`);
  } finally {
    child.kill('SIGKILL');
    await closed;
  }
}

/** A bench with a machine that has these drives, entries and order; the stick is what the box has written. */
function benchWith(
  mode: Mode,
  order: readonly Name[],
  gone: readonly Name[] = [],
): { bench: Bench; box: Box; machine: Machine } {
  const hall = saltmarshHall();
  const template = hall.items.find((i) => i.id === 'clerk') as Machine;
  const facts: Machine['facts'] = Object.fromEntries(
    [
      ['firmware.mode', mode],
      ['cpu.arch', 'x86_64'],
      ['firmware.bits', '64'],
      ['firmware.secureBoot', 'off'],
      // The emulator's BIOS keeps to the specification.
      ['firmware.triesEach', false],
    ].map(([k, value]) => [k, { surveyed: { value, source: 'test', at: '' } }]),
  );
  const path = (n: Name): string =>
    n === 'S' ? 'PciRoot(0x0)/Pci(0x2,0x0)/USB(0x0,0x0)' : 'HD(1,GPT)/File(\\EFI\\BOOT\\BOOTX64.EFI)';
  const machine: Machine = {
    ...plainMachine,
    ...template,
    id: 'm',
    facts,
    details: {
      ...noDetails(),
      bootEntries:
        mode === 'uefi'
          ? order.map((n, i) => ({
              id: `000${i}`,
              label: `entry ${n}`,
              active: true,
              first: i === 0,
              inOrder: true,
              next: false,
              path: path(n),
            }))
          : [],
    },
  };
  const store = (n: Name): Store => ({
    ...plainStore,
    kind: 'drive',
    id: n,
    name: n,
    bytes: 48e6,
    serial: n,
    realBytes: null,
    model: null,
    label: '',
    transport: 'sata',
    rotational: false,
    removable: false,
    in: 'm',
    holds: '',
    notes: '',
    fate: 'keep',
    content: {
      table: 'gpt',
      tableId: null,
      sectorSize: null,
      parts: [
        {
          start: null,
          bytes: null,
          type: '',
          name: '',
          filesystem: 'vfat',
          label: null,
          uuid: null,
          partitionId: null,
          attributes: null,
          mount: null,
        },
      ],
      starts: DRIVES[n].map((m) => ({
        by: m === 'uefi' ? 'boot entry' : 'boot code',
        firmware: m === 'uefi' ? 'uefi-x64' : 'bios',
        path: '',
        title: m === 'uefi' ? `entry ${n}` : `system ${n}`,
      })),
      learnt: { from: 'survey', at: '', imageId: null },
    },
  });
  const inside = order.filter((n) => n !== 'S' && !gone.includes(n)).map(store);
  const box: Box = {
    ...(hall.boxes[0] as Box),
    machineId: 'm',
    profileId: null,
    written: null,
    startBy: 'order',
    layout: null,
  };
  return { bench: { ...emptyBench('test'), items: [machine, ...inside], boxes: [box] }, box, machine };
}

/** What the boot ladder tells of drives alone: the name of the drive that starts. */
function ladderTells(mode: Mode, order: readonly Name[], gone: readonly Name[] = []): string | null {
  const { bench, box, machine } = benchWith(mode, order, gone);
  const { decides, result } = bootLadder(bench, box, machine);
  if (result === 'nothing starts') return null;
  const entry = decides?.entry;
  return entry?.kind === 'drive'
    ? entry.name
    : entry?.kind === 'boot entry'
      ? entry.label.slice(-1)
      : 'the stick';
}

/** What a rehearsal tells of the same order when nobody presses a key. */
function rehearsalTells(mode: Mode, order: readonly Name[]): string | null {
  const stick = { id: 'S', role: 'installer', bus: 'usb' } as const;
  const inside = order.filter((n) => n !== 'S');
  const plan = rehearsalPlanSchema.parse({
    kind: 'install',
    machine: {
      name: 'm',
      mode,
      secureBoot: 'off',
      order: order.map((n) => [n]),
      power: 'secured',
      biosTries: 'first',
    },
    drives: [
      ...inside.map((n, i) => ({ id: n, bus: 'sata', role: i === 0 ? 'target' : 'other' })),
      // A stick that is out starts nothing.
      stick,
    ].map((d) => ({
      ...d,
      name: d.id,
      bytes: 48e6,
      matters: false,
      starts:
        d.id === 'S' && !order.includes('S')
          ? {}
          : Object.fromEntries(DRIVES[d.id].map((m) => [m, `system ${d.id}`])),
    })),
  });
  const stage = new Stage(plan);
  // The first question of a run is the key: missed.
  const first = tell(stage, takenOf(stage, []), [1]).frames[1]?.said;
  return first?.code === 'starts' ? first.drive : null;
}

const permuted = (list: readonly Name[]): Name[][] =>
  list.length < 2
    ? [[...list]]
    : list.flatMap((x) => permuted(list.filter((y) => y !== x)).map((rest) => [x, ...rest]));
/** Every order of three drives with the stick among them, and of the same drives with the stick out. */
const WORLDS = (['bios', 'uefi'] as const).flatMap((mode) => [
  ...permuted(['A', 'B', 'C', 'S']).map((order) => ({ mode, order })),
  ...permuted(['A', 'B', 'E']).map((order) => ({ mode, order })),
]);
const chosen = ALL ? WORLDS : WORLDS.filter((w, i) => i % (w.mode === 'bios' ? 8 : 15) === 3);

test('what starts is what was told, whatever the order, with the stick in and out', async () => {
  for (const { mode, order } of chosen) {
    const vars = mode === 'uefi' ? room.path('vars.fd') : null;
    if (vars) copyFileSync(`${OVMF}/OVMF_VARS_4M.fd`, vars);
    const spoke = await started(mode, order, vars);
    const told = rehearsalTells(mode, order);
    expect({ mode, order, spoke }).toEqual({ mode, order, spoke: told });
    // The ladder has no image for the stick here: of drives alone it tells the same.
    if (!order.includes('S'))
      expect({ mode, order, spoke }).toEqual({ mode, order, spoke: ladderTells(mode, order) });
  }
});

test('a drive that is gone since its entry was made is passed over', async () => {
  for (const order of ALL ? permuted(['A', 'C', 'E']) : [['C', 'A'] as Name[]]) {
    const vars = room.path('vars.fd');
    copyFileSync(`${OVMF}/OVMF_VARS_4M.fd`, vars);
    const first = await started('uefi', order, vars);
    expect(first).toBe(ladderTells('uefi', order));
    if (!first) continue;
    const left = order.filter((n) => n !== first);
    // The firmware's own memory of the order, and no word of the emulator's about it.
    const spoke = await started('uefi', left, vars, false);
    expect({ order, gone: first, spoke }).toEqual({
      order,
      gone: first,
      spoke: ladderTells('uefi', order, [first]),
    });
  }
});
