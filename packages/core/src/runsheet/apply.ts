import {
  findImage,
  findItem,
  findMachine,
  findProfile,
  storesOf,
  type Bench,
  type Box,
  type Machine,
  type ShelfItem,
  type Store,
} from '../model/bench';
import { applyChanges, edited, type Change } from '../model/changes';
import type { FactKey, FactRecord } from '../model/facts';
import type { MediumBefore } from '../model/medium';
import { noOpening, placeBefore } from '../model/opening';
import type { FirmwareBefore, StepRecord } from '../model/run';
import { writtenBytes } from '../model/written';
import type { Effect } from '../plan/effect';
import {
  holdsSystemOf,
  isPooledBy,
  withChainLoader,
  withNothing,
  withPool,
  withSystem,
  withWholeImage,
} from '../plan/medium';
import { writtenContent } from '../write/content';
import { installedContent } from './installedContent';

/** What a step keeps so that it can be taken back: media, a fact and the firmware as they were before it. */
export interface StepBefore {
  media: MediumBefore[];
  fact: StepRecord['fact'];
  firmware: FirmwareBefore | null;
}

/** A bench and a box after some effects, the changes that led there, and what takes them back. */
export interface Applied {
  bench: Bench;
  box: Box;
  changes: Change[];
  before: StepBefore;
}

/** A medium as it was, by which an act is taken back. */
const mediumBefore = (store: Store, revision: number): MediumBefore => ({
  id: store.id,
  revision,
  content: store.content,
  holds: store.holds,
  fate: store.fate,
  retentionOrigin: store.retentionOrigin,
  wholeImage: store.wholeImage,
  installed: store.installed,
  pooled: store.pooled,
});

/** A machine with a fact as it is after a setting was made or taken back; `entered` null: nothing is entered there. */
const withFact = (
  machine: Machine,
  key: FactKey,
  entered: NonNullable<FactRecord['entered']> | null,
): Machine => {
  const { entered: _, ...rest } = machine.facts[key] ?? {};
  return { ...machine, facts: { ...machine.facts, [key]: { ...rest, ...(entered ? { entered } : {}) } } };
};

/** Applies effects one after the other, each to the bench as the one before left it. */
class Applying {
  readonly changes: Change[] = [];
  readonly before: StepBefore = { media: [], fact: null, firmware: null };

  constructor(
    public bench: Bench,
    public box: Box,
    private readonly at: string,
  ) {}

  private item<T extends ShelfItem>(was: T, to: T): void {
    const change = edited('items', was, to);
    this.changes.push(change);
    this.bench = applyChanges(this.bench, [change]);
  }

  private boxed(changed: Partial<Box>): void {
    this.box = { ...this.box, ...changed };
    const { box } = this;
    // Plans are worked out from the box and the bench together: the bench holds the box as it is now.
    this.bench = { ...this.bench, boxes: this.bench.boxes.map((b) => (b.id === box.id ? box : b)) };
  }

  private medium(id: string, changed: (store: Store) => Store | null): void {
    const store = storesOf(this.bench).find((s) => s.id === id);
    const to = store && changed(store);
    if (!store || !to) return;
    this.before.media.push(mediumBefore(store, to.revision));
    this.item(store, to);
  }

  private machine(changed: (machine: Machine) => Machine): void {
    const machine = findMachine(this.bench, this.box.machineId);
    if (machine) this.item(machine, changed(machine));
  }

  private firmware(changed: (was: Machine) => Partial<FirmwareBefore>): void {
    this.machine((m) => {
      const { bootFirst, portsOff, keysEnrolled } = m;
      this.before.firmware ??= { bootFirst, portsOff, keysEnrolled };
      return { ...m, ...changed(m) };
    });
  }

  /** Moves an item, and says of what the plan has moved where it had been. */
  move(id: string, to: string | null, back: boolean): void {
    const item = findItem(this.bench, id);
    if (!item || !('in' in item)) return;
    const opening = this.box.opening ?? noOpening();
    const { [id]: _, ...rest } = opening.moved;
    const moved = back ? rest : { ...rest, [id]: placeBefore(this.box, item) };
    if (item.in !== to) this.item(item, { ...item, in: to });
    this.boxed({ opening: { ...opening, moved } });
  }

  private writeImage({ medium, image: imageId, system }: Extract<Effect, { code: 'write image' }>): void {
    const { bench, box, at } = this;
    const image = findImage(bench, imageId);
    const profile = findProfile(bench, box.profileId);
    const name = (image?.name ?? profile?.name ?? 'an image').slice(0, 290);
    this.medium(medium, (store) => {
      const whole = {
        imageId: image?.id ?? null,
        imageName: name,
        boxId: box.id,
        at,
        by: 'word' as const,
      };
      const holds = system && profile ? { boxId: box.id, boxName: box.name, system: profile.name } : null;
      return {
        ...withWholeImage(store, writtenContent(image, true, at), whole, holds),
        holds: `${name}, by word`,
      };
    });
    const serial = storesOf(bench).find((s) => s.id === medium)?.serial ?? null;
    if (serial !== null)
      this.boxed({
        written: {
          at,
          imageId: image?.id ?? null,
          serial,
          result: 'by word',
          explanation: 'It was written elsewhere, and nobody has compared it.',
          bytes: image ? writtenBytes(image) : 0,
          seconds: 0,
        },
      });
  }

  private install(medium: string): void {
    const { bench, box, at } = this;
    const profile = findProfile(bench, box.profileId);
    if (!profile) return;
    this.medium(medium, (store) =>
      holdsSystemOf(store, box)
        ? null
        : withSystem(store, installedContent(bench, box, store, profile.name, at), {
            boxId: box.id,
            boxName: box.name,
            system: profile.name,
            at,
            by: 'word',
          }),
    );
  }

  apply(effect: Effect): void {
    switch (effect.code) {
      case 'move':
        return this.move(effect.item, effect.to, false);
      case 'move back':
        return this.move(effect.item, effect.to, true);
      case 'write image':
        return this.writeImage(effect);
      case 'install':
        return this.install(effect.medium);
      case 'erase':
        return this.medium(effect.medium, (s) => withNothing(s, this.at));
      case 'make pool':
        return this.medium(effect.medium, (s) =>
          isPooledBy(s, this.box) ? null : withPool(s, this.box, this.at),
        );
      case 'make chain loader':
        return this.medium(effect.medium, (s) => withChainLoader(s, this.box, this.at));
      case 'set fact': {
        const { fact, value } = effect;
        return this.machine((m) => {
          this.before.fact = { key: fact, entered: m.facts[fact]?.entered ?? null };
          return withFact(m, fact, { value, at: this.at });
        });
      }
      case 'boot first':
        return this.firmware(() => ({ bootFirst: effect.medium }));
      case 'enrol key':
        return this.firmware(({ keysEnrolled }) => ({
          keysEnrolled: [...new Set([...keysEnrolled, effect.system])],
        }));
      case 'switch port':
        return this.firmware(({ portsOff }) => {
          const others = portsOff.filter((id) => id !== effect.medium);
          return { portsOff: effect.on ? others : [...others, effect.medium] };
        });
    }
  }

  /** Takes back what effects have moved; what they did to media, facts and firmware is put back from the record. */
  takeBack(effects: readonly Effect[], was: Partial<StepRecord>): void {
    for (const { id, revision, ...old } of [...(was.media ?? [])].reverse()) {
      const store = storesOf(this.bench).find((s) => s.id === id);
      // A medium that has changed again since is left as it is. The count goes back with the rest, so that the step before can
      // be taken back as well.
      if (store?.revision === revision) this.item(store, { ...store, ...old, revision: revision - 1 });
    }
    const { fact, firmware } = was;
    if (fact) this.machine((m) => withFact(m, fact.key, fact.entered ?? null));
    if (firmware) this.machine((m) => ({ ...m, ...firmware }));
    for (const effect of [...effects].reverse()) {
      if (effect.code === 'move') {
        const item = findItem(this.bench, effect.item);
        if (item && 'in' in item) this.move(effect.item, placeBefore(this.box, item), true);
      }
      if (effect.code === 'move back') this.moveAway(effect.item, effect.to);
      if (effect.code === 'write image' && this.box.written?.result === 'by word')
        this.boxed({ written: null });
    }
  }

  /** What was put back is out again, and its place is known still. */
  private moveAway(id: string, home: string | null): void {
    const opening = this.box.opening ?? noOpening();
    this.move(id, home === null ? this.box.machineId : null, false);
    this.boxed({ opening: { ...opening, moved: { ...opening.moved, [id]: home } } });
  }
}

const applied = ({ bench, box, changes, before }: Applying): Applied => ({ bench, box, changes, before });

/** The bench and the box after effects, in their order; what names something that is not there changes nothing. */
export function applyEffects(bench: Bench, box: Box, effects: readonly Effect[], at: string): Applied {
  const applying = new Applying(bench, box, at);
  for (const effect of effects) applying.apply(effect);
  return applied(applying);
}

/** The bench and the box after a step was taken back: `was` is what its record kept. */
export function takeEffectsBack(
  bench: Bench,
  box: Box,
  effects: readonly Effect[],
  was: Partial<StepRecord>,
): Applied {
  const applying = new Applying(bench, box, '');
  applying.takeBack(effects, was);
  return applied(applying);
}

/** Puts back what a mistaken mark has changed on media; a medium that has changed again since is left as it is. */
export const takenBack = (bench: Bench, box: Box, was: readonly MediumBefore[]): Change[] =>
  takeEffectsBack(bench, box, [], { media: [...was] }).changes;
