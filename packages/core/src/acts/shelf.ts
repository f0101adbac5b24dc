import {
  photosOf,
  theBench,
  type Bench,
  type Box,
  type LogEntry,
  type Machine,
  type Photo,
  type ShelfItem,
  type Store,
} from '../model/bench';
import type { PhotoMark } from '../model/photo';
import { isStore, transports } from '../model/shelf';
import { applyChanges, edited, type Act, type Change } from '../model/changes';
import { factDefinition, factKeys, type FactKey, type Facts, type FactValue } from '../model/facts';
import { knownFact } from '../model/known';
import { factText } from '../machine/text';
import { compareSurvey } from '../machine/compare';
import type { Survey, SurveyedDrive } from '../machine/types';
import { withoutAssumed, withUsual } from '../machine/usual';
import { formatIec } from '../units/bytes';
import { plainMachine, plainStore } from '../model/blank';
import { isBlank, type Fate } from '../model/content';
import type { ProbeResult } from '../model/standIns';
import { probeWords } from '../words/probe';
import { logged } from './base';
import { benchNote } from './note';
import type { Stamp } from './stamp';

/** What a probe of a stick found: a liar's real size stays on its record, so that the next guard knows. */
export function recordProbe(store: Store, found: ProbeResult, stamp: Stamp): Act {
  return {
    label: `“${store.name}” probed`,
    changes: [
      edited('items', store, { ...store, realBytes: found.real < store.bytes ? found.real : null }),
      benchNote('write', `“${store.name}” probed: ${probeWords(found)}`, stamp),
    ],
  };
}

const item = (to: ShelfItem): Change => ({ in: 'items', id: to.id, to });

/** A machine of which nothing but its name and kind is known yet. */
export function blankMachine(name: string, form: Machine['form'], stamp: Stamp): Machine {
  return {
    kind: 'machine',
    id: stamp.id(),
    name,
    form,
    notes: '',
    facts: {},
    surveyedAt: null,
    missing: [],
    networkPorts: [],
    ...plainMachine,
  };
}

/** A model as the shelf has room for it. */
const modelOf = (drive: SurveyedDrive): string | null => drive.model?.slice(0, 120) ?? null;

const seenNow = ({ content }: SurveyedDrive, stamp: Stamp): Store['content'] => ({
  ...content,
  learnt: { ...content.learnt, at: stamp.now },
});

/** What is plugged in from outside is a stick only where its medium is one that is taken out: a drive in a case is a drive. */
function kindOf(drive: SurveyedDrive, transport: Store['transport']): Store['kind'] {
  if (!drive.removable) return 'drive';
  if (transport === 'mmc') return 'card';
  return drive.removableMedium === false ? 'drive' : 'stick';
}

function storeFrom(drive: SurveyedDrive, machineId: string, stamp: Stamp): Store {
  const transport = transports.find((t) => t === drive.transport) ?? 'other';
  return {
    kind: kindOf(drive, transport),
    id: stamp.id(),
    // Its size stands beside it everywhere; a model that begins with a size says it already.
    name: `${drive.model ?? `${formatIec(drive.bytes)} drive`} (${drive.name})`.slice(0, 200),
    bytes: drive.bytes,
    serial: drive.serial === null || drive.serial.length > 200 ? null : drive.serial,
    model: modelOf(drive),
    label: '',
    transport,
    rotational: drive.rotational,
    removable: drive.removable,
    in: machineId,
    holds: '',
    realBytes: null,
    notes: '',
    ...plainStore,
    sectorBytes: drive.sectorBytes,
    shingled: drive.shingled,
    content: seenNow(drive, stamp),
    attachment: drive.attachment,
    fate: isBlank(drive.content) ? 'may be lost' : 'not decided',
    retentionOrigin: isBlank(drive.content) ? 'empty' : null,
  };
}

/**
 * Puts a survey into a machine: surveyed values are replaced, values entered by hand stay and win. Drives are matched
 * by serial, without one by size within this machine; what the shelf says of them (kept or not) is never overwritten.
 */
export function applySurvey(
  bench: Bench,
  machine: Machine,
  survey: Survey,
  stamp: Stamp,
  boxId: string | null,
): Act {
  const facts: Facts = {};
  for (const key of factKeys) {
    const found = survey.facts[key];
    const old = machine.facts[key];
    const assumed = found ? undefined : survey.assumed[key];
    const record = {
      ...(assumed ? { assumed } : {}),
      ...(found ? { surveyed: { value: found.value, source: found.source, at: stamp.now } } : {}),
      ...(old?.entered ? { entered: old.entered } : {}),
    };
    if (Object.keys(record).length > 0) facts[key] = record;
  }
  const changes: Change[] = [
    edited('items', machine, {
      ...machine,
      facts,
      surveyedAt: stamp.now,
      missing: survey.missing,
      networkPorts: survey.networkPorts,
      details: survey.details,
    }),
  ];
  const stores = bench.items.filter(isStore);
  const taken = new Set<string>();
  for (const drive of survey.drives) {
    const known =
      stores.find((s) => !taken.has(s.id) && drive.serial !== null && s.serial === drive.serial) ??
      stores.find(
        (s) =>
          !taken.has(s.id) &&
          drive.serial === null &&
          s.serial === null &&
          s.in === machine.id &&
          s.bytes === drive.bytes,
      );
    const wear = survey.details.health.find(
      (h) => h.serial !== null && h.serial === drive.serial,
    )?.wearPercent;
    const worn = wear === undefined || wear === null ? {} : { wear: Math.min(255, Math.max(0, wear)) };
    if (known) {
      taken.add(known.id);
      changes.push(
        edited('items', known, {
          ...known,
          bytes: drive.bytes,
          model: known.model ?? modelOf(drive),
          in: machine.id,
          sectorBytes: drive.sectorBytes ?? known.sectorBytes,
          shingled: drive.shingled ?? known.shingled,
          attachment: drive.attachment ?? known.attachment,
          content: seenNow(drive, stamp),
          ...worn,
        }),
      );
    } else changes.push(item({ ...storeFrom(drive, machine.id, stamp), ...worn }));
  }
  const count = Object.keys(survey.facts).length;
  const changed = machine.surveyedAt === null ? [] : compareSurvey(bench, machine, survey);
  const told = changed.map((c) => `${c.what}: ${c.was} → ${c.now}`).join('; ');
  const text = `Survey of ${machine.name} read: ${count} facts, ${survey.drives.length} drives, ${survey.missing.length} missing${told && `. Changed: ${told}`}`;
  const logId = stamp.id();
  changes.push({
    in: 'log',
    id: logId,
    to: { kind: 'survey', id: logId, at: stamp.now, boxId, stop: 'survey', text },
  });
  return { label: `Survey of ${machine.name}`, changes };
}

/** Sets a fact by hand, or (value undefined) takes the hand-entered value back so that the surveyed one counts again. */
export function enterFact(machine: Machine, key: FactKey, value: FactValue | undefined, stamp: Stamp): Act {
  const { entered: _old, ...rest } = machine.facts[key] ?? {};
  const record = value === undefined ? rest : { ...rest, entered: { value, at: stamp.now } };
  const facts: Facts = { ...machine.facts, [key]: record };
  if (Object.keys(record).length === 0) delete facts[key];
  return {
    label: value === undefined ? 'Entered fact taken back' : 'Fact entered',
    changes: [edited('items', machine, { ...machine, facts })],
  };
}

/**
 * A setting of firmware that a person has changed: it is so from now on, and the log keeps what it was. A survey that was wrong is
 * corrected by `enterFact`. `box`: for which it was changed; null where for none.
 */
export function settingChanged(
  machine: Machine,
  key: FactKey,
  value: FactValue,
  box: Pick<Box, 'id'> | null,
  stamp: Stamp,
): Act {
  const before = knownFact(machine, key);
  const { label, changes } = enterFact(machine, key, value, stamp);
  const line: LogEntry = {
    kind: 'setting',
    id: stamp.id(),
    at: stamp.now,
    boxId: box?.id ?? null,
    stop: 'firmware',
    text: factDefinition(key).label,
    from: before ? factText(key, before.value) : 'not known',
    to: factText(key, value),
  };
  return { label: `${label}: ${line.text} changed`, changes: [...changes, logged(line)] };
}

/** Puts under what is known what machines of this kind usually have, or takes all assumptions away again. */
export const assumeUsual = (machine: Machine, form: Machine['form'], on: boolean): Act => ({
  label: on ? `Usual values for a ${form} assumed` : 'Assumptions taken away',
  changes: [
    edited('items', machine, {
      ...machine,
      form,
      facts: on ? withUsual(machine.facts, form) : withoutAssumed(machine.facts),
    }),
  ],
});

/** Adds a photograph of a label or a board to a machine. */
export const addPhoto = (machine: Machine, caption: string, data: string, stamp: Stamp): Act => ({
  label: 'Photo added',
  changes: [photo({ id: stamp.id(), at: stamp.now, caption, data, machineId: machine.id, marks: [] })],
});

/** Sets the marks on a photograph. */
export const markPhoto = (of: Photo, marks: readonly PhotoMark[]): Act => ({
  label: 'Marks on a photo',
  changes: [edited('photos', of, { ...of, marks: [...marks] })],
});
const photo = (to: Photo): Change => ({ in: 'photos', id: to.id, to });

/** Takes a photograph away; lines of the log that show it stay. */
export const removePhoto = (id: string): Act => ({
  label: 'Photo removed',
  changes: [{ in: 'photos', id, to: null }],
});

/** Says whether what is on a drive may be lost. */
export const decideFate = (store: Store, fate: Fate): Act => ({
  label: fate === 'keep' ? `“${store.name}” is kept` : `What is on “${store.name}” may be lost`,
  changes: [edited('items', store, { ...store, fate, retentionOrigin: 'person' })],
});

/** Puts a new thing on the shelf. */
export const addItem = (to: ShelfItem, label = `“${to.name}” put on the shelf`): Act => ({
  label,
  changes: [item(to)],
});

/** Saves what was changed about a thing; `before` is the thing as the user saw it. */
export const saveItem = (before: ShelfItem, to: ShelfItem, label = `“${to.name}” saved`): Act => ({
  label,
  changes: [edited('items', before, to)],
});

/** Removes an item; whatever sat in a removed machine becomes loose, and boxes forget what is gone. */
export function removeItem(bench: Bench, gone: ShelfItem): Act {
  const changes: Change[] = [{ in: 'items', id: gone.id, to: null }];
  for (const p of photosOf(bench, gone.id)) changes.push({ in: 'photos', id: p.id, to: null });
  if (gone.kind === 'image')
    for (const { photoId } of gone.trials)
      if (photoId !== null) changes.push({ in: 'photos', id: photoId, to: null });
  changes.push(...theBench.forgetting(applyChanges(bench, changes), 'items', gone.id));
  return { label: `“${gone.name}” removed`, changes };
}
