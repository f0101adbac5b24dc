import { shownOnTerminal } from '@zb/core/units/terminal';
import { statSync } from 'node:fs';
import { byStick, overWire, roomAfter } from '@zb/core/content/carry';
import { USUAL_WRITES } from '@zb/core/content/forBox';
import { lookThrough, toDigest, usuallyTaken } from '@zb/core/content/findings';
import { planCopy, type CopyPlan } from '@zb/core/content/plan';
import { endsWhole, hasEnd } from '@zb/core/content/whole';
import { roundingOf } from '@zb/core/content/view';
import { tagsFrom, toTag, type Tags } from '@zb/core/content/tags';
import { usualRules } from '@zb/core/content/usual';
import { planForms, readManifest, writeManifest, writePlan } from '@zb/core/content/written';
import {
  contentFaultSchema,
  contentRulesSchema,
  contentTargets,
  type ContentCode,
  type ContentEntry,
  type ContentFinding,
  type ContentRules,
  type ContentTarget,
} from '@zb/core/model/contentRules';
import { purposes } from '@zb/core/model/profile';
import { unknownStick } from '@zb/core/write/time';
import { contentEffect, contentTitle } from '@zb/core/words/carry';
import { placeOf, sha256Of, textsOf, walk, type Walked } from './folder';
import { InputError, OpenFile, readText } from './inputFile';
import { profilesFromText } from '@zb/core/system/exchange';

/** How a folder is asked about on the command line. */
export interface ContentAsked {
  profile?: string;
  purpose: string;
  target: string;
  hash?: boolean;
  tags?: boolean;
  whole?: boolean;
}

const say = (line: string): void => void process.stderr.write(`zb: ${shownOnTerminal(line)}\n`);

async function rulesOf(asked: ContentAsked): Promise<ContentRules> {
  const purpose = purposes.find((p) => p === asked.purpose);
  if (!purpose) throw new InputError(`--purpose is one of ${purposes.join(', ')}`);
  if (asked.profile === undefined) return usualRules(purpose);
  const text = await readText(asked.profile);
  const own = contentRulesSchema.safeParse(jsonOf(text));
  if (own.success) return own.data;
  const [profile] = profilesFromText(text);
  if (!profile) throw new InputError(`${asked.profile} holds neither rules nor a system`);
  return profile.content ?? usualRules(profile.purpose);
}
function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

const targetOf = (text: string): ContentTarget => {
  const target = contentTargets.find((t) => t === text);
  if (!target) throw new InputError(`--target is one of ${contentTargets.join(', ')}`);
  return target;
};

interface Looked {
  walked: Walked;
  entries: ContentEntry[];
  findings: ContentFinding[];
  target: ContentTarget;
}

/** What music files say of themselves; null of what cannot be read. */
async function tagsOf(dir: string, walked: Walked): Promise<Map<string, Tags | null>> {
  // It is needed here alone, and large.
  const { parseFile } = await import('music-metadata');
  const out = new Map<string, Tags | null>();
  for (const e of toTag(walked.entries)) {
    const at = placeOf(dir, e.path, walked.raw);
    out.set(
      e.path,
      typeof at === 'string'
        ? await parseFile(at, TAGS).then(
            (t) => tagsFrom(t.common),
            () => null,
          )
        : null,
    );
  }
  return out;
}
/** Files that end before files of their kind do. */
async function cutOf(dir: string, walked: Walked): Promise<Set<string>> {
  const out = new Set<string>();
  for (const e of walked.entries) {
    const at = placeOf(dir, e.path, walked.raw);
    if (e.odd !== null || !hasEnd(e.path) || typeof at !== 'string') continue;
    const file = await OpenFile.open(at).catch(() => null);
    if (!file) continue;
    try {
      if ((await endsWhole(e.path, file)) === false) out.add(e.path);
    } finally {
      await file.close();
    }
  }
  return out;
}
const TAGS = { duration: false, skipCovers: true } as const;

async function look(dir: string, asked: ContentAsked): Promise<Looked> {
  const target = targetOf(asked.target);
  const rules = await rulesOf(asked);
  let told = performance.now();
  const walked = walk(dir, (files) => {
    if (performance.now() - told > 2000) {
      told = performance.now();
      say(`${dir}: ${files} files seen`);
    }
  });
  if (asked.hash) {
    const wanted = toDigest(walked.entries);
    let done = 0;
    for (const e of wanted) {
      e.sha256 = await sha256Of(placeOf(dir, e.path, walked.raw)).catch(() => null);
      done += 1;
      if (performance.now() - told > 2000) {
        told = performance.now();
        say(`${dir}: ${done} of ${wanted.length} files digested`);
      }
    }
  }
  const tags = asked.tags ? await tagsOf(dir, walked) : undefined;
  const cut = asked.whole ? await cutOf(dir, walked) : undefined;
  const ask = {
    entries: walked.entries,
    rules,
    target,
    ...(tags ? { tags } : {}),
    ...(cut ? { cut } : {}),
  };
  return { walked, entries: walked.entries, findings: lookThrough(ask, textsOf(dir, walked)), target };
}

const found = (f: ContentFinding): object => ({
  ...f,
  count: f.fault.files.length,
  title: contentTitle(f.fault),
  says: contentEffect(f.fault, f.bytes),
});

/** What `zb content DIR` prints: files, bytes, and what was found. Throws InputError. */
export async function contentOutput(dir: string, asked: ContentAsked): Promise<object> {
  const { entries, findings, target } = await look(dir, asked);
  return {
    files: entries.filter((e) => e.odd === null).length,
    bytes: entries.reduce((n, e) => n + e.bytes, 0),
    target,
    findings: findings.map(found),
  };
}

/** What `zb content plan` is told beside that. */
export interface PlanAskedOf extends ContentAsked {
  take?: string;
  room?: string;
  cluster: string;
  wire: string;
  as: string;
}

/** Forms of a plan. */
export const contentForms = ['json', ...planForms, 'manifest'] as const;

const numberOf = (name: string, text: string): number => {
  const n = Number(text);
  if (!Number.isFinite(n) || n <= 0) throw new InputError(`--${name} is a number above 0`);
  return n;
};

/** What `zb content plan DIR` prints: what goes where, trips, room and time; or one form as text. Throws InputError. */
export async function contentPlanOutput(dir: string, asked: PlanAskedOf): Promise<object | string> {
  if (!contentForms.some((f) => f === asked.as))
    throw new InputError(`--as is one of ${contentForms.join(', ')}`);
  const cluster = numberOf('cluster', asked.cluster);
  const wire = numberOf('wire', asked.wire);
  const room = asked.room === undefined ? null : numberOf('room', asked.room);
  const looked = await look(dir, asked);
  const codes = new Set<ContentCode>(asked.take === undefined ? usuallyTaken : codesIn(asked.take));
  const plan = planCopy(looked.entries, looked.findings, codes, looked.target);
  const form = planForms.find((f) => f === asked.as);
  if (form) return writePlan(form, plan);
  if (asked.as === 'manifest') return manifestOf(dir, looked, plan);
  const rounding = roundingOf(looked.target, cluster);
  return {
    taken: [...codes],
    files: plan.files.filter((f) => f.to !== null).length,
    left: plan.left,
    unnamed: plan.unnamed,
    unpack: plan.unpack,
    moves: plan.moves,
    room: roomAfter(plan.files, room ?? 0, rounding),
    stick:
      room === null ? null : byStick(plan.files, { target: unknownStick(null), free: room, rounding }, []),
    wire: overWire(plan.files, wire, USUAL_WRITES),
  };
}

/** Codes of findings as they are typed; “none” for no remedy at all. Throws InputError. */
function codesIn(text: string): ContentCode[] {
  const known = contentFaultSchema.options.map((o) => o.shape.code.value);
  return text
    .split(',')
    .map((t) => t.trim())
    .filter((t) => t !== '' && t !== 'none')
    .map((t) => {
      const code = known.find((k) => k === t);
      if (!code) throw new InputError(`--take knows no “${t}”; it is none, or some of ${known.join(', ')}`);
      return code;
    });
}

async function manifestOf(dir: string, { walked }: Looked, plan: CopyPlan): Promise<string> {
  const sums: { path: string; sha256: string }[] = [];
  for (const f of plan.files)
    if (f.to !== null)
      sums.push({ path: f.to, sha256: f.sha256 ?? (await sha256Of(placeOf(dir, f.from, walked.raw))) });
  return writeManifest(sums);
}

/** What `zb content verify` prints: each file of a list of SHA-256 sums against a folder. Throws InputError. */
export async function contentVerifyOutput(
  manifest: string,
  dir: string,
): Promise<{
  same: number;
  differs: string[];
  missing: string[];
  more: string[];
  unread: number;
  whole: boolean;
}> {
  const { lines, unread } = readManifest(await readText(manifest));
  if (lines.length === 0) throw new InputError(`${manifest} names no file with a SHA-256 sum`);
  const { entries, raw } = walk(dir, () => undefined);
  const plain = (path: string): string => path.replace(/^\.\//, '');
  const listed = new Set(lines.map((l) => plain(l.path)));
  const out = { same: 0, differs: [] as string[], missing: [] as string[] };
  for (const l of lines) {
    const path = plain(l.path);
    const at = placeOf(dir, path, raw);
    if (!statSync(at, { throwIfNoEntry: false })?.isFile()) out.missing.push(path);
    else if ((await sha256Of(at)) === l.sha256) out.same += 1;
    else out.differs.push(path);
  }
  const more = entries.filter((e) => e.odd === null && !listed.has(e.path)).map((e) => e.path);
  return {
    ...out,
    more,
    unread,
    whole: out.differs.length === 0 && out.missing.length === 0 && unread === 0,
  };
}
