import type { z } from 'zod';
import { usualFirst } from '../model/firstStart';
import { usualManner } from '../model/installer';
import { profileSchema, type Profile, type Release, type Variant } from '../model/profile';
import { formatIec, formatSi, parseBytes } from '../units/bytes';

/** A release as typed: years as text, empty where no limit is known. */
export type ReleaseDraft = Omit<
  Release,
  'oldestYear' | 'newestYear' | 'released' | 'supportEnd' | 'cpuLevel'
> & {
  oldestYear: string;
  newestYear: string;
  released: string;
  supportEnd: string;
  cpuLevel: string;
};

/** A profile as it stands in the editor: sizes with their units and numbers as text, lists as lines. */
export interface ProfileDraft {
  id: string;
  name: string;
  purpose: Profile['purpose'];
  about: string;
  releases: ReleaseDraft[];
  variants: Variant[];
  needs: Omit<Profile['needs'], 'cores' | 'memoryBytes' | 'bootBytes' | 'dataDrives' | 'wiredPorts'> & {
    cores: string;
    memoryBytes: string;
    bootBytes: string;
    dataDrives: string;
    wiredPorts: string;
  };
  prefers: Pick<Profile['prefers'], 'remoteLine' | 'aes'> & {
    cores: string;
    memoryBytes: string;
    wiredMbps: string;
  };
  secureBoot: Profile['secureBoot'];
  installer: Profile['installer'];
  /** An empty text where nobody has seen where its loader goes. */
  manner: Omit<Profile['manner'], 'confirms' | 'loader'> & { confirms: string; loader: string };
  growsAtFirstStart: boolean;
  /** Ranges apart, places one a line, an empty text where nothing is switched. */
  first: Omit<Profile['first'], 'switchTo' | 'switchPlaces' | 'blackMinutes' | 'minutes' | 'rounds'> & {
    switchTo: string;
    switchPlaces: string;
    blackFrom: string;
    blackTo: string;
    minutesFrom: string;
    minutesTo: string;
    roundsFrom: string;
    roundsTo: string;
  };
  installFrom: string;
  installTo: string;
  stickBytes: string;
  networkAtInstall: boolean;
  admin: { scheme: '' | 'http' | 'https'; port: string; path: string };
  login: Profile['login'];
  swap: Profile['swap'];
  layout: Profile['layout'];
  writeMode: Profile['writeMode'];
  drivers: string;
  calls: string[];
  content: Profile['content'];
  origins: Profile['origins'];
}

/** A size as people would type it: binary where that is whole, decimal where that is, else to the byte. */
export function sizeText(bytes: number): string {
  const short = (t: string): string => t.replace(/(\.\d*?)0+ /, '$1 ').replace('. ', ' ');
  for (const text of [formatIec(bytes), formatSi(bytes)].map(short))
    if (parseBytes(text) === bytes) return text;
  return `${bytes} bytes`;
}

const text = (n: number | null): string => (n === null ? '' : String(n));

function firstDraft({
  switchTo,
  switchPlaces,
  blackMinutes,
  minutes,
  rounds,
  ...rest
}: Profile['first']): ProfileDraft['first'] {
  return {
    ...rest,
    switchTo: switchTo ?? '',
    switchPlaces: switchPlaces.join('\n'),
    blackFrom: text(blackMinutes[0]),
    blackTo: text(blackMinutes[1]),
    minutesFrom: text(minutes[0]),
    minutesTo: text(minutes[1]),
    roundsFrom: text(rounds[0]),
    roundsTo: text(rounds[1]),
  };
}

/** A profile as the form edits it, in text. */
export const draftOf = (p: Profile): ProfileDraft => ({
  ...p,
  releases: p.releases.map((r) => ({
    ...r,
    oldestYear: text(r.oldestYear),
    newestYear: text(r.newestYear),
    released: r.released ?? '',
    supportEnd: r.supportEnd ?? '',
    cpuLevel: r.cpuLevel ?? '',
  })),
  needs: {
    ...p.needs,
    cores: text(p.needs.cores),
    memoryBytes: sizeText(p.needs.memoryBytes),
    bootBytes: sizeText(p.needs.bootBytes),
    dataDrives: text(p.needs.dataDrives),
    wiredPorts: text(p.needs.wiredPorts),
  },
  prefers: {
    ...p.prefers,
    cores: text(p.prefers.cores),
    memoryBytes: p.prefers.memoryBytes === null ? '' : sizeText(p.prefers.memoryBytes),
    wiredMbps: text(p.prefers.wiredMbps),
  },
  manner: { ...p.manner, confirms: text(p.manner.confirms), loader: p.manner.loader ?? '' },
  first: firstDraft(p.first),
  installFrom: text(p.installMinutes[0]),
  installTo: text(p.installMinutes[1]),
  stickBytes: sizeText(p.stickBytes),
  admin: p.admin ? { ...p.admin, port: text(p.admin.port) } : { scheme: '', port: '', path: '/' },
  drivers: p.drivers.join('\n'),
});

/** A wrong field: its path in the draft, and why, in words. */
export interface DraftProblem {
  path: string;
  why: string;
}

const SAYS: Record<string, string> = {
  too_small: 'is too small or empty',
  too_big: 'is too large',
  invalid_type: 'is missing or no number',
  invalid_format: 'is not a day such as 2029-04-30',
  invalid_value: 'is not one of the choices',
};

/** Where a field of the profile stands in the draft. */
const inDraft = (path: string): string =>
  path
    .replace('installMinutes.0', 'installFrom')
    .replace('installMinutes.1', 'installTo')
    .replace(/^installMinutes$/, 'installTo')
    .replace(/^first\.(blackMinutes|minutes|rounds)\.([01])$/, (_, range: string, end: string) => {
      const name = range === 'blackMinutes' ? 'black' : range;
      return `first.${name}${end === '0' ? 'From' : 'To'}`;
    })
    .replace(/^first\.switchPlaces.*/, 'first.switchPlaces')
    .replace(/^drivers.*/, 'drivers');

/** Where the origin of a field of the draft stands in the profile: its path, but for what the form takes apart. */
export const originPath = (path: string): string =>
  path === 'installFrom' ? 'installMinutes' : path === 'admin.scheme' ? 'admin' : path;

const problem = (issue: z.core.$ZodIssue): DraftProblem => ({
  path: inDraft(issue.path.map(String).join('.')),
  why: SAYS[issue.code] ?? issue.message,
});

/** A number, undefined where the field is empty, NaN where it is none. */
const number = (t: string): number | undefined => (t.trim() === '' ? undefined : Number(t.replace(',', '.')));
const orNull = (t: string): number | null => number(t) ?? null;

/** What stands in lines, empty ones left out. */
const linesOf = (t: string): string[] =>
  t
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean);

function firstOf({
  switchTo,
  switchPlaces,
  blackFrom,
  blackTo,
  minutesFrom,
  minutesTo,
  roundsFrom,
  roundsTo,
  ...rest
}: ProfileDraft['first']) {
  return {
    ...rest,
    switchTo: switchTo || null,
    switchPlaces: linesOf(switchPlaces),
    blackMinutes: [number(blackFrom), number(blackTo)],
    minutes: [number(minutesFrom), number(minutesTo)],
    rounds: [number(roundsFrom), number(roundsTo)],
  };
}

/** Reads the draft back into a profile, or says of every wrong field what is wrong with it. */
export function profileOf(draft: ProfileDraft): { profile: Profile } | { problems: DraftProblem[] } {
  const problems: DraftProblem[] = [];
  const size = (path: string, t: string): number => {
    const bytes = parseBytes(t);
    if (bytes === undefined)
      problems.push({ path, why: 'needs a number and a unit, such as 8 GiB or 16 GB' });
    return bytes ?? 1;
  };
  const { installFrom, installTo, admin, drivers, ...rest } = draft;
  const raw = {
    ...rest,
    name: draft.name.trim(),
    releases: draft.releases.map((r) => ({
      ...r,
      version: r.version.trim(),
      oldestYear: orNull(r.oldestYear),
      newestYear: orNull(r.newestYear),
      released: r.released || null,
      supportEnd: r.supportEnd || null,
      cpuLevel: r.cpuLevel || null,
    })),
    needs: {
      ...draft.needs,
      cores: number(draft.needs.cores),
      memoryBytes: size('needs.memoryBytes', draft.needs.memoryBytes),
      bootBytes: size('needs.bootBytes', draft.needs.bootBytes),
      dataDrives: number(draft.needs.dataDrives),
      wiredPorts: number(draft.needs.wiredPorts),
    },
    prefers: {
      ...draft.prefers,
      cores: orNull(draft.prefers.cores),
      memoryBytes:
        draft.prefers.memoryBytes.trim() === ''
          ? null
          : size('prefers.memoryBytes', draft.prefers.memoryBytes),
      wiredMbps: orNull(draft.prefers.wiredMbps),
    },
    manner: { ...draft.manner, confirms: number(draft.manner.confirms), loader: draft.manner.loader || null },
    installMinutes: [number(installFrom), number(installTo)],
    stickBytes: size('stickBytes', draft.stickBytes),
    admin:
      admin.scheme === '' ? null : { ...admin, port: number(admin.port), path: admin.path.trim() || '/' },
    first: firstOf(draft.first),
    drivers: linesOf(drivers),
  };
  draft.releases.forEach((r, i) => {
    const [from, to] = [orNull(r.oldestYear), orNull(r.newestYear)];
    if (from !== null && to !== null && from > to)
      problems.push({ path: `releases.${i}.newestYear`, why: 'lies before the oldest year' });
  });
  const ranges: [string, string, string][] = [
    ['installTo', installFrom, installTo],
    ['first.blackTo', draft.first.blackFrom, draft.first.blackTo],
    ['first.minutesTo', draft.first.minutesFrom, draft.first.minutesTo],
    ['first.roundsTo', draft.first.roundsFrom, draft.first.roundsTo],
  ];
  for (const [path, from, to] of ranges) {
    const [low, high] = [number(from), number(to)];
    if (low !== undefined && high !== undefined && low > high)
      problems.push({ path, why: 'is less than the shortest time' });
  }
  const parsed = profileSchema.safeParse(raw);
  if (!parsed.success) problems.push(...parsed.error.issues.map(problem));
  return problems.length === 0 && parsed.success ? { profile: parsed.data } : { problems };
}

/** A new system with nothing said yet. */
export const blankProfile = (id: string): Profile => ({
  id,
  name: 'New system',
  purpose: 'games',
  about: '',
  content: null,
  releases: [blankRelease('r1')],
  variants: [{ id: 'standard', name: 'standard', drivers: ['in-kernel'] }],
  needs: {
    cores: 1,
    memoryBytes: 2 * 1024 ** 3,
    bootBytes: 8e9,
    dataDrives: 0,
    graphics: false,
    firmware: ['bios', 'uefi'],
    wiredPorts: 0,
    virtualisation: false,
  },
  prefers: { cores: null, memoryBytes: null, wiredMbps: null, remoteLine: false, aes: false },
  secureBoot: 'must be off',
  installer: 'asks for the drive',
  manner: usualManner(),
  growsAtFirstStart: false,
  first: usualFirst(),
  installMinutes: [6, 14],
  stickBytes: 8e9,
  networkAtInstall: false,
  admin: null,
  login: 'set at install',
  swap: 'swap file',
  layout: 'one partition',
  writeMode: 'whole image',
  drivers: [],
  calls: [],
  origins: {},
});

/** A release with nothing said but its id. */
export const blankRelease = (id: string): Release => ({
  id,
  version: '1',
  channel: 'long support',
  released: null,
  supportEnd: null,
  archs: ['x86_64'],
  cpuLevel: 'v1',
  oldestYear: null,
  newestYear: null,
});
