import { isWrittenStraight, straightWay, systemDriveOf } from '../layout/systemDrive';
import { placeBefore } from '../model/opening';
import { movesOf } from '../opening/moves';
import { usbAdapterOf } from '../write/adapter';
import { claimAgainst, isFreeFor } from '../plan/claims';
import { judge } from '../system/judge';
import type { PartRole } from '../system/repairs';
import { driversInOrder } from '../system/drivers';
import { needsDock } from '../machine/dock';
import { partsFor } from '../system/part';
import { machineView } from '../system/view';
import {
  findImage,
  findMachine,
  findProfile,
  type Bench,
  type Box,
  type Machine,
  type Profile,
  type ShelfItem,
  type Store,
} from '../model/bench';
import type { GatherLine, GatherThing, PartPlace, Whereabouts } from './line';
import { safetyNotes, type SafetyNote } from './safety';
import { contentTitle } from '../model/content';
import { writtenBytes } from '../model/written';

/** What must lie on the bench, and what can hurt. */
export interface GatherList {
  lines: GatherLine[];
  safety: SafetyNote[];
}

const real = (s: Store): number => s.realBytes ?? s.bytes;

function stick(bench: Bench, box: Box, profile: Profile, second: boolean): GatherLine {
  const image = findImage(bench, box.imageId);
  // A packed image is written as what is inside it.
  const bytes = second ? profile.stickBytes : Math.max(image ? writtenBytes(image) : 0, profile.stickBytes);
  const held = (s: Store): boolean => !isFreeFor(bench, box, s);
  const sticks = bench.items.filter((i): i is Extract<ShelfItem, { kind: 'stick' }> => i.kind === 'stick');
  const fit = sticks
    .filter(
      (s) => s.owned && s.fate === 'may be lost' && real(s) >= bytes * 0.98 && placeBefore(box, s) === null,
    )
    .sort((a, b) => Number(held(a)) - Number(held(b)) || real(a) - real(b));
  const chosen = fit.find((s) => s.serial !== null && s.serial === box.targetSerial);
  const best = second ? fit.filter((s) => s !== (chosen ?? fit[0]))[0] : (chosen ?? fit[0]);
  const offer = sticks
    .filter((s) => !s.owned && s.price !== null && s.bytes >= bytes * 0.98)
    .sort((a, b) => (a.price ?? 0) - (b.price ?? 0))[0];
  const thing = (named: string | null): GatherThing =>
    second
      ? { code: 'second stick', named }
      : { code: 'stick', bytes, named, image: image?.name ?? null, system: profile.name };
  const base = {
    key: second ? 'second-stick' : 'stick',
    group: 'Stick and writing' as const,
    count: 1,
  };
  if (best)
    return {
      ...base,
      thing: thing(best.name),
      itemId: best.id,
      where: held(best) ? 'in use elsewhere' : 'on the shelf',
    };
  return offer
    ? { ...base, thing: thing(offer.name), itemId: offer.id, where: 'to buy', price: offer.price }
    : { ...base, thing: thing(null), where: 'to buy', price: null };
}

function writing(bench: Bench, box: Box, profile: Profile): GatherLine[] {
  const lines: GatherLine[] = [];
  const base = { key: 'reader', group: 'Stick and writing' as const, count: 1 };
  switch (straightWay(bench, box)) {
    case 'card':
      return [{ ...base, thing: { code: 'card reader', system: profile.name }, where: 'at hand' }];
    case 'external drive':
    case 'in place':
      return lines;
    case 'adapter': {
      const adapter = usbAdapterOf(bench);
      return [
        {
          ...base,
          thing: { code: 'drive adapter', system: profile.name },
          ...(adapter
            ? { where: 'on the shelf' as const, itemId: adapter.id }
            : { where: 'to buy' as const, price: null }),
        },
      ];
    }
    default:
      break;
  }
  lines.push(stick(bench, box, profile, false));
  if (profile.drivers.length > 0) lines.push(stick(bench, box, profile, true));
  return lines;
}

function ports(bench: Bench, box: Box, machine: Machine, profile: Profile): GatherLine[] {
  const lines: GatherLine[] = [];
  const add = (key: string, thing: GatherThing, more: Partial<GatherLine> = {}): void =>
    void lines.push({ key, group: 'Ports and input', thing, where: 'at hand', count: 1, ...more });
  if (needsDock(machine)) {
    const dock = bench.items.find(
      (i) =>
        i.kind === 'adapter' && i.owned && i.goesIn === 'outside' && /usb/i.test(i.from) && /usb/i.test(i.to),
    );
    add(
      'dock',
      { code: 'dock', named: dock?.name ?? null },
      {
        where: dock ? 'on the shelf' : 'to buy',
        ...(dock ? { itemId: dock.id } : { price: null }),
      },
    );
    add('charger', { code: 'charger' });
  }
  // A laptop has its own; a handheld wants one where an installer asks.
  const asks = !isWrittenStraight(bench, box);
  if (machine.form !== 'laptop' && (machine.form !== 'handheld' || asks))
    add('keyboard', { code: 'keyboard' });
  if (machine.form !== 'handheld' && machine.form !== 'laptop') add('display', { code: 'display' });
  if (profile.networkAtInstall || profile.needs.wiredPorts > 0) {
    const count = Math.max(1, profile.needs.wiredPorts);
    add('wire', { code: 'network wire', count, atInstall: profile.networkAtInstall }, { count });
  }
  return lines;
}

/** The parts the verdict asks for, where each is, and the kept drives that must come out. */
function goingIn(
  bench: Bench,
  box: Box,
  machine: Machine,
  profile: Profile,
  claimed: Set<string>,
): GatherLine[] {
  const parts = partsFor(bench, machine.id).filter((p) => p.offer || !claimed.has(p.id));
  const view = machineView(bench, machine, parts, box, systemDriveOf(bench, box));
  const judged = judge(view, profile, box);
  const lines: GatherLine[] = [];
  const counted = new Map<string, GatherLine>();
  for (const r of judged.repairs) {
    if (r.kind === 'part') {
      const { part } = r;
      const again = counted.get(part.id);
      if (again) {
        again.count += 1;
        continue;
      }
      if (!part.offer) claimed.add(part.id);
      const line: GatherLine = {
        key: `part-${part.id}`,
        group: 'Parts that go in',
        thing: { code: 'part', name: part.name, place: partPlace(bench, part.id, r.role) },
        itemId: part.id,
        count: 1,
        where: part.offer ? 'to buy' : 'on the shelf',
        ...(part.offer ? { price: part.price } : {}),
      };
      counted.set(part.id, line);
      lines.push(line);
    }
    if (r.kind === 'buy')
      lines.push({
        key: `buy-${r.gives.kind}`,
        group: 'Parts that go in',
        thing: { code: 'purchase', purchase: r, system: profile.name, machine: machine.name },
        where: 'to buy',
        count: 1,
        price: null,
      });
  }
  // What was decided goes in whether or not the machine would fit without it.
  const { goesIn, comesOut, makesRoom } = movesOf(bench, box);
  for (const s of goesIn)
    if (!lines.some((l) => l.itemId === s.id))
      lines.push({
        key: `part-${s.id}`,
        group: 'Parts that go in',
        thing: { code: 'part', name: s.name, place: partPlace(bench, s.id, 'drive') },
        itemId: s.id,
        count: 1,
        where: s.owned ? 'on the shelf' : 'to buy',
        ...(s.owned ? {} : { price: s.price }),
      });
  for (const s of [...makesRoom, ...comesOut])
    lines.push({
      key: `bag-${s.id}`,
      group: 'Parts that go in',
      thing: { code: 'labelled bag', drive: s.name, kept: s.fate === 'keep', holds: contentTitle(s) },
      where: 'at hand',
      count: 1,
    });
  return lines;
}

function partPlace(bench: Bench, id: string, role: PartRole): PartPlace {
  const item = bench.items.find((i) => i.id === id);
  if (item?.kind === 'drive')
    return { role, drive: { m2: item.m2, shape: item.shape, transport: item.transport } };
  if (item?.kind === 'memory') return { role, memory: { type: item.type, form: item.form } };
  return item?.kind === 'adapter' ? { role, goesIn: item.goesIn } : { role };
}

/**
 * What must lie on the bench before a box is begun, from its machine, its system and its decisions. `claimed` holds the
 * parts that boxes before it take; those this box takes are added to it.
 */
export function gatherList(bench: Bench, box: Box, claimed: Set<string> = new Set()): GatherList {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine || !profile) return { lines: [], safety: machine ? safetyNotes(bench, machine, false) : [] };
  const inside = goingIn(bench, box, machine, profile, claimed);
  const opens = inside.length > 0 || movesOf(bench, box).written.length > 0;
  const lines = [...inside, ...writing(bench, box, profile), ...ports(bench, box, machine, profile)];
  const chain = bench.items.find((i) => i.id === box.chain?.stickId);
  if (chain && box.chain)
    lines.push({
      key: 'chain-stick',
      group: 'Stick and writing',
      thing: { code: 'chain stick', named: chain.name, seconds: box.chain.seconds },
      itemId: chain.id,
      where: claimAgainst(bench, box, chain.id) ? 'in use elsewhere' : 'on the shelf',
      count: 1,
    });
  const add = (
    group: GatherLine['group'],
    key: string,
    thing: GatherThing,
    where: Whereabouts = 'at hand',
  ): void => void lines.push({ key, group, thing, where, count: 1 });
  if (opens) {
    add('Tools', 'tools', { code: 'tools', form: machine.form });
    add('Tools', 'tray', { code: 'tray' });
  }
  driversInOrder(profile.drivers).forEach((name, i) =>
    add('Drivers, in this order', `driver-${i}`, { code: 'driver', number: i + 1, name }, 'to fetch'),
  );
  add('Paper', 'paper', { code: 'paper', login: profile.login });
  return { lines, safety: safetyNotes(bench, machine, opens) };
}
