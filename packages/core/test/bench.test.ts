import { startWords } from '@zb/core/words/start';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { recordWrite, endedRun } from '@zb/core/acts/write';
import {
  addEntry,
  chooseProfile,
  createBox,
  recordImage,
  removeBox,
  updateBox,
  againstSignoff,
  toggleSignoff,
} from '@zb/core/acts/box';
import { addSampleProfiles } from '@zb/core/acts/profiles';
import { dataOn } from '@zb/core/demo/make';
import { demoProfiles } from '@zb/core/demo/profiles';
import { emptyContent } from '@zb/core/model/content';
import { buildSheet } from '@zb/core/words/buildSheet';
import { applySurvey, blankMachine, enterFact, removeItem, saveItem } from '@zb/core/acts/shelf';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { demoSticks } from '@zb/core/demo/sticks';
import { judgeAll } from '@zb/core/system/judge';
import { belongsTo, jobsOf, tagOf, type Job } from '@zb/core/model/job';
import { inspectImage } from '@zb/core/starting/inspect';
import { bytesSource } from '@zb/core/formats/source';
import {
  arranged,
  BENCH_VERSION,
  benchSchema,
  emptyBench,
  findBox,
  findImage,
  findMachine,
  machinesOf,
  storesOf,
  findEntries,
  type Bench,
} from '@zb/core/model/bench';
import { applyChanges, differences, type Act } from '@zb/core/model/changes';
import {
  BenchFileError,
  benchFromText,
  benchToText,
  migrate,
  migrations,
  previewImport,
  type Migration,
} from '@zb/core/model/file';
import { noDetails } from '@zb/core/model/details';
import { faultOf } from '@zb/core/model/fault';
import { jsonSchemas } from '@zb/core/model/jsonSchema';

let n = 0;
const stamp = { now: '2026-05-01T10:00:00.000Z', id: () => `id-${(n += 1)}` };
const demo = saltmarshHall();
const after = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
const must = <T>(value: T | undefined): T => {
  if (value === undefined) throw new Error('missing in the demo');
  return value;
};
const games = must(findBox(demo, 'games-corner'));

describe('the demo bench', () => {
  it('is a sound bench file', () =>
    expect(benchFromText(benchToText(demo))).toEqual(benchSchema.parse(JSON.parse(benchToText(demo)))));

  it('has what the design asks for', () => {
    const machines = machinesOf(demo);
    expect(machines.map((m) => m.form).sort()).toEqual([
      'board',
      'board',
      'handheld',
      'laptop',
      'mini PC',
      'office desktop',
      'old desktop',
      'rack server',
      'tower',
    ]);
    expect(storesOf(demo).length).toBeGreaterThanOrEqual(12);
    expect(demo.profiles.length).toBeGreaterThanOrEqual(8);
    expect(new Set(demo.profiles.map((p) => p.purpose)).size).toBe(7);
    expect(storesOf(demo).some((s) => s.fate === 'keep' && /scans/.test(s.holds))).toBe(true);
    const [blue, red] = ['blue', 'red'].map((id) => storesOf(demo).find((s) => s.id === id));
    expect(blue?.bytes).toBe(red?.bytes);
    expect(new Set(demo.boxes.map((b) => b.signoffs.length)).size).toBeGreaterThanOrEqual(4);
  });

  it('the stand-in writer has the bench’s sticks plugged in, and one of them lies', () => {
    for (const id of ['blue', 'red', 'grey', 'scans-stick', 'market']) {
      const virtual = must(demoSticks.find((s) => s.id === id));
      expect(storesOf(demo).find((s) => s.serial === virtual.serial)).toMatchObject({
        id,
        bytes: virtual.bytes,
      });
    }
    expect(demoSticks.find((s) => s.id === 'market')?.fault.realBytes).toBeGreaterThan(0);
  });
});

describe('the bench file', () => {
  it('a round trip is identical to the byte', () => {
    const text = benchToText(demo);
    expect(benchToText(benchFromText(text))).toBe(text);
    expect(text.endsWith('}\n')).toBe(true);
  });

  it('whatever is missing from a bench, what is saved can be opened again', () => {
    fc.assert(
      fc.property(
        fc.subarray(demo.items),
        fc.subarray(demo.profiles),
        fc.subarray(demo.boxes),
        (items, profiles, boxes) => {
          const text = benchToText({ ...demo, items, profiles, boxes });
          expect(benchToText(benchFromText(text))).toBe(text);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('does not depend on the order of records or keys', () => {
    const shuffled: Bench = {
      ...demo,
      items: [...demo.items].reverse(),
      log: [...demo.log].reverse(),
      boxes: [...demo.boxes].reverse(),
    };
    expect(benchToText(shuffled)).toBe(benchToText(demo));
    expect(benchToText(arranged(shuffled))).toBe(benchToText(demo));
  });

  const broken = (change: (raw: Record<string, unknown[]> & Record<string, unknown>) => void): string => {
    const raw = JSON.parse(benchToText(demo)) as Record<string, unknown[]> & Record<string, unknown>;
    change(raw);
    return JSON.stringify(raw);
  };
  const problemsOf = (text: string): BenchFileError => {
    try {
      benchFromText(text);
    } catch (error) {
      if (error instanceof BenchFileError) return error;
      throw error;
    }
    throw new Error('the file was taken');
  };

  it.each([
    ['not JSON', '{"format":', /not readable JSON/],
    ['a list', '[]', /not a bench file/],
    ['another format', '{"format":"x"}', /not a bench file/],
    ['no version', '{"format":"zealous-box-bench"}', /does not say its version/],
    ['a newer version', '{"format":"zealous-box-bench","version":99}', /version 99/],
  ])('refuses %s', (_name, text, words) => expect(problemsOf(text).message).toMatch(words));

  it.each([
    [
      'a negative size',
      (r: Record<string, unknown[]>) =>
        Object.assign(r.items?.find((i) => (i as { kind: string }).kind === 'stick') as object, {
          bytes: -1,
        }),
      /^items\[\d+\]\.bytes$/,
    ],
    [
      'an unknown kind',
      (r: Record<string, unknown[]>) => Object.assign(r.items?.[3] as object, { kind: 'toaster' }),
      /^items\[3\]\.kind$/,
    ],
    [
      'a missing name',
      (r: Record<string, unknown[]>) => Reflect.deleteProperty(r.boxes?.[0] as object, 'name'),
      /^boxes\[0\]\.name$/,
    ],
    [
      'a box of a machine that is not there',
      (r: Record<string, unknown[]>) => Object.assign(r.boxes?.[1] as object, { machineId: 'ghost' }),
      /^boxes\[1\]\.machineId$/,
    ],
    [
      'an id used twice',
      (r: Record<string, unknown[]>) =>
        Object.assign(r.profiles?.[1] as object, { id: (r.profiles?.[0] as { id: string }).id }),
      /^profiles\[1\]\.id$/,
    ],
    [
      'a log line of no box',
      (r: Record<string, unknown[]>) => Object.assign(r.log?.[0] as object, { boxId: 'ghost' }),
      /^log\[0\]\.boxId$/,
    ],
  ])('names the path of %s', (_name, change, path) => {
    const error = problemsOf(broken(change));
    expect(error.problems.some((p) => path.test(p.path) && p.why !== '')).toBe(true);
  });

  it('migrates step by step from version 1 on, and refuses a gap', () => {
    const steps = new Map<number, Migration>([
      [1, (o: Record<string, unknown>) => ({ ...o, b: 1 })],
      [2, (o: Record<string, unknown>) => ({ ...o, c: Number(o.b) + 1 })],
    ]);
    expect(migrate({ format: 'zealous-box-bench', version: 1, a: 0 }, steps, 3)).toEqual({
      format: 'zealous-box-bench',
      version: 3,
      a: 0,
      b: 1,
      c: 2,
    });
    expect(migrate({ format: 'zealous-box-bench', version: 3 }, steps, 3)).toEqual({
      format: 'zealous-box-bench',
      version: 3,
    });
    expect(() => migrate({ format: 'zealous-box-bench', version: 1 }, new Map(), 2)).toThrow(
      /No way is known/,
    );
  });

  it('a file of this version passes the shipped path unchanged', () => {
    const raw = JSON.parse(benchToText(demo)) as unknown;
    expect(migrate(raw, migrations)).toEqual(raw);
  });

  it('a file that version 1 saved is read whole: its systems get releases and variants, nothing is lost', () => {
    const text = readFileSync(join(__dirname, 'fixtures/bench-v1.json'), 'utf8');
    const old = JSON.parse(text) as {
      items: { id: string; facts?: object }[];
      boxes: { id: string; signoffs: object[] }[];
      profiles: {
        id: string;
        release: string;
        channel: string;
        adminPort: number | null;
        signedLoader: boolean;
      }[];
    };
    const bench = benchFromText(text);
    expect(bench.version).toBe(BENCH_VERSION);
    expect(bench.items.map((i) => i.id)).toEqual(old.items.map((i) => i.id));
    expect(bench.boxes.map((b) => [b.id, b.signoffs])).toEqual(old.boxes.map((b) => [b.id, b.signoffs]));
    for (const p of old.profiles) {
      const now = must(bench.profiles.find((x) => x.id === p.id));
      expect(now.releases.map((r) => [r.version, r.channel])).toEqual([[p.release, p.channel]]);
      expect(now.admin?.port ?? null).toBe(p.adminPort);
      expect(now.secureBoot).toBe(p.signedLoader ? 'signed' : 'must be off');
    }
    expect(machinesOf(bench).every((m) => m.owned && m.details === null)).toBe(true);
    expect(bench.wishes).toEqual([]);
    expect(benchFromText(benchToText(bench))).toEqual(bench);
  });

  it('a file that version 2 saved keeps what its images were found to start on', () => {
    const text = readFileSync(join(__dirname, 'fixtures/bench-v2.json'), 'utf8');
    const old = JSON.parse(text) as {
      items: {
        id: string;
        inspection?: {
          outcomes: { starts: string; because: string; evidence: string; signed: boolean | null }[];
        };
      }[];
    };
    const bench = benchFromText(text);
    for (const before of old.items.filter((i) => i.inspection)) {
      const now = must(findImage(bench, before.id)?.inspection ?? undefined);
      const was = must(before.inspection).outcomes;
      expect(now.outcomes.map((o) => [o.starts, startWords(o)])).toEqual(
        was.map((o) => [o.starts, o.because]),
      );
      expect(now.outcomes.map((o) => o.evidence[0]?.what)).toEqual(was.map((o) => o.evidence ?? undefined));
      expect(now.outcomes.map((o) => o.secureBoot?.starts)).toEqual(
        was.map((o) => (o.signed === false && o.starts === 'yes' ? 'no' : undefined)),
      );
      expect(now.inner).toBeNull();
    }
    expect(benchFromText(benchToText(bench))).toEqual(bench);
  });

  it('a wrong profile in a version 1 file is named, not hidden by the step', () => {
    const old = JSON.parse(readFileSync(join(__dirname, 'fixtures/bench-v1.json'), 'utf8')) as {
      profiles: { needs: unknown }[];
    };
    must(old.profiles[0]).needs = 'much';
    expect(problemsOf(JSON.stringify(old)).problems.some((p) => /^profiles\[0\]/.test(p.path))).toBe(true);
  });

  it('the preview counts what an import adds, replaces and takes away', () => {
    const incoming: Bench = {
      ...demo,
      boxes: demo.boxes.slice(1).map((b, i) => (i === 0 ? { ...b, name: 'Other' } : b)),
      profiles: [...demo.profiles, { ...must(demo.profiles[0]), id: 'fresh' }],
    };
    const of = (c: string) => previewImport(demo, incoming).find((p) => p.collection === c);
    expect(of('boxes')).toEqual({
      collection: 'boxes',
      added: 0,
      replaced: 1,
      removed: 1,
      same: demo.boxes.length - 2,
    });
    expect(of('profiles')).toMatchObject({ added: 1, replaced: 0, removed: 0 });
    expect(of('items')).toMatchObject({ added: 0, replaced: 0, removed: 0, same: demo.items.length });
  });

  it.each(Object.entries(jsonSchemas()))(
    'the JSON Schema %s in docs is the one the code has',
    (name, text) => {
      expect(readFileSync(join(__dirname, '../../../docs', name), 'utf8')).toBe(text);
    },
  );
});

describe('changes', () => {
  it('differences lead from any bench to any other', () => {
    const subset = fc.subarray([...demo.items.keys()]);
    fc.assert(
      fc.property(subset, subset, (a, b) => {
        const from: Bench = { ...demo, boxes: [], log: [], items: a.map((i) => must(demo.items[i])) };
        const to: Bench = {
          ...demo,
          name: 'Other',
          boxes: [],
          log: [],
          items: b.map((i) => ({ ...must(demo.items[i]), notes: 'changed' })),
        };
        expect(benchToText(applyChanges(from, differences(from, to)))).toBe(benchToText(to));
      }),
      { numRuns: 40 },
    );
  });
  it('leaves the bench it was given as it was', () => {
    const before = benchToText(demo);
    after(demo, toggleSignoff(demo, games, 'verify', stamp));
    expect(benchToText(demo)).toBe(before);
  });
});

describe('acts', () => {
  const gull = must(findMachine(demo, 'gull'));
  const survey = {
    facts: { 'cpu.cores': { value: 12, source: 'line' }, 'memory.bytes': { value: 1e9, source: 'line' } },
    drives: [
      {
        name: 'nvme0n1',
        bytes: 512_110_190_592,
        serial: 'NV2230-0415-88E1',
        model: 'X',
        transport: 'nvme',
        rotational: false,
        sectorBytes: null,
        shingled: null,
        removable: false,
        removableMedium: false,
        attachment: 'internal' as const,
        content: dataOn('ext4', 'OLD', 512_110_190_592),
      },
      {
        name: 'sda',
        bytes: 8e9,
        serial: 'NEW-1',
        model: null,
        transport: 'usb',
        rotational: null,
        sectorBytes: null,
        shingled: null,
        removable: true,
        removableMedium: true,
        attachment: 'external' as const,
        content: emptyContent('survey', ''),
      },
      {
        name: 'sdb',
        bytes: 1e12,
        serial: null,
        model: 'Plain',
        transport: 'ata',
        rotational: true,
        sectorBytes: null,
        shingled: null,
        removable: false,
        removableMedium: false,
        attachment: 'internal' as const,
        content: emptyContent('survey', ''),
      },
    ],
    networkPorts: [],
    assumed: {},
    details: noDetails(),
    missing: ['something'],
  };

  it('a survey replaces surveyed facts, keeps entered ones, matches drives by serial and adds new ones', () => {
    const entered = after(demo, enterFact(gull, 'cpu.cores', 6, stamp));
    const result = after(
      entered,
      applySurvey(entered, must(findMachine(entered, 'gull')), survey, stamp, 'games-corner'),
    );
    const m = must(findMachine(result, 'gull'));
    expect(m.facts['cpu.cores']).toMatchObject({ surveyed: { value: 12 }, entered: { value: 6 } });
    expect(m.facts['cpu.level']).toBeUndefined();
    expect(m.facts['firmware.setupKey']?.entered?.value).toBe('volume-up, then power');
    expect(m.missing).toEqual(['something']);
    expect(storesOf(result).filter((s) => s.serial === 'NV2230-0415-88E1')).toMatchObject([
      { id: 'gull-ssd', holds: 'the system it came with', fate: 'may be lost' },
    ]);
    // What was never seen before and is not empty is not decided.
    expect(storesOf(result).find((s) => s.model === 'Plain')?.fate).toBe('may be lost');
    expect(storesOf(result).find((s) => s.serial === 'NEW-1')).toMatchObject({
      kind: 'stick',
      in: 'gull',
      transport: 'usb',
    });
    expect(storesOf(result).find((s) => s.model === 'Plain')).toMatchObject({
      kind: 'drive',
      // “ata” alone tells neither SATA nor IDE.
      transport: 'other',
    });
    expect(result.log.length).toBe(entered.log.length + 1);
    expect(() => benchFromText(benchToText(result))).not.toThrow();
  });

  it('the same survey twice adds nothing twice', () => {
    const once = after(demo, applySurvey(demo, gull, survey, stamp, null));
    const twice = after(once, applySurvey(once, must(findMachine(once, 'gull')), survey, stamp, null));
    expect(twice.items.length).toBe(once.items.length);
  });

  it('a survey never unmarks what must be kept', () => {
    const tern = must(findMachine(demo, 'tern'));
    const seen = {
      ...survey,
      drives: [{ ...must(survey.drives[0]), serial: 'SS24-77A0-1D52', bytes: 240_057_409_536 }],
    };
    const result = after(demo, applySurvey(demo, tern, seen, stamp, null));
    expect(storesOf(result).find((s) => s.id === 'tern-ssd')).toMatchObject({
      fate: 'keep',
      holds: '212 GiB of parish scans, the only copy',
      content: { parts: [{ label: 'OLD' }], learnt: { from: 'survey', at: stamp.now } },
    });
  });

  it('a fact entered by hand can be taken back', () => {
    const entered = after(demo, enterFact(gull, 'cpu.model', 'Odd', stamp));
    const m = must(findMachine(entered, 'gull'));
    expect(m.facts['cpu.model']?.entered?.value).toBe('Odd');
    const back = after(entered, enterFact(m, 'cpu.model', undefined, stamp));
    expect(must(findMachine(back, 'gull')).facts['cpu.model']).toBeUndefined();
  });

  it('removing a machine frees its drives and its boxes', () => {
    const result = after(demo, removeItem(demo, gull));
    expect(storesOf(result).find((s) => s.id === 'gull-ssd')?.in).toBeNull();
    expect(findBox(result, 'games-corner')?.machineId).toBeNull();
    expect(() => benchFromText(benchToText(result))).not.toThrow();
  });

  it('a new box may bring its machine along', () => {
    const machine = blankMachine('Plain', 'tower', stamp);
    const made = createBox('Fresh', 'music', machine, stamp, true);
    const result = after(emptyBench(), made);
    expect(result.items).toHaveLength(1);
    expect(result.boxes[0]).toMatchObject({ name: 'Fresh', machineId: machine.id, startBy: 'menu' });
  });

  it('a choice is a decision with its reason, one at a time, and a line of the log', () => {
    const [first, second] = judgeAll(demo, gull, 'games');
    const one = after(demo, chooseProfile(demo, games, must(first).of, must(first), stamp));
    const two = after(
      one,
      chooseProfile(one, must(findBox(one, 'games-corner')), must(second).of, must(second), stamp),
    );
    const box = must(findBox(two, 'games-corner'));
    expect(box.profileId).toBe(second?.profileId);
    expect(box.decisions.filter((d) => d.what === 'System')).toHaveLength(1);
    expect(box.decisions.find((d) => d.what === 'System')?.because).toMatch(/Secure Boot/);
    expect(two.log.length).toBe(demo.log.length + 2);
  });

  it('an image is kept once, with its digests, whoever opens it', async () => {
    const inspection = await inspectImage(bytesSource(new Uint8Array(4096)));
    const file = { name: 'x.img', bytes: 4096, depotFile: null };
    const hash = { digests: { sha256: 'a'.repeat(64) }, comparison: null, seconds: 2 };
    const first = recordImage(demo, games, file, inspection, hash, stamp);
    const one = after(demo, first);
    expect(findBox(one, 'games-corner')?.imageId).toBe(first.image.id);
    expect(one.log[one.log.length - 1]).toMatchObject({ kind: 'hash', verdict: 'computed' });
    const again = recordImage(one, undefined, file, inspection, hash, stamp);
    expect(again.image.id).toBe(first.image.id);
    const other = recordImage(
      one,
      undefined,
      file,
      inspection,
      { ...hash, digests: { sha256: 'b'.repeat(64) } },
      stamp,
    );
    expect(other.image.id).not.toBe(first.image.id);
  });

  it('a read without a digest, or of the same digest, keeps an earlier comparison', async () => {
    const inspection = await inspectImage(bytesSource(new Uint8Array(4096)));
    const file = { name: 'y.img', bytes: 4096, depotFile: 'y.img' };
    const comparison = {
      verdict: 'same',
      algorithm: 'sha256',
      of: 'file',
      publishedBytes: null,
      published: 'a',
      computed: 'a',
      from: 'L',
      at: stamp.now,
    } as const;
    const one = after(
      demo,
      recordImage(
        demo,
        undefined,
        file,
        inspection,
        { digests: { sha256: 'a' }, comparison, seconds: 1 },
        stamp,
      ),
    );
    // Read again to the end, with no list open: the same bytes are still what the list said they are.
    const hash = { digests: { sha256: 'a' }, comparison: null, seconds: 1 };
    expect(recordImage(one, undefined, file, inspection, hash, stamp).image.comparison).toEqual(comparison);
    const changed = { ...hash, digests: { sha256: 'b' } };
    expect(recordImage(one, undefined, file, inspection, changed, stamp).image.comparison).toBeNull();
    const two = recordImage(one, undefined, { ...file, depotFile: null }, inspection, null, stamp);
    expect(two.image).toMatchObject({ comparison, depotFile: 'y.img' });
  });

  const run = {
    imageId: 'none',
    imageName: 'x.img',
    serial: 'ST64-0000-F00D',
    bytes: 1e9,
    touched: true,
    seconds: 60,
    writeSeconds: null,
    predicted: { low: 50, high: 70 },
    explanation: 'The stick claims more than it has.',
    realBytes: null,
    target: null,
  };
  it('a write is recorded on box, log and shelf; what a liar really holds stays known', () => {
    const lie = { ...run, result: 'failed', realBytes: 6_291_456 } as const;
    const one = after(demo, recordWrite(demo, games, lie, stamp));
    expect(findBox(one, 'games-corner')?.written).toMatchObject({ result: 'failed', serial: run.serial });
    expect(storesOf(one).find((s) => s.id === 'market')).toMatchObject({
      holds: expect.stringMatching(/broken copy/),
      realBytes: 6_291_456,
    });
    const two = after(one, recordWrite(one, games, { ...run, result: 'failed' }, stamp));
    expect(storesOf(two).find((s) => s.id === 'market')?.realBytes).toBe(6_291_456);
    expect(one.log[one.log.length - 1]?.text).toMatch(/FAILED after 1 min, foretold 1 min/);
  });
  it('a cancelled write never counts as proven', () => {
    const one = after(
      demo,
      recordWrite(demo, games, { ...run, result: 'cancelled', explanation: 'Cancelled.' }, stamp),
    );
    expect(findBox(one, 'games-corner')?.written?.result).toBe('failed');
    expect(one.log[one.log.length - 1]).toMatchObject({ kind: 'write', result: 'cancelled' });
  });

  it('a write of the writer becomes a record of its own bench, beside what was foretold', async () => {
    const inspection = await inspectImage(bytesSource(new Uint8Array(4096)));
    const file = { name: 'x.img', bytes: 1e6, depotFile: null };
    const opened = recordImage(demo, games, file, inspection, null, stamp);
    const bench = after(demo, opened);
    const job: Job = {
      id: 'j',
      stickId: 'market',
      serial: 'ST64-0000-F00D',
      imageName: 'x.img',
      total: 1e6,
      target: null,
      sha256: null,
      touched: true,
      state: 'interrupted',
      written: 5,
      readBack: 0,
      seconds: 2,
      writeSeconds: null,
      pattern: 'lying capacity',
      firstDifference: 4096,
      explanation: 'e',
      startedAt: '',
      tag: tagOf(games, opened.image.id),
    };
    expect(belongsTo(job)).toEqual({ boxId: games.id, imageId: opened.image.id });
    expect(jobsOf(bench, [job])).toEqual([job]);
    expect(jobsOf(demo, [job])).toEqual([]);
    expect(endedRun(bench, job)).toMatchObject({ result: 'failed', realBytes: 4096, touched: true });
    expect(endedRun(bench, job).predicted?.high).toBeGreaterThan(0);
    const odd = { ...job, state: 'proven' as const, pattern: 'same', serial: 'NOT-ON-SHELF' };
    expect(endedRun(bench, odd)).toMatchObject({ result: 'proven', realBytes: null, predicted: null });
  });

  it('a write that reached no byte leaves stick and box as they were, and is on record', () => {
    const none = { ...run, touched: false, result: 'cancelled', explanation: 'As it was.' } as const;
    const one = after(demo, recordWrite(demo, games, none, stamp));
    expect(one.boxes).toEqual(demo.boxes);
    expect(one.items).toEqual(demo.items);
    expect(one.log).toHaveLength(demo.log.length + 1);
  });

  it('a Stop stands against signing off its own stop only; the reason for going on is kept', () => {
    const film = must(findBox(demo, 'film-night'));
    expect(againstSignoff(demo, film, 'verify')).toEqual([]);
    expect(againstSignoff(demo, film, 'install')).toMatchObject([
      { code: 'rehearsal loses a drive', store: 'tern-ssd' },
    ]);
    const one = after(demo, toggleSignoff(demo, film, 'install', stamp, 'the scans are copied'));
    const signed = must(findBox(one, 'film-night'));
    expect(signed.signoffs.find((s) => s.stop === 'install')?.despite).toBe('the scans are copied');
    expect(againstSignoff(one, signed, 'install')).toEqual([]);
    expect(one.log[one.log.length - 1]?.text).toBe('Install signed off despite a Stop: the scans are copied');
    expect(buildSheet(one, signed)).toContain('despite a Stop: the scans are copied');
    expect(benchFromText(benchToText(one)).boxes).toHaveLength(one.boxes.length);
  });

  it('an act whose records could not be read back is found out, with the field', () => {
    const blue = must(demo.items.find((i) => i.id === 'blue'));
    expect(faultOf(saveItem(blue, blue), demo)).toBeUndefined();
    expect(faultOf(saveItem(blue, { ...blue, name: 'x'.repeat(201) }), demo)).toMatch(/^name: /);
    expect(faultOf(updateBox(games, { name: '' }, ''), demo)).toMatch(/^name: /);
    expect(faultOf({ changes: [{ in: 'name', id: 'name', to: ' ' }] }, demo)).toMatch(/1 to 120/);
    expect(faultOf(removeBox(demo, games), demo)).toBeUndefined();
    expect(faultOf({ changes: differences(emptyBench(), demo) }, emptyBench())).toBeUndefined();
  });

  it('sample systems come once', () => {
    const bare = { ...emptyBench('B'), profiles: demo.profiles.slice(0, 3) };
    const full = after(bare, addSampleProfiles(bare, demoProfiles));
    expect(full.profiles.map((p) => p.id).sort()).toEqual(demo.profiles.map((p) => p.id).sort());
    expect(addSampleProfiles(full, demoProfiles).changes).toEqual([]);
  });

  it('signing off goes and comes back', () => {
    const one = after(demo, toggleSignoff(demo, games, 'verify', stamp));
    const signed = must(findBox(one, 'games-corner'));
    expect(signed.signoffs.map((s) => s.stop)).toContain('verify');
    expect(
      after(one, toggleSignoff(one, signed, 'verify', stamp)).boxes.find((b) => b.id === games.id)?.signoffs,
    ).toEqual(games.signoffs);
  });

  it('hand entries of every kind are sound, and go with their box', () => {
    let bench = demo;
    for (const entry of [
      { kind: 'note', text: 'n' },
      { kind: 'setting', text: 's', from: 'a', to: 'b' },
      { kind: 'photo', text: 'p', photo: 'data:image/jpeg;base64,AA==' },
    ] as const)
      bench = after(bench, addEntry(games, 'tune', entry, stamp));
    expect(() => benchFromText(benchToText(bench))).not.toThrow();
    const gone = after(bench, removeBox(bench, games));
    expect(gone.log.some((e) => e.boxId === games.id)).toBe(false);
    expect(gone.boxes).toHaveLength(demo.boxes.length - 1);
  });

  it('items and boxes are saved as given', () => {
    const stick = must(demo.items.find((i) => i.id === 'blue'));
    expect(
      after(demo, saveItem(stick, { ...stick, name: 'Bluer' })).items.find((i) => i.id === 'blue')?.name,
    ).toBe('Bluer');
    expect(after(demo, updateBox(games, { name: 'G' }, 'x')).boxes.find((b) => b.id === games.id)?.name).toBe(
      'G',
    );
  });
});

describe('find anything', () => {
  it('has every box, stop, item, profile and line, each with an address', () => {
    const entries = [...findEntries(demo)];
    expect(entries.length).toBe(
      demo.boxes.length * 13 +
        demo.items.length +
        demo.profiles.length +
        demo.networks.length +
        demo.hosts.length +
        demo.log.length,
    );
    for (const e of entries) expect(e.path).toMatch(/^\/(box|shelf|images|profiles|network|logbook)/);
    expect(entries.find((e) => e.detail.includes('ST16-40A7-7C20'))?.title).toBe('Blue stick');
  });
});
