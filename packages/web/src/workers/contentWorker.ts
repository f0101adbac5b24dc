import { expose } from 'comlink';
import { createDigest } from '@zb/core/checksum/digest';
import { lookThrough, toDigest } from '@zb/core/content/findings';
import { toRead } from '@zb/core/content/discs';
import { planCopy, type CopyPlan } from '@zb/core/content/plan';
import {
  fileLines,
  lookedView,
  planView,
  type CarryAsk,
  type FileLine,
  type LookedView,
  type PlanView,
} from '@zb/core/content/view';
import { tagsFrom, toTag, type Tags } from '@zb/core/content/tags';
import { writeManifest, writePlan, type PlanForm } from '@zb/core/content/written';
import { endsWhole, hasEnd } from '@zb/core/content/whole';
import type { ByteSource } from '@zb/core/formats/source';
import { carryingFolder } from '@zb/core/demo/carrying';
import type {
  ContentCode,
  ContentEntry,
  ContentFinding,
  ContentRules,
  ContentTarget,
} from '@zb/core/model/contentRules';
import { fileOf, moveFile, putFile, walkFolder, type Folder, type Reach } from './folderHandle';

/** What is told while work goes on: what is done, of how much (null where nobody knows). */
export type TellWork = (
  what: 'seen' | 'digested' | 'judged' | 'moved',
  done: number,
  whole: number | null,
) => void;

/** How a folder is looked at. */
export interface LookAsk {
  rules: ContentRules;
  target: ContentTarget;
  hash: boolean;
  /** Files are looked into: whether each is whole, and what music says of itself. */
  into: boolean;
}

let entries: ContentEntry[] = [];
let reach: Reach = new Map();
let root: FileSystemDirectoryHandle | null = null;
let texts = new Map<string, string>();
let findings: ContentFinding[] = [];
let target: ContentTarget = 'smb';
let plan: CopyPlan | null = null;
let tags = new Map<string, Tags | null>();
let cut = new Set<string>();
let seen = new Set<string>();

const sourceOf = (file: Blob): ByteSource => ({
  size: file.size,
  read: async (offset, length) => new Uint8Array(await file.slice(offset, offset + length).arrayBuffer()),
});

const EVERY_MS = 120;

/** Tells no more often than a screen can show. */
function seldom(tell: TellWork): TellWork {
  let last = 0;
  return (what, done, whole) => {
    const now = performance.now();
    if (now - last < EVERY_MS && done !== whole) return;
    last = now;
    tell(what, done, whole);
  };
}

async function digestOf(path: string): Promise<string | null> {
  const at = reach.get(path);
  if (!at) return null;
  try {
    const digest = await createDigest(['sha256']);
    const reader = (await fileOf(at)).stream().getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return digest.finish().sha256 ?? null;
      digest.update(value);
    }
  } catch {
    return null;
  }
}

/** What files tell within; what was looked into once is not looked into again. */
async function lookInto(tell: TellWork): Promise<void> {
  const ended = entries.filter((e) => e.odd === null && hasEnd(e.path) && !seen.has(e.path));
  for (const [i, e] of ended.entries()) {
    tell('digested', i, ended.length);
    seen.add(e.path);
    const at = reach.get(e.path);
    if (!at) continue;
    try {
      if ((await endsWhole(e.path, sourceOf(await fileOf(at)))) === false) cut.add(e.path);
    } catch {
      // What cannot be read is told where it is walked.
    }
  }
  // It is needed here alone, and large.
  const { parseBlob } = await import('music-metadata');
  const wanted = toTag(entries).filter((e) => !tags.has(e.path));
  for (const [i, e] of wanted.entries()) {
    tell('digested', i, wanted.length);
    const at = reach.get(e.path);
    try {
      const { common } = await parseBlob(await fileOf(at as File), { duration: false, skipCovers: true });
      tags.set(e.path, tagsFrom(common));
    } catch {
      tags.set(e.path, null);
    }
  }
}

async function judge(ask: LookAsk, tell: TellWork): Promise<LookedView> {
  target = ask.target;
  plan = null;
  if (ask.hash) {
    const wanted = toDigest(entries).filter((e) => e.sha256 === null);
    for (const [i, e] of wanted.entries()) {
      tell('digested', i, wanted.length);
      e.sha256 = await digestOf(e.path);
    }
  }
  if (ask.into) await lookInto(tell);
  findings = lookThrough(
    { entries, rules: ask.rules, target, ...(ask.into ? { tags, cut } : {}) },
    texts,
    (share) => tell('judged', Math.round(share * 100), 100),
  );
  return lookedView(entries, findings);
}

const api = {
  /** Looks through a folder: names, sizes, dates; sums of files of one size where they are asked for. */
  async look(folder: Folder, ask: LookAsk, onWork: TellWork): Promise<LookedView> {
    const tell = seldom(onWork);
    const found = await walkFolder(folder, (files) => tell('seen', files, null));
    ({ entries, reach } = found);
    root = 'handle' in folder ? folder.handle : null;
    texts = new Map();
    tags = new Map();
    cut = new Set();
    seen = new Set();
    for (const e of toRead(entries)) {
      const at = reach.get(e.path);
      if (at) texts.set(e.path, await (await fileOf(at)).text());
    }
    return judge(ask, tell);
  },
  /** The same files by other rules, for another target, or with their sums. */
  again: (ask: LookAsk, onWork: TellWork): Promise<LookedView> => judge(ask, seldom(onWork)),
  files: (index: number, from: number, count: number): FileLine[] => fileLines(findings[index], from, count),
  plan(taken: readonly ContentCode[], ask: CarryAsk): PlanView {
    plan = planCopy(entries, findings, new Set(taken), target);
    return planView(plan, ask);
  },
  text: (form: PlanForm): string => (plan ? writePlan(form, plan) : ''),
  /** A list of SHA-256 sums of all that goes; every file is read. */
  async manifest(onWork: TellWork): Promise<string> {
    const tell = seldom(onWork);
    const gone = (plan?.files ?? []).filter((f) => f.to !== null);
    const sums: { path: string; sha256: string }[] = [];
    for (const [i, f] of gone.entries()) {
      tell('digested', i, gone.length);
      const sha256 = f.sha256 ?? (await digestOf(f.from));
      if (sha256 !== null && f.to !== null) sums.push({ path: f.to, sha256 });
    }
    return writeManifest(sums);
  },
  moves: (): { from: string; to: string }[] => plan?.moves ?? [],
  /** Renames in the folder itself, one after the other; ends at the first that fails. Answers what was done. */
  async apply(
    moves: readonly { from: string; to: string }[],
    onWork: TellWork,
  ): Promise<{ done: { from: string; to: string }[]; fault: string | null }> {
    const tell = seldom(onWork);
    const done: { from: string; to: string }[] = [];
    if (!root) return { done, fault: 'the folder was opened to read alone' };
    for (const [i, m] of moves.entries()) {
      tell('moved', i, moves.length);
      try {
        await moveFile(root, m.from, m.to);
        done.push(m);
      } catch (error) {
        return { done, fault: `${m.from}: ${error instanceof Error ? error.message : String(error)}` };
      }
    }
    return { done, fault: null };
  },
  /** The stand-in folder, in the browser’s own place for this site; made where it is not there, or anew. */
  async standIn(anew: boolean, onWork: TellWork): Promise<FileSystemDirectoryHandle> {
    const tell = seldom(onWork);
    const top = await navigator.storage.getDirectory();
    const name = 'stand-in folder';
    if (anew) await top.removeEntry(name, { recursive: true }).catch(() => undefined);
    const there = await top.getDirectoryHandle(name).catch(() => null);
    if (there) return there;
    const made = await top.getDirectoryHandle(name, { create: true });
    const files = carryingFolder();
    for (const [i, f] of files.entries()) {
      tell('moved', i, files.length);
      // A browser has names of its own that it refuses; the folder is the same without them.
      await putFile(made, f.path, f.text).catch(() => undefined);
    }
    return made;
  },
};

export type ContentWorker = typeof api;
expose(api);
