import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import { depotImages } from '@zb/core/demo/depot';
import { readWhole } from '@zb/core/starting/whole';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import type { ByteSource } from '@zb/core/formats/source';
import { inspectImage } from '@zb/core/starting/inspect';
import { profilesFromText, profilesToText } from '@zb/core/system/exchange';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { readSurvey } from '@zb/core/machine/read';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { isOver } from '@zb/core/model/job';
import { StateFile } from '@zb/server/files/stateFile';
import { Book } from '@zb/server/writer/book';
import { certificateKinds } from './certificates';
import { isRefusal } from './expected';
import { practiceKinds } from './practice';
import type { Random } from './random';
import { bounded, sleep, type Bench, type Part } from './part';

const SLOW_MS = 4000;

/** Values that stand where others were expected. */
const ODD: unknown[] = [
  null,
  true,
  '',
  ' ',
  'x'.repeat(5000),
  -1,
  0,
  1e308,
  -1e308,
  0.1,
  2 ** 53 + 2,
  [],
  {},
  [[[[[]]]]],
  '__proto__',
  'constructor',
  '\u0000',
  '\ud800',
  '<script>alert(1)</script>',
  '../../x',
  Array(300).fill(7),
];

/** Changes values, keys and lists somewhere in plain JSON. */
function twist(random: Random, value: unknown, share: number): unknown {
  if (random.chance(share)) return random.pick(ODD);
  if (Array.isArray(value)) {
    return value.flatMap((v: unknown): unknown[] =>
      random.chance(share / 4)
        ? []
        : random.chance(share / 4)
          ? [twist(random, v, share), v]
          : [twist(random, v, share)],
    );
  }
  if (typeof value !== 'object' || value === null) return value;
  const out: [string, unknown][] = [];
  for (const [key, v] of Object.entries(value)) {
    if (random.chance(share / 6)) continue;
    out.push([
      random.chance(share / 6) ? random.pick(['__proto__', 'constructor', 'x', key + key]) : key,
      twist(random, v, share),
    ]);
  }
  return Object.fromEntries(out);
}

/** Changes a text as a bad line, a bad editor or a bad neighbour does. */
function garble(random: Random, text: string): string {
  let out = text;
  for (let n = random.int(1, 4); n > 0; n -= 1) {
    const at = random.int(0, out.length);
    const end = Math.min(out.length, at + random.int(0, 200));
    const put = random.pick([
      '',
      '\u0000',
      '\n',
      '\r\n',
      '"',
      '{',
      ']',
      '9'.repeat(400),
      '====',
      '\ufeff',
      '\ud83d',
      out.slice(at, end).repeat(3),
      'e'.repeat(3000),
      '-',
      '%s',
    ]);
    out = random.pick([
      () => out.slice(0, at),
      () => out.slice(0, at) + put + out.slice(end),
      () => out.slice(0, at) + put + out.slice(at),
    ])();
  }
  return out;
}

/** An image with places changed, and maybe an end cut off or added, without copying it. */
class Patched implements ByteSource {
  private readonly patches: { at: number; bytes: Buffer }[];
  readonly size: number;
  constructor(
    private readonly base: Uint8Array,
    random: Random,
  ) {
    const hot = [0, 512, 1024, 32768, 34816, 65536, 2 ** 20, base.length - 512, base.length - 16896];
    this.size = random.chance(0.2) ? random.int(0, base.length + 100_000) : base.length;
    this.patches = Array.from({ length: random.int(1, 12) }, () => ({
      at: Math.max(
        0,
        random.chance(0.7) ? random.pick(hot) + random.int(0, 2047) : random.int(0, base.length - 1),
      ),
      bytes: random.chance(0.4)
        ? Buffer.alloc(random.int(1, 8), random.pick([0, 0xff, 0x80, 1]))
        : random.bytes(4 * random.int(1, 8)),
    }));
  }
  read(offset: number, length: number): Promise<Uint8Array> {
    const end = Math.min(this.size, offset + length);
    const out = new Uint8Array(Math.max(0, end - offset));
    out.set(this.base.subarray(offset, Math.min(end, this.base.length)));
    for (const { at, bytes } of this.patches)
      for (let i = 0; i < bytes.length; i += 1)
        if (at + i >= offset && at + i < end) out[at + i - offset] = bytes[i] ?? 0;
    return Promise.resolve(out);
  }
}

const REPORT = `==== machine ====
x86_64
==== cpu ====
Model name: A processor with 4 cores
Flags: fpu lm sse4_2 avx2
==== meminfo ====
MemTotal: 8000000 kB
==== lsblk ====
{"blockdevices":[{"name":"sda","type":"disk","size":240057409536,"serial":"S1","model":"M","tran":"sata","rota":false,"rm":false,"children":[{"name":"sda1","size":536870912,"fstype":"vfat"}]}]}
==== firmware ====
UEFI
==== edid ====
card0-HDMI-A-1 00ffffffffffff0010ac64a04c4c4c30
`;
const SUMS =
  Array.from({ length: 40 }, (_, i) => `${String(i).repeat(64).slice(0, 64)}  file-${i}.img`).join('\n') +
  '\nSHA256 (a b) = ' +
  'a'.repeat(64) +
  '\nSIZE (a b) = 12\n-----BEGIN PGP SIGNATURE-----\n';

const JOB = {
  id: 'a',
  stickId: 'blue',
  serial: 'S',
  imageName: 'x',
  total: 100,
  state: 'writing',
  written: 40,
  readBack: 0,
  seconds: 1,
  pattern: null,
  firstDifference: null,
  explanation: '',
  startedAt: '',
  tag: '',
};

/** What is begun anew is said on standard error each time; thousands of times that is no news. */
function quietly<T>(work: () => T): T {
  const said = console.error;
  console.error = () => undefined;
  try {
    return work();
  } finally {
    console.error = said;
  }
}

async function kinds(run: Bench): Promise<Record<string, () => unknown>> {
  const { random, dir, wrong } = run;
  const bench = JSON.parse(benchToText(saltmarshHall())) as Record<string, unknown>;
  const images = depotImages.filter((i) => !i.file.includes('arcade')).map((i) => i.build());
  const small = images.map((b) => b.subarray(0, 2 ** 20));
  const reports = [REPORT, execFileSync('sh', ['-s'], { input: SURVEY_SCRIPT, encoding: 'utf8' })];
  const packed = gzipSync(small[0] ?? new Uint8Array(1));
  const readBench = (text: string): void => {
    const once = benchToText(benchFromText(text));
    // What was taken can be saved, opened again, and is the same then.
    if (benchToText(benchFromText(once)) !== once)
      wrong('a bench that was taken is another after a second reading');
  };
  /** One collection at a time, cut down, so that many can be tried. */
  const slim = (): Record<string, unknown> => {
    const list = ['items', 'profiles', 'wishes', 'boxes', 'log'].map((c) => [
      c,
      random.some(bench[c] as unknown[], random.int(0, 3)),
    ]);
    return { ...bench, ...(Object.fromEntries(list) as Record<string, unknown>) };
  };
  return {
    ...practiceKinds(run),
    ...(await certificateKinds(run)),
    'bench files': () => readBench(JSON.stringify(twist(random, slim(), random.pick([0.003, 0.01, 0.05])))),
    'bench files as text': () => readBench(garble(random, JSON.stringify(slim()))),
    profiles: () => {
      const list = random.some(bench.profiles as unknown[], 2);
      const text = JSON.stringify({
        format: 'zealous-box-profiles',
        version: 2,
        profiles: twist(random, list, 0.01),
      });
      profilesToText(profilesFromText(random.chance(0.5) ? text : garble(random, text)));
    },
    reports: () => readSurvey(garble(random, random.pick(reports))),
    lists: () => parseChecksumList(garble(random, SUMS)),
    'records of writes': () => {
      const path = join(dir, 'mutants', 'jobs.json');
      mkdirSync(join(dir, 'mutants'), { recursive: true });
      const record = {
        jobs: [JOB, { ...JOB, id: 'b', state: 'proven' }],
        plugged: [],
        faults: { blue: { weakAt: 7 } },
      };
      const text = JSON.stringify(random.chance(0.5) ? twist(random, record, 0.03) : record);
      writeFileSync(path, random.chance(0.5) ? garble(random, text) : text);
      const book = quietly(() => new Book(new StateFile(path)));
      if (!book.list().every(isOver)) wrong('a write of an earlier run is said to go on');
      book.save();
    },
    images: () => inspectImage(new Patched(random.pick(images), random)),
    'packed images': () => {
      const bytes = Buffer.from(packed);
      for (let i = random.int(1, 6); i > 0; i -= 1)
        bytes[random.chance(0.4) ? random.int(0, 40) : random.int(0, bytes.length - 1)] = random.int(0, 255);
      const cut = random.chance(0.3) ? bytes.subarray(0, random.int(0, bytes.length)) : bytes;
      const read = (offset: number, length: number) =>
        Promise.resolve(new Uint8Array(cut.subarray(offset, offset + length)));
      return readWhole({ size: cut.length, read }, { algorithms: ['sha256'], limit: 2 ** 28 });
    },
  };
}

/** Whatever is read from somebody else, changed in many ways: read, or refused in words, and soon. */
export const mutants: Part = async (bench) => {
  const { random, goOn, count, wrong } = bench;
  const all = await kinds(bench);
  const names = Object.keys(all);
  for (let n = 0; goOn(); n += 1) {
    const name = names[n % names.length] ?? '';
    const since = Date.now();
    const state = JSON.stringify(random);
    try {
      await bounded(name, 60_000, Promise.resolve(all[name]?.()));
    } catch (error) {
      if (!isRefusal(error))
        wrong(`${name} (${state}): ${error instanceof Error ? error.stack : String(error)}`);
    }
    if (Date.now() - since > SLOW_MS) wrong(`${name} (${state}) took ${Date.now() - since} ms`);
    if (Object.keys(Object.prototype).length > 0) wrong(`${name} (${state}) changed every object there is`);
    count('hostile inputs');
    count(name);
    if (n % 64 === 0) await sleep(0);
  }
};
