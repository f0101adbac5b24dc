import { fitHeadline } from '@zb/core/words/fit/headline';
import { judge, judgeAll } from '@zb/core/system/judge';
import type { DrivePart } from '@zb/core/system/part';
import { briefSheet, crossingOf } from '@zb/core/system/sheet';
import { findingWords } from '@zb/core/words/fit/finding';
import { matchHeadline } from '@zb/core/words/fit/match';
import { knownFact } from '@zb/core/model/known';
import { machineView } from '@zb/core/system/view';
import { ANY } from '@zb/core/demo/make';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findMachine } from '@zb/core/model/bench';
import { drive, GIB, machine, wants, type Asked } from './fitting';

const loose = (name: string, bytes: number, more = {}): DrivePart => ({
  kind: 'drive',
  id: name,
  name,
  price: 0,
  offer: false,
  bytes,
  bus: 'sata',
  m2: null,
  ...more,
});
// The rules are the trade's own (common practice, no source); the cases are mistakes seen again and again.
// What each rule asks is a system's own need; that falling short of it is a misfit is common practice, no source.
describe('rules', () => {
  it.each([
    ['fits as it stands', machine(), wants(), 'fits', undefined],
    [
      '32-bit CPU for a 64-bit build',
      machine({ 'cpu.arch': 'i686', 'cpu.bits': '32' }),
      wants(),
      'does not fit',
      'cpu',
    ],
    ['a board for a PC build', machine({ 'cpu.arch': 'aarch64' }), wants(), 'does not fit', 'cpu'],
    [
      'a board for a build that knows boards',
      machine({ 'cpu.arch': 'aarch64', 'firmware.mode': 'board' }),
      wants({ archs: ['aarch64'], firmware: ['uefi', 'board'] }),
      'fits',
      undefined,
    ],
    [
      'a board for a build that wants UEFI',
      machine({ 'cpu.arch': 'aarch64', 'firmware.mode': 'board' }),
      wants({ archs: ['aarch64'], firmware: ['uefi'] }),
      'does not fit',
      'firmware',
    ],
    [
      'a UEFI machine for a build for boards alone',
      machine({ 'cpu.arch': 'aarch64' }),
      wants({ archs: ['aarch64'], firmware: ['board'] }),
      'does not fit',
      'firmware',
    ],
    ['64-bit CPU for a 32-bit build', machine(), wants({ archs: ['i686'] }), 'fits', undefined],
    ['level too low', machine({ 'cpu.level': 'v1' }), wants({ cpuLevel: 'v2' }), 'does not fit', 'cpu level'],
    ['level just enough', machine({ 'cpu.level': 'v2' }), wants({ cpuLevel: 'v2' }), 'fits', undefined],
    ['too few cores', machine({ 'cpu.cores': 2 }), wants({ cores: 4 }), 'does not fit', 'cores'],
    [
      '8 GB fitted reports 7.7 GiB and counts as 8',
      machine(),
      wants({ memoryBytes: 8 * GIB }),
      'fits',
      undefined,
    ],
    [
      'half the memory',
      machine({ 'memory.bytes': 3.8 * GIB }),
      wants({ memoryBytes: 8 * GIB }),
      'fits after a change',
      'memory',
    ],
    [
      'memory of a board is soldered',
      machine({ 'cpu.arch': 'aarch64', 'memory.bytes': 2 * GIB }),
      wants({ archs: ['aarch64'], memoryBytes: 8 * GIB }),
      'does not fit',
      'memory',
    ],
    [
      'closed graphics driver, release carries in-kernel ones only',
      machine({ 'graphics.family': 'out-of-tree' }),
      wants({ graphics: true }),
      'does not fit',
      'graphics',
    ],
    [
      'closed graphics driver, release carries it',
      machine({ 'graphics.family': 'out-of-tree' }),
      wants({ graphics: true }, { variants: [ANY] }),
      'fits',
      undefined,
    ],
    [
      'no graphics at all',
      machine({ 'graphics.family': 'none' }),
      wants({ graphics: true }, { variants: [ANY] }),
      'does not fit',
      'graphics',
    ],
    [
      'UEFI machine, BIOS-only release: many have no compatibility mode',
      machine(),
      wants({ firmware: ['bios'] }),
      'cannot say yet',
      'firmware',
    ],
    [
      'BIOS mode, UEFI-only release: the setup screen knows',
      machine({ 'firmware.mode': 'bios' }),
      wants({ firmware: ['uefi'] }),
      'cannot say yet',
      'firmware',
    ],
    [
      'two wired ports wanted, one there',
      machine(),
      wants({ wiredPorts: 2 }),
      'fits after a change',
      'network',
    ],
    [
      'Secure Boot on, loader unsigned',
      machine({ 'firmware.secureBoot': 'on' }),
      wants(),
      'fits after a change',
      'secure boot',
    ],
    [
      'Secure Boot on, loader signed',
      machine({ 'firmware.secureBoot': 'on' }),
      wants({}, { secureBoot: 'signed' }),
      'fits',
      undefined,
    ],
    [
      'no virtualisation for a host',
      machine({ 'cpu.virtualisation': false }),
      wants({ virtualisation: true }),
      'does not fit',
      'virtualisation',
    ],
    [
      'mirror wanted, one port',
      machine({ 'ports.drives': 1 }),
      wants({ dataDrives: 2 }),
      'does not fit',
      'data drives',
    ],
    [
      'mirror wanted, ports but no drives',
      machine(),
      wants({ dataDrives: 2 }),
      'fits after a change',
      'data drives',
    ],
    [
      'boot drive too small',
      machine({}, { drives: [drive(4e9)] }),
      wants({ bootBytes: 16e9 }),
      'fits after a change',
      'boot drive',
    ],
  ])('%s', (_name, m, p, verdict, rule) => {
    const j = judge(m, p);
    expect(j.verdict).toBe(verdict);
    if (rule) expect(j.binding[0]?.rule).toBe(rule);
    expect(j.binding.every((f) => findingWords(f).because !== '')).toBe(true);
  });

  it.each([
    ['cpu.arch', {}],
    ['cpu.level', { cpuLevel: 'v2' }],
    ['cpu.cores', { cores: 2 }],
    ['memory.bytes', {}],
    ['graphics.family', { graphics: true }],
    ['firmware.mode', { firmware: ['uefi'] }],
    ['network.wired', { wiredPorts: 1 }],
    ['ports.drives', { dataDrives: 2 }],
    ['cpu.virtualisation', { virtualisation: true }],
  ] as const)('without %s it cannot say, and names exactly that fact', (key, needs) => {
    const m = machine();
    delete m.facts[key];
    // The kinds of the ports tell their number as well.
    if (key === 'ports.drives') delete m.facts['ports.sata'];
    const j = judge(m, wants(needs as Asked));
    expect(j.verdict).toBe('cannot say yet');
    expect(j.missing.map((x) => x.fact)).toEqual([key]);
    expect(j.missing[0]?.ask).toMatch(/\?$/);
  });

  it('a fact that no rule of the profile needs is not asked for', () => {
    const m = machine();
    delete m.facts['network.wired'];
    expect(judge(m, wants()).verdict).toBe('fits');
  });

  it('one "no" decides even where other things are unknown', () => {
    const m = machine({ 'cpu.arch': 'i686', 'cpu.bits': '32' });
    delete m.facts['memory.bytes'];
    expect(judge(m, wants()).verdict).toBe('does not fit');
  });

  it('a drive marked to keep is not offered as boot drive; a spare from the shelf is named', () => {
    const m = machine(
      {},
      {
        drives: [drive(240e9, { fate: 'keep' as const })],
        parts: [loose('Spare', 480e9), loose('Small', 32e9)],
      },
    );
    const f = judge(m, wants({ bootBytes: 16e9 })).binding[0];
    // The smallest part that does it.
    expect(f).toMatchObject({
      rule: 'boot drive',
      outcome: 'change',
      reason: { code: 'large drive kept' },
      mends: [{ kind: 'part', part: { name: 'Small' } }],
    });
  });

  it('more of anything never turns a fit into a misfit', () => {
    const better = machine(
      { 'cpu.level': 'v4', 'cpu.cores': 64, 'memory.bytes': 512 * GIB, 'network.wired': 8 },
      { drives: [drive(4e12), drive(4e12), drive(4e12)] },
    );
    for (const p of saltmarshHall().profiles.filter(
      (x) => x.releases[0]?.archs.includes('x86_64') && x.needs.firmware.includes('uefi'),
    )) {
      if (judge(machine(), p).verdict === 'fits') expect(judge(better, p).verdict).toBe('fits');
    }
  });
});

describe('on the bench', () => {
  const bench = saltmarshHall();
  const gull = findMachine(bench, 'gull');
  if (!gull) throw new Error('the demo has lost Gull');

  it('what was entered by hand wins over the survey, and the view says so', () => {
    const m = {
      facts: { 'cpu.cores': { surveyed: { value: 4, source: 's', at: '' }, entered: { value: 6, at: '' } } },
    };
    expect(knownFact(m, 'cpu.cores')).toMatchObject({ value: 6, origin: 'entered' });
    expect(machineView(bench, { ...gull, ...m }).facts['cpu.cores']).toBe(6);
  });

  it('a card that sits in a board is its drive, a stick in a port is not', () => {
    const pebble = findMachine(bench, 'pebble');
    const board = bench.profiles.find((p) => p.id === 'tidegate-board');
    if (!pebble || !board) throw new Error('missing in the demo');
    expect(judge(machineView(bench, pebble), board).verdict).toBe('fits');
    const asStick = bench.items.map((i) => (i.kind === 'card' ? { ...i, kind: 'stick' as const } : i));
    const without = judge(machineView({ ...bench, items: asStick }, pebble), board);
    // It has no drive port, so no drive from the shelf is offered.
    expect(without.binding[0]).toMatchObject({
      rule: 'boot drive',
      mends: [{ kind: 'buy', card: true, gives: { kind: 'boot' } }],
    });
  });
  it('the box’s purpose comes first, best first within it', () => {
    const judged = judgeAll(bench, gull, 'games');
    expect(judged.slice(0, 2).every((j) => j.of.purpose === 'games')).toBe(true);
    expect(judged[judged.length - 1]?.verdict).toBe('does not fit');
  });

  it('the headline is the finding', () => {
    expect(fitHeadline('Gull', 'games', judgeAll(bench, gull, 'games'))).toMatch(/fits Gull after a change/);
    expect(fitHeadline('Gull', 'games', judgeAll(bench, gull, 'games'), 'lantern-arcade')).toMatch(
      /^Lantern Arcade/,
    );
    expect(fitHeadline('Gull', 'music', [])).toMatch(/No profile/);
  });

  it('the match sheet has a crossing for every pair of machine and wish, or of machine and system', () => {
    const sheet = briefSheet(bench, 'wishes');
    expect(sheet.rows).toHaveLength(9);
    expect(sheet.rows.every((r) => r.cells.length === bench.wishes.length)).toBe(true);
    expect(matchHeadline(bench, sheet)).toMatch(/of 7 wishes/);
    expect(matchHeadline(bench, null)).toMatch(/\?$/);
    expect(matchHeadline({ ...bench, wishes: [] }, sheet)).toMatch(/\?$/);
    expect(briefSheet(bench, 'systems').rows.every((r) => r.cells.length === bench.profiles.length)).toBe(
      true,
    );
    // A shown score is that of the full crossing.
    const wish = bench.wishes.findIndex((w) => w.id === 'w-desk');
    const at = sheet.rows.findIndex((r) => r.machineId === 'clerk');
    const clerk = findMachine(bench, 'clerk');
    const full = clerk && bench.wishes[wish] && crossingOf(bench, clerk, bench.wishes[wish]);
    expect(sheet.rows[at]?.cells[wish]).toMatchObject({
      verdict: full?.judged.verdict,
      score: full?.score.total,
    });
  });
});
