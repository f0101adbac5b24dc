/** Memory modules: SMBIOS tables made here (types 16 and 17, SMBIOS 3.x), decoded by dmidecode, its words read by us. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { noDetails } from '@zb/core/model/details';
import { readHealth } from '@zb/core/machine/health';
import { readModules } from '@zb/core/machine/memory';
import type { Survey } from '@zb/core/machine/types';
import { run, scratch } from './files';

const room = scratch();
afterAll(() => room.clear());

interface Slot {
  gib: number;
  form: 'DIMM' | 'SO-DIMM' | 'soldered';
  type: 'DDR3' | 'DDR4' | 'DDR5' | 'LPDDR';
  speed: number;
}
/** Codes of SMBIOS 3.x, tables 76 (form factor) and 77 (type). */
const FORM = { DIMM: 0x09, 'SO-DIMM': 0x0d, soldered: 0x0b };
const TYPE = { DDR3: 0x18, DDR4: 0x1a, DDR5: 0x22, LPDDR: 0x1e };

const structure = (type: number, handle: number, body: number[], strings: string[]): number[] => [
  type,
  body.length + 4,
  handle & 255,
  handle >> 8,
  ...body,
  ...strings.flatMap((s) => [...Buffer.from(s), 0]),
  ...(strings.length === 0 ? [0] : []),
  0,
];
const u16 = (n: number): number[] => [n & 255, (n >> 8) & 255];
const u32 = (n: number): number[] => [...u16(n & 0xffff), ...u16(Math.floor(n / 65536))];

function dump(slots: Slot[], mostGib: number): string {
  const array = structure(
    16,
    0x1000,
    [3, 3, 3, ...u32(mostGib * 1024 * 1024), ...u16(0xfffe), ...u16(slots.length)],
    [],
  );
  const devices = slots.flatMap((s, i) => {
    const empty = s.gib === 0;
    const body = [
      ...u16(0x1000),
      ...u16(0xfffe),
      ...u16(empty ? 0xffff : 64),
      ...u16(empty ? 0xffff : 64),
      ...(empty ? u16(0) : s.gib * 1024 >= 0x7fff ? u16(0x7fff) : u16(s.gib * 1024)),
      FORM[s.form],
      0,
      1,
      2,
      empty ? 2 : TYPE[s.type],
      ...u16(0x80),
      ...u16(empty ? 0 : s.speed),
      0,
      0,
      0,
      0,
      0,
      ...u32(s.gib * 1024),
      ...u16(0),
      ...u16(0),
      ...u16(0),
      ...u16(0),
    ];
    return structure(17, 0x1100 + i, body, [`Place ${i + 1}`, `BANK ${i}`]);
  });
  const table = [...array, ...devices, ...structure(127, 0x7fff, [], [])];
  const entry = [...Buffer.from('_SM3_'), 0, 24, 3, 2, 0, 1, 0, ...u32(table.length), ...u32(32), ...u32(0)];
  entry[5] = (256 - (entry.reduce((n, b) => n + b, 0) % 256)) % 256;
  const file = room.path('dmi.bin');
  writeFileSync(file, Buffer.from([...entry, ...new Array<number>(32 - entry.length).fill(0), ...table]));
  return run('dmidecode', ['-q', '--from-dump', file]);
}

function read(text: string): Survey {
  const survey: Survey = {
    facts: {},
    assumed: {},
    drives: [],
    networkPorts: [],
    details: noDetails(),
    missing: [],
  };
  readModules({ name: 'dmi', text, line: 1, whole: true }, survey);
  return survey;
}

const SIZES = [0, 1, 2, 4, 8, 16, 32, 64];
const cases = Array.from({ length: 60 }, (_, seed) => {
  const pick = (n: number, salt: number): number => (seed * 7919 + salt * 104729) % n;
  const form = (['DIMM', 'SO-DIMM', 'soldered'] as const)[pick(3, 1)] ?? 'DIMM';
  const type = form === 'soldered' ? 'LPDDR' : ((['DDR3', 'DDR4', 'DDR5'] as const)[pick(3, 2)] ?? 'DDR4');
  const count = 1 + pick(8, 3);
  const slots = Array.from({ length: count }, (__, i): Slot => ({
    gib: form === 'soldered' || i === 0 ? (SIZES[1 + pick(7, i)] ?? 8) : (SIZES[pick(8, i + seed)] ?? 0),
    form,
    type,
    speed: 1333 + 100 * pick(20, 4),
  }));
  return { slots, most: 32 * (1 + pick(8, 5)) };
});

it('reads the slots of 60 made-up machines as dmidecode decodes them', () => {
  for (const { slots, most } of cases) {
    const survey = read(dump(slots, most));
    expect(survey.details.modules.map((m) => [m.slot, m.bytes])).toEqual(
      slots.map((s, i) => [`Place ${i + 1}`, s.gib === 0 ? null : s.gib * 1024 ** 3]),
    );
    const [first] = slots;
    const plug = first?.form === 'soldered' ? [] : slots;
    expect({
      slots: survey.facts['memory.slots']?.value,
      free: survey.facts['memory.free']?.value,
      type: survey.facts['memory.type']?.value,
      form: survey.facts['memory.form']?.value,
      max: survey.assumed['memory.max']?.value,
      speed: survey.details.modules[0]?.speedMts,
    }).toEqual({
      slots: plug.length,
      free: plug.filter((s) => s.gib === 0).length,
      type: first?.type,
      form: first?.form,
      max: most * 1024 ** 3,
      speed: first?.speed,
    });
  }
});

it('smartctl’s own JSON for something that is no drive says nothing of health', () => {
  const { stdout } = spawnSync('smartctl', ['-j', '-i', '-H', '-A', '/dev/null'], {
    encoding: 'utf8',
    env: { ...process.env, PATH: `${process.env.PATH ?? ''}:/usr/sbin:/sbin` },
  });
  const json = JSON.parse(stdout) as { smartctl: { exit_status: number } };
  expect(json.smartctl.exit_status).not.toBe(0);
  expect(readHealth('null', json)).toBeUndefined();
});
