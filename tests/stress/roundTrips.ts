import { addEntry, createBox, removeBox, toggleSignoff, updateBox } from '@zb/core/acts/box';
import { doneChore, openAgain } from '@zb/core/acts/keep';
import { addNetwork, editHost, placeBox, removeHost, removeNetwork } from '@zb/core/acts/network';
import { addSampleProfiles } from '@zb/core/acts/profiles';
import { decideFates, putInto, removeItems } from '@zb/core/acts/several';
import { addItem, assumeUsual, blankMachine, decideFate, enterFact, removeItem } from '@zb/core/acts/shelf';
import { dropUser, turnRight } from '@zb/core/acts/storage';
import { dropRun, leaveRunOut } from '@zb/core/acts/tune';
import {
  blankWish,
  changeSettings,
  removeWish,
  saveWish,
  toggleForbid,
  togglePin,
} from '@zb/core/acts/wishes';
import type { Stamp } from '@zb/core/acts/stamp';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { choresOf } from '@zb/core/keeping/chores';
import { arranged, isMachine, theBench, type Bench } from '@zb/core/model/bench';
import { applyChanges, conflictsOf, type Act, type Change } from '@zb/core/model/changes';
import { factKeys } from '@zb/core/model/facts';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { isStore } from '@zb/core/model/shelf';
import { criteria } from '@zb/core/model/settings';
import { stops } from '@zb/core/model/stops';
import { HOSTILE } from '../../packages/core/test/hostileBench';
import type { Part } from './part';
import type { Random } from './random';

/** One of a list; undefined where it is empty. */
const one = <T>(random: Random, list: readonly T[]): T | undefined =>
  list.length === 0 ? undefined : random.pick(list);

/** A name that a person may type: plain, long, or of signs that other formats give a meaning. */
const nameOf = (random: Random): string =>
  random
    .pick([`Thing ${random.int(1, 99)}`, 'x'.repeat(120), ...HOSTILE])
    .replace(/[\p{Cc}\u2028\u2029\ufeff\ud800]/gu, ' ')
    .trim()
    .slice(0, 80) || 'a';

type Doing = (bench: Bench, random: Random, stamp: Stamp) => Act | undefined;
/** Acts a person can do, on records drawn by chance. */
const ACTS: Record<string, Doing> = {
  note: (b, r, s) => addEntry(one(r, b.boxes) ?? null, r.pick(stops), { kind: 'note', text: nameOf(r) }, s),
  'setting noted': (_, r, s) =>
    addEntry(null, null, { kind: 'setting', text: nameOf(r), from: nameOf(r), to: nameOf(r) }, s),
  'box opened': (b, r, s) => {
    const machine = one(r, b.items.filter(isMachine));
    return createBox(nameOf(r), r.pick(b.boxes.map((x) => x.purpose)), machine, s);
  },
  'box renamed': (b, r) => {
    const box = one(r, b.boxes);
    return box && updateBox(box, { name: nameOf(r) }, 'Renamed');
  },
  'box removed': (b, r) => {
    const box = b.boxes.length > 2 ? one(r, b.boxes) : undefined;
    return box && removeBox(b, box);
  },
  'stage signed off': (b, r, s) => {
    const box = one(r, b.boxes);
    return box && toggleSignoff(b, box, r.pick(stops), s, nameOf(r));
  },
  'box opened again': (b, r, s) => {
    const box = one(r, b.boxes);
    return box && openAgain(box, r.chance(0.5) ? null : nameOf(r), s);
  },
  'chore done': (b, r, s) => {
    const box = one(r, b.boxes);
    const chore = box && one(r, choresOf(b, box, '2026-03-05'));
    return box && chore && doneChore(box, chore, '2026-03-05', s);
  },
  'machine added': (_, r, s) => addItem(blankMachine(nameOf(r), 'laptop', s)),
  'thing removed': (b, r) => {
    const item = one(r, b.items);
    return item && removeItem(b, item);
  },
  'things removed': (b, r) => removeItems(b, r.some(b.items, r.int(1, 4))),
  'drive decided': (b, r) => {
    const store = one(r, b.items.filter(isStore));
    return store && decideFate(store, r.pick(['keep', 'may be lost', 'not decided'] as const));
  },
  'drives decided': (b, r) => decideFates(r.some(b.items, 5), 'keep'),
  'things put in': (b, r) => putInto(r.some(b.items, 3), one(r, b.items.filter(isMachine))),
  'fact entered': (b, r, s) => {
    const machine = one(r, b.items.filter(isMachine));
    const key = r.pick(factKeys);
    const value = machine?.facts[key]?.surveyed?.value;
    return machine && enterFact(machine, key, value, s);
  },
  'usual assumed': (b, r) => {
    const machine = one(r, b.items.filter(isMachine));
    return machine && assumeUsual(machine, machine.form, r.chance(0.5));
  },
  'wish saved': (b, r, s) => saveWish(undefined, blankWish(nameOf(r), r.pick(b.boxes).purpose, s)),
  'wish removed': (b, r) => {
    const wish = one(r, b.wishes);
    return wish && removeWish(b, wish);
  },
  'wish pinned': (b, r) => {
    const [wish, machine] = [one(r, b.wishes), one(r, b.items.filter(isMachine))];
    return wish && machine && (r.chance(0.5) ? togglePin(wish, machine) : toggleForbid(wish, machine));
  },
  'settings changed': (b, r) =>
    changeSettings(b, { weights: { ...b.settings.weights, [r.pick(criteria)]: r.int(0, 10) } }, 'Weights'),
  'systems added': (b) => addSampleProfiles(b, saltmarshHall().profiles),
  'network added': (_, r, s) => addNetwork(nameOf(r), s),
  'network removed': (b, r) => {
    const network = one(r, b.networks);
    return network && removeNetwork(b, network);
  },
  'box placed': (b, r, s) => {
    const [box, network] = [one(r, b.boxes), one(r, b.networks)];
    return box && network && !b.hosts.some((h) => h.boxId === box.id)
      ? placeBox(b, box, network, s)
      : undefined;
  },
  'host noted': (b, r) => {
    const host = one(r, b.hosts);
    return host && editHost(host, { notes: nameOf(r) }, 'Noted');
  },
  'host removed': (b, r) => {
    const host = one(r, b.hosts);
    return host && removeHost(host);
  },
  'right turned': (b, r) => {
    const box = one(
      r,
      b.boxes.filter((x) => x.sharing !== null),
    );
    const folder = one(r, box?.sharing?.folders ?? []);
    return box && folder && turnRight(b, box, folder, one(r, box.sharing?.users ?? []) ?? 'guests');
  },
  'user dropped': (b, r) => {
    const box = one(
      r,
      b.boxes.filter((x) => x.sharing !== null),
    );
    const user = one(r, box?.sharing?.users ?? []);
    return box && user && dropUser(b, box, user);
  },
  'run left out': (b, r) => {
    const run = one(r, b.runs);
    return run && (r.chance(0.5) ? leaveRunOut(run, nameOf(r)) : dropRun(run));
  },
};

const DEPTH = 12;

/**
 * Acts drawn by chance, one after the other: what is on the bench after each can be saved and opened as the same bench, and the
 * acts taken back in their order lead to where they began.
 */
export const roundTrips: Part = async ({ random, goOn, count, wrong }) => {
  const names = Object.keys(ACTS);
  for (let round = 0; goOn(); round += 1) {
    let bench = arranged(saltmarshHall());
    let n = 0;
    const stamp: Stamp = {
      // A clock that is set back now and then: the order of the log is not that of the acts.
      now: new Date(1_772_000_000_000 + random.int(-90, 90) * 86_400_000).toISOString(),
      id: () => `made-${round}-${(n += 1)}`,
    };
    const back: { text: string; changes: Change[]; name: string }[] = [];
    for (let i = 0; i < DEPTH; i += 1) {
      const name = random.pick(names);
      const act = ACTS[name]?.(bench, random, stamp);
      if (!act) continue;
      const seen = conflictsOf(bench, act.changes);
      if (seen.length > 0)
        wrong(`“${name}” meets a conflict with nobody: ${JSON.stringify(seen).slice(0, 300)}`);
      const text = benchToText(bench);
      const next = arranged(applyChanges(bench, act.changes));
      back.push({ text, name, changes: theBench.inverse(bench, act.changes) });
      try {
        const saved = benchToText(next);
        if (benchToText(benchFromText(saved)) !== saved)
          wrong(`after “${name}” a bench is another when it is opened`);
      } catch (error) {
        wrong(
          `after “${name}” (${JSON.stringify(act.changes).slice(0, 400)}) a bench cannot be opened: ${String(error)}`,
        );
      }
      count('acts');
      bench = next;
    }
    for (const { text, name, changes } of back.reverse()) {
      bench = arranged(applyChanges(bench, changes));
      if (benchToText(bench) !== text) wrong(`“${name}” taken back leaves another bench than before`);
      count('acts taken back');
    }
    await new Promise((r) => setTimeout(r, 0));
  }
};
