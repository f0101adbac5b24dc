import { emptyContent } from './content';
import { fromVersion9 } from './installedDrives';
import { fromVersion8 } from './oldNames';
import { each, plain, type Plain } from './plain';
import type { Migration } from './reading';
import { usualSettings } from './settings';

/**
 * A profile as version 1 had it (one release, one kind of graphics, a yes or no for the signature) in the shape of
 * version 2. Anything else is answered as it is, so that validation can say what is wrong with it.
 */
export function profileFromVersion1(old: unknown): unknown {
  const p = plain(old);
  const needs = plain(p?.needs);
  if (!p || !needs || 'releases' in p || !('release' in p)) return old;
  const { release, channel, signedLoader, adminPort, needs: _needs, ...rest } = p;
  const { archs, cpuLevel, graphics, ...hard } = needs;
  return {
    ...rest,
    releases: [{ id: 'r1', version: release, channel, archs, cpuLevel }],
    variants: [
      {
        id: 'standard',
        name: 'standard',
        drivers: graphics === 'any driver' ? ['in-kernel', 'out-of-tree'] : ['in-kernel'],
      },
    ],
    needs: { ...hard, graphics: graphics !== 'not needed' },
    prefers: {},
    secureBoot: signedLoader === true ? 'signed' : 'must be off',
    growsAtFirstStart: p.installer === 'written straight to the final drive',
    stickBytes: 8_000_000_000,
    admin: typeof adminPort === 'number' ? { scheme: 'https', port: adminPort, path: '/' } : null,
    login: 'set at install',
    swap: 'swap file',
    layout: 'its own',
    writeMode: 'whole image',
    drivers: [],
  };
}

/**
 * What an inspection of version 2 said of one start, in the shape of version 3: the evidence was one line of words, and
 * Secure Boot a single yes or no beside it.
 */
function outcomeFromVersion2(old: unknown): unknown {
  const o = plain(old);
  if (!o) return old;
  const { signed, evidence, ...rest } = o;
  const found = typeof evidence === 'string' ? [{ what: evidence, offset: null, bytes: '', source: '' }] : [];
  const secure =
    signed === true
      ? {
          starts: 'unknown',
          because: 'the loader is signed; whether the machine trusts the key was not told',
        }
      : { starts: 'no', because: 'the loader carries no signature' };
  const asked = o.starts === 'yes' && o.firmware !== 'bios' && typeof signed === 'boolean';
  return { ...rest, evidence: found, secureBoot: asked ? { ...secure, evidence: found } : null };
}

function itemFromVersion2(old: unknown): unknown {
  const inspection = plain(plain(old)?.inspection);
  if (!inspection || !Array.isArray(inspection.outcomes)) return old;
  return {
    ...plain(old),
    inspection: { ...inspection, outcomes: inspection.outcomes.map(outcomeFromVersion2) },
  };
}

/** Photographs lay in the machines and in the lines of the log; they are records of their own from version 4 on. */
function photosOfVersion3(old: Plain): unknown[] {
  const ofMachines = list(old.items).flatMap((item) => {
    const machine = plain(item);
    return machine?.kind === 'machine'
      ? list(machine.photos).map((p) => ({ ...plain(p), machineId: machine.id }))
      : [];
  });
  const ofLines = list(old.log).flatMap((entry) => {
    const line = plain(entry);
    return line?.kind === 'photo'
      ? [{ id: photoOfLine(line), at: line.at, caption: '', data: line.photo, machineId: null }]
      : [];
  });
  return [...ofMachines, ...ofLines];
}
const photoOfLine = (line: Plain): string => `photo-${String(line.id)}`.slice(0, 80);

/**
 * What a drive holds was a line of words, empty where nothing was on it, and whether it matters a yes or no. A no stood
 * where nobody had decided as well: only what was empty may be lost for certain.
 */
function storeOfVersion3({ matters, ...item }: Plain): Plain {
  if (typeof matters !== 'boolean') return item;
  const empty = item.holds === '';
  return {
    ...item,
    fate: matters ? 'keep' : empty ? 'may be lost' : 'not decided',
    content: empty ? emptyContent('earlier version', '') : null,
  };
}

const fromVersion3 = (old: Plain): Plain => ({
  ...old,
  photos: photosOfVersion3(old),
  items: each(old.items, ({ photos: _photos, ...item }) => storeOfVersion3(item)),
  wishes: each(old.wishes, ({ keep, ...wish }) => ({ ...wish, pinned: keep })),
  log: each(old.log, (line) => {
    if (line.kind !== 'photo') return line;
    const { photo: _photo, ...rest } = line;
    return { ...rest, photoId: photoOfLine(line) };
  }),
});

/** What a verdict said in words, as the code for what earlier rules said. */
const startOfVersion4 = ({ because, ...rest }: Plain): Plain =>
  typeof because === 'string' ? { ...rest, reason: { code: 'earlier rules', words: because } } : rest;

/** Readings answered in sentences; from version 5 on in codes. What was said then is kept, and said to be old. */
function readingOfVersion4(reading: Plain): Plain {
  const { inner, outcomes, findings, loaders } = reading;
  return {
    ...reading,
    outcomes: each(outcomes, (o) => ({
      ...startOfVersion4(o),
      secureBoot: plain(o.secureBoot) ? startOfVersion4(o.secureBoot as Plain) : o.secureBoot,
    })),
    findings: each(findings, ({ what, ...f }) => ({ ...f, fault: { code: 'earlier rules', words: what } })),
    loaders: each(loaders, ({ fault, place, ...l }) => ({
      ...l,
      fault: fault === '' ? null : { code: 'earlier rules', words: fault },
      place: { of: 'earlier rules', words: place },
    })),
    ...(plain(inner) ? { inner: readingOfVersion4(inner as Plain) } : {}),
  };
}

const fromVersion4 = (old: Plain): Plain => ({
  ...old,
  items: each(old.items, (item) =>
    plain(item.inspection) ? { ...item, inspection: readingOfVersion4(item.inspection as Plain) } : item,
  ),
});

const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

/** Steps by the version they start from. Fields that only came on top are filled by the schema's own defaults. */
export const migrations: ReadonlyMap<number, Migration> = new Map([
  [
    1,
    (old: Plain): Plain => ({
      ...old,
      profiles: Array.isArray(old.profiles) ? list(old.profiles).map(profileFromVersion1) : old.profiles,
      wishes: [],
      settings: usualSettings(),
    }),
  ],
  [
    2,
    (old: Plain): Plain => ({
      ...old,
      items: Array.isArray(old.items) ? old.items.map(itemFromVersion2) : old.items,
    }),
  ],
  [3, fromVersion3],
  [4, fromVersion4],
  [5, (old: Plain): Plain => ({ ...old, networks: [], hosts: [] })],
  [6, (old: Plain): Plain => ({ ...old, runs: [] })],
  [7, (old: Plain): Plain => ({ ...old, attempts: [] })],
  [8, fromVersion8],
  [9, fromVersion9],
]);
