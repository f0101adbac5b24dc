import { verdictWords } from '../words/fit/finding';
import { systemTitle } from '../system/title';
import type { Judgement } from '../system/judge';
import type { Hazard } from '../box/hazard';
import { hazards } from '../box/summary';
import type { SchoolWay } from '../box/trade/line';
import { WRITE_WAY } from '../write/way';
import { wayWords } from '../words/trade';
import type { Effect } from '../plan/effect';
import { applyEffects, takenBack } from '../runsheet/apply';
import { changedLayout, laidBox } from '../layout/forBox';
import { isWrittenStraight, systemDriveOf } from '../layout/systemDrive';
import type { Inspection } from '../model/inspection';
import {
  runsOfBox,
  type Bench,
  type Box,
  type ImageItem,
  type LogEntry,
  type Machine,
  type Profile,
  type Store,
} from '../model/bench';
import { stopTitle, type Stop } from '../model/stops';
import { edited, type Act, type Change } from '../model/changes';
import type { Purpose } from '../model/profile';
import type { DigestAlgorithm } from '../formats/checksumList';
import type { Comparison } from '../model/shelf';
import { formatDuration, formatRate } from '../units/duration';
import { emptyStopRecords } from '../model/stopRecords';
import { logBase, logged } from './base';
import type { Stamp } from './stamp';

const edit = (box: Box, to: Partial<Box>): Change => edited('boxes', box, { ...box, ...to });
/** Opens a box for a purpose, with the machine it is given, if any; a new machine is put on the shelf with it. */
export function createBox(
  name: string,
  purpose: Purpose,
  machine: Machine | undefined,
  stamp: Stamp,
  newMachine = false,
): Act & { box: Box } {
  const box: Box = {
    id: stamp.id(),
    name,
    purpose,
    ...emptyStopRecords(),
    machineId: machine?.id ?? null,
    run: null,
    decisions: [],
    signoffs: [],
    createdAt: stamp.now,
  };
  const changes: Change[] = machine && newMachine ? [{ in: 'items', id: machine.id, to: machine }] : [];
  return { box, label: `Box “${name}” opened`, changes: [...changes, { in: 'boxes', id: box.id, to: box }] };
}

/** Changes fields of a box in one act; `label` names it for undo. */
export const updateBox = (box: Box, changed: Partial<Box>, label: string): Act => ({
  label,
  changes: [edit(box, changed)],
});

/** Takes a box away with its lines of the log, their photographs, and its runs. */
export function removeBox(bench: Bench, box: Box): Act {
  const mine = bench.log.filter((e) => e.boxId === box.id);
  const lines = mine.map((e): Change => ({ in: 'log', id: e.id, to: null }));
  for (const e of mine)
    if (e.kind === 'photo' && e.photoId !== null) lines.push({ in: 'photos', id: e.photoId, to: null });
  const runs = runsOfBox(bench, box.id).map((r): Change => ({ in: 'runs', id: r.id, to: null }));
  return {
    label: `Box “${box.name}” removed`,
    changes: [{ in: 'boxes', id: box.id, to: null }, ...lines, ...runs],
  };
}

/** The decisions of a box with one more, in place of an earlier one about the same. */
const decided = (box: Box, decision: Box['decisions'][number]): Box['decisions'] => [
  ...box.decisions.filter((d) => d.what !== decision.what),
  decision,
];

/** A box with the one drive chosen that may be erased for its system; as it is where there is none, or a choice. */
function onlyDrive(bench: Bench, box: Box, stamp: Stamp): Box {
  if (isWrittenStraight(bench, box)) return box;
  const { drive, suggested } = laidBox(bench, box);
  if (!drive || !suggested) return box;
  return {
    ...box,
    layout: changedLayout(box.layout, { driveId: drive.id }),
    decisions: decided(box, {
      id: stamp.id(),
      stop: 'install',
      what: 'Drive of the system',
      value: drive.name,
      because: 'it is the only one that may be erased',
      at: stamp.now,
    }),
  };
}

/**
 * Records the choice of a profile with the verdict it rests on, as a decision and a line of the log. Where one drive alone may be
 * erased for it, that drive is chosen in the same act, and said so.
 */
export function chooseProfile(
  bench: Bench,
  box: Box,
  profile: Profile,
  judged: Judgement,
  stamp: Stamp,
): Act {
  const because = verdictWords(judged);
  const decisions = decided(box, {
    id: stamp.id(),
    stop: 'choose',
    what: 'System',
    value: systemTitle(judged),
    because,
    at: stamp.now,
  });
  const chosen: Box = {
    ...box,
    profileId: profile.id,
    releaseId: judged.release.id,
    variantId: judged.variant.id,
    decisions,
  };
  const withDrive = onlyDrive(bench, chosen, stamp);
  return {
    label: `${profile.name} chosen`,
    changes: [
      edited('boxes', box, withDrive),
      logged({
        kind: 'decision',
        ...logBase(box, 'choose', stamp),
        text: `${systemTitle(judged)} chosen; ${because}`,
      }),
    ],
  };
}

/** What digesting a file came to: its digests in hex, the comparison with a list, and the seconds it took. */
export interface HashRun {
  digests: Partial<Record<DigestAlgorithm, string>>;
  comparison: Comparison | null;
  seconds: number;
}

const VERDICT = {
  same: 'same file as published',
  differs: 'DIFFERS from the published sum',
  'not-listed': 'not named in the list',
  'other-size': 'ANOTHER SIZE than the list names',
};

/** Keeps an opened image on the shelf, with its digest, comparison and inspection, and ties it to the box. */
export function recordImage(
  bench: Bench,
  box: Box | undefined,
  file: { name: string; bytes: number; depotFile: string | null },
  inspection: Inspection,
  hash: HashRun | null,
  stamp: Stamp,
): Act & { image: ImageItem } {
  const known = bench.items.find(
    (i): i is ImageItem =>
      i.kind === 'image' &&
      i.name === file.name &&
      i.bytes === file.bytes &&
      (!hash || !i.digests.sha256 || i.digests.sha256 === hash.digests.sha256),
  );
  // The same bytes: what a list said of them still holds, though no list lies open now.
  const before = hash && known?.digests.sha256 === hash.digests.sha256 ? known?.comparison : undefined;
  const image: ImageItem = {
    kind: 'image',
    id: known?.id ?? stamp.id(),
    name: file.name,
    bytes: file.bytes,
    digests: { ...known?.digests, ...hash?.digests },
    inspection,
    comparison: hash ? (hash.comparison ?? before ?? null) : (known?.comparison ?? null),
    depotFile: file.depotFile ?? known?.depotFile ?? null,
    notes: known?.notes ?? '',
    trials: known?.trials ?? [],
  };
  const changes: Change[] = [
    known ? edited('items', known, image) : { in: 'items', id: image.id, to: image },
  ];
  if (box) changes.push(edit(box, { imageId: image.id }));
  if (hash) {
    const verdict = hash.comparison?.verdict ?? 'computed';
    const open = before ? 'the same bytes as before' : 'not compared yet';
    const what = verdict === 'computed' ? open : VERDICT[verdict];
    const rate = hash.seconds > 0 ? ` at ${formatRate(file.bytes / hash.seconds)}` : '';
    changes.push(
      logged({
        kind: 'hash',
        id: stamp.id(),
        at: stamp.now,
        boxId: box?.id ?? null,
        stop: 'verify',
        verdict,
        seconds: hash.seconds,
        text: `${file.name}: SHA-256 ${hash.digests.sha256?.slice(0, 8)}… read in ${formatDuration(hash.seconds)}${rate}, ${what}`,
      }),
    );
  }
  return { label: `${file.name} checked`, image, changes };
}

/** What stands against signing a stop off: its Stop hazards. Empty where nothing does or it is signed already. */
export const againstSignoff = (bench: Bench, box: Box, stop: Stop): readonly Hazard[] =>
  box.signoffs.some((s) => s.stop === stop)
    ? []
    : hazards(bench, box).filter((h) => h.grade === 'stop' && h.stop === stop);

/**
 * Signs a stop off, or takes the signature back where it stands. Where a Stop hazard stands against it, `despite` is the
 * reason the user gave for going on all the same; it stays on the box and in the log.
 */
export function toggleSignoff(bench: Bench, box: Box, stop: Stop, stamp: Stamp, despite?: string): Act {
  const signed = box.signoffs.find((s) => s.stop === stop);
  if (signed)
    return {
      label: `${stopTitle[stop]} opened again`,
      changes: [
        ...takenBack(bench, box, signed.media ?? []),
        edit(box, { signoffs: box.signoffs.filter((s) => s.stop !== stop) }),
      ],
    };
  // Whoever says that the install is done says what its drive holds.
  const drive = stop === 'install' ? systemDriveOf(bench, box) : undefined;
  const effects: Effect[] = drive ? [{ code: 'install', medium: drive.id }] : [];
  const { changes, before } = applyEffects(bench, box, effects, stamp.now);
  return {
    label: `${stopTitle[stop]} signed off`,
    changes: [
      ...changes,
      edit(box, {
        signoffs: [
          ...box.signoffs,
          {
            stop,
            at: stamp.now,
            ...(despite ? { despite } : {}),
            ...(before.media.length > 0 ? { media: before.media } : {}),
          },
        ],
      }),
      logged({
        kind: 'signoff',
        ...logBase(box, stop, stamp),
        text: `${stopTitle[stop]} signed off${despite ? ` despite a Stop: ${despite}` : ''}`,
      }),
    ],
  };
}

/** What a person adds to the log by hand. */
export type HandEntry =
  | { kind: 'note'; text: string }
  | { kind: 'photo'; text: string; photo: string }
  | { kind: 'setting'; text: string; from: string; to: string };

/** A photograph is a record of its own, which its line names. */
function withPhoto(
  { photo, text }: Extract<HandEntry, { kind: 'photo' }>,
  line: Omit<Extract<LogEntry, { kind: 'photo' }>, 'kind' | 'photoId' | 'text'>,
  stamp: Stamp,
): Change[] {
  const to = {
    id: stamp.id(),
    at: stamp.now,
    caption: text.slice(0, 200),
    data: photo,
    machineId: null,
    marks: [],
  };
  return [{ in: 'photos', id: to.id, to }, logged({ kind: 'photo', ...line, text, photoId: to.id })];
}

/** A line written by hand: a note, a photo, or a setting changed from one value to another. */
export function addEntry(box: Box | null, stop: Stop | null, entry: HandEntry, stamp: Stamp): Act {
  const line = { id: stamp.id(), at: stamp.now, boxId: box?.id ?? null, stop };
  return {
    label: { note: 'Note added', photo: 'Photo added', setting: 'Setting noted' }[entry.kind],
    changes: entry.kind === 'photo' ? withPhoto(entry, line, stamp) : [logged({ ...entry, ...line })],
  };
}

/**
 * Records which way the box follows: a stick first, or the final drive in an adapter or in place. Where the final drive itself
 * is written, that is the medium of the write; where a stick is, it no longer is.
 */
export function takeWriteWay(
  box: Box,
  { way }: Pick<SchoolWay, 'way'>,
  drive: Pick<Store, 'serial'> | undefined,
  stamp: Stamp,
): Act {
  const serial = drive?.serial ?? null;
  const before = box.targetSerial;
  const onStick = before === serial ? null : before;
  const targetSerial = way === 'installer stick' ? onStick : (serial ?? before);
  const { title, because } = wayWords(way);
  const decisions = decided(box, {
    id: WRITE_WAY,
    stop: 'write',
    what: 'How it is written',
    value: way,
    because,
    at: stamp.now,
  });
  return {
    label: `Written by ${title}`,
    changes: [
      edit(box, { decisions, targetSerial }),
      logged({ ...logBase(box, 'write', stamp), kind: 'note', text: `Written by ${title}: ${because}` }),
    ],
  };
}
