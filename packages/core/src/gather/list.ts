import { judge } from '../system/judge';
import { partsFor } from '../system/part';
import { staying } from '../system/places';
import { knownFact } from '../model/known';
import { machineView } from '../system/view';
import {
  findImage,
  findMachine,
  findProfile,
  storesIn,
  type Bench,
  type Box,
  type Machine,
  type Profile,
  type ShelfItem,
  type Store,
} from '../model/bench';
import { formatBoth } from '../units/bytes';
import { safetyNotes, type SafetyNote } from './safety';
import { contentTitle } from '../model/content';

/** Where a thing is to be had. `at hand` is what a workshop has lying about and no shelf lists. */
export type Whereabouts = 'at hand' | 'on the shelf' | 'in use elsewhere' | 'to buy' | 'to fetch';

export interface GatherLine {
  /** Stays the same while the line means the same thing, so that a tick outlives a redrawing. */
  key: string;
  group:
    | 'Stick and writing'
    | 'Parts that go in'
    | 'Ports and input'
    | 'Tools'
    | 'Drivers, in this order'
    | 'Paper';
  what: string;
  why: string;
  where: Whereabouts;
  /** The shelf's own item, where there is one. */
  itemId?: string;
  count: number;
  /** Price of one; null where it is to be bought and nobody noted a price; absent where nothing is bought. */
  price?: number | null;
}

export interface GatherList {
  lines: GatherLine[];
  safety: SafetyNote[];
}

/** Screwdrivers and openers for a kind of machine. Common practice, no source; the screw in hand decides. */
const TOOLS: Record<Machine['form'], string> = {
  handheld: 'small cross-head screwdriver (PH00) and a plastic pick',
  laptop: 'cross-head screwdrivers (PH0, PH1) and a plastic pick',
  'mini PC': 'cross-head screwdriver (PH1)',
  board: 'small cross-head screwdriver (PH1) for its case',
  'office desktop': 'cross-head screwdriver (PH2)',
  'old desktop': 'cross-head screwdriver (PH2)',
  tower: 'cross-head screwdriver (PH2)',
  'rack server': 'cross-head (PH2) and six-lobe (T15) screwdrivers',
};

const busy = (bench: Bench, box: Box): Set<string> =>
  new Set(
    bench.boxes
      .filter(
        (b) => b.id !== box.id && b.targetSerial !== null && !b.signoffs.some((s) => s.stop === 'install'),
      )
      .flatMap((b) => b.targetSerial ?? []),
  );

const real = (s: Store): number => s.realBytes ?? s.bytes;

function stick(bench: Bench, box: Box, profile: Profile, second: boolean): GatherLine {
  const image = findImage(bench, box.imageId);
  const bytes = second ? profile.stickBytes : Math.max(image?.bytes ?? 0, profile.stickBytes);
  const taken = busy(bench, box);
  const sticks = bench.items.filter((i): i is Extract<ShelfItem, { kind: 'stick' }> => i.kind === 'stick');
  const fit = sticks
    .filter((s) => s.owned && s.fate === 'may be lost' && real(s) >= bytes * 0.98 && s.in === null)
    .sort(
      (a, b) => Number(taken.has(a.serial ?? '')) - Number(taken.has(b.serial ?? '')) || real(a) - real(b),
    );
  const chosen = fit.find((s) => s.serial !== null && s.serial === box.targetSerial);
  const best = second ? fit.filter((s) => s !== (chosen ?? fit[0]))[0] : (chosen ?? fit[0]);
  const offer = sticks
    .filter((s) => !s.owned && s.price !== null && s.bytes >= bytes * 0.98)
    .sort((a, b) => (a.price ?? 0) - (b.price ?? 0))[0];
  const base = {
    key: second ? 'second-stick' : 'stick',
    group: 'Stick and writing' as const,
    count: 1,
    why: second
      ? 'for drivers and content, so that nothing is fetched over a network that may not work yet'
      : `${image ? `${image.name} is to go on it` : `for ${profile.name}`}; USB 3 saves minutes`,
  };
  const what = second ? 'A second stick' : `A stick of at least ${formatBoth(bytes)}`;
  if (best)
    return {
      ...base,
      what: `${what}: ${best.name}`,
      itemId: best.id,
      where: taken.has(best.serial ?? '') ? 'in use elsewhere' : 'on the shelf',
    };
  return offer
    ? { ...base, what: `${what}: ${offer.name}`, itemId: offer.id, where: 'to buy', price: offer.price }
    : { ...base, what, where: 'to buy', price: null };
}

function writing(bench: Bench, box: Box, machine: Machine, profile: Profile): GatherLine[] {
  const lines: GatherLine[] = [];
  if (profile.installer === 'written straight to the final drive') {
    const card = knownFact(machine, 'ports.drives')?.value === 0;
    lines.push({
      key: 'reader',
      group: 'Stick and writing',
      what: card ? 'Card reader' : 'USB adapter for the final drive',
      why: card
        ? `${profile.name} is written straight to the card`
        : `${profile.name} can be written straight to the drive; otherwise start a stick and copy from there`,
      where: 'at hand',
      count: 1,
    });
    if (card) return lines;
  }
  lines.push(stick(bench, box, profile, false));
  if (profile.drivers.length > 0) lines.push(stick(bench, box, profile, true));
  return lines;
}

function ports(bench: Bench, machine: Machine, profile: Profile): GatherLine[] {
  const lines: GatherLine[] = [];
  const add = (key: string, what: string, why: string, more: Partial<GatherLine> = {}): void =>
    void lines.push({ key, group: 'Ports and input', what, why, where: 'at hand', count: 1, ...more });
  const few = knownFact(machine, 'ports.usb')?.value === 1;
  if (few || machine.form === 'handheld') {
    const dock = bench.items.find(
      (i) =>
        i.kind === 'adapter' && i.owned && i.goesIn === 'outside' && /usb/i.test(i.from) && /usb/i.test(i.to),
    );
    add(
      'dock',
      dock ? `Dock: ${dock.name}` : 'A dock that also takes power',
      'one USB port for stick, keyboard and charger',
      {
        where: dock ? 'on the shelf' : 'to buy',
        ...(dock ? { itemId: dock.id } : { price: null }),
      },
    );
    add('charger', 'Its charger', 'an install must not end with the battery');
  }
  add(
    'keyboard',
    'Keyboard, on a wire',
    'for the setup keys and the first start; wireless ones wake too late',
  );
  if (machine.form !== 'handheld' && machine.form !== 'laptop')
    add('display', 'Display and its cable', 'only until remote administration is on');
  if (profile.networkAtInstall || profile.needs.wiredPorts > 0)
    add(
      'wire',
      profile.needs.wiredPorts > 1 ? `${profile.needs.wiredPorts} network wires` : 'Network wire',
      profile.networkAtInstall ? 'the installer needs the network' : 'what serves goes on a wire',
      { count: Math.max(1, profile.needs.wiredPorts) },
    );
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
  const view = machineView(bench, machine, parts);
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
        what: part.name,
        why: partWords(bench, part.id, r.role),
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
        what: r.text.replace(/^(Fetch|Add) (at least )?/, '').replace(/\.$/, ''),
        why: `for ${profile.name} on ${machine.name}; no price is noted for it`,
        where: 'to buy',
        count: 1,
        price: null,
      });
  }
  const stay = new Set(staying(view, profile.needs.bootBytes, profile.needs.dataDrives).map((d) => d.id));
  const takes =
    profile.installer === 'takes the first drive unasked' ||
    profile.installer === 'preselects the first drive';
  for (const s of storesIn(bench, machine.id).filter((x) => x.fate !== 'may be lost' && !stay.has(x.id)))
    if (takes || lines.some((l) => l.group === 'Parts that go in'))
      lines.push({
        key: `bag-${s.id}`,
        group: 'Parts that go in',
        what: `A labelled bag for “${s.name}”`,
        why:
          s.fate === 'keep'
            ? `it holds ${contentTitle(s) || 'what must be kept'}, and comes out before the install`
            : `whether what is on it may be lost is not decided (${contentTitle(s) || 'empty, as far as known'}); it comes out before the install`,
        where: 'at hand',
        count: 1,
      });
  return lines;
}

function partWords(bench: Bench, id: string, role: string): string {
  const item = bench.items.find((i) => i.id === id);
  if (item?.kind === 'drive')
    return [
      role === 'drive' ? 'goes into a free place' : '',
      item.m2
        ? `M.2 ${item.m2.length}, key ${item.m2.key}, ${item.transport}`
        : [item.shape, item.transport].filter(Boolean).join(', '),
    ]
      .filter(Boolean)
      .join(': ');
  if (item?.kind === 'memory') return `goes into a free slot: ${item.type} ${item.form}`;
  if (item?.kind === 'adapter') return `goes into the ${item.goesIn}`;
  return 'goes in';
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
  const opens = inside.length > 0;
  const lines = [...inside, ...writing(bench, box, machine, profile), ...ports(bench, machine, profile)];
  const add = (
    group: GatherLine['group'],
    key: string,
    what: string,
    why: string,
    where: Whereabouts = 'at hand',
  ): void => void lines.push({ key, group, what, why, where, count: 1 });
  if (opens) {
    const tools = TOOLS[machine.form];
    add(
      'Tools',
      'tools',
      tools.charAt(0).toUpperCase() + tools.slice(1),
      'the usual ones for its kind; the screw in hand decides',
    );
    add(
      'Tools',
      'tray',
      'A tray with places for the screws, and a camera',
      'screws by hole; photograph cables before pulling them',
    );
  }
  profile.drivers.forEach((d, i) =>
    add(
      'Drivers, in this order',
      `driver-${i}`,
      `${i + 1}. ${d}`,
      'fetched beforehand: there may be no network without it',
      'to fetch',
    ),
  );
  add(
    'Paper',
    'paper',
    'Pen and paper',
    profile.login === 'shipped default'
      ? 'a new password replaces the shipped one at once, and is written down'
      : 'every firmware setting before it is changed, and the password',
  );
  return { lines, safety: safetyNotes(bench, machine, opens) };
}

export const gatherHeadline = (list: GatherList, box: Box): string => {
  const open = list.lines.filter((l) => !box.gathered.includes(l.key));
  const buy = open.filter((l) => l.where === 'to buy').length;
  if (list.lines.length === 0) return 'What must lie on the bench?';
  if (open.length === 0) return 'Everything lies on the bench';
  return buy > 0
    ? `${open.length} things are still to gather, ${buy} of them to buy`
    : `${open.length} things are still to gather; nothing has to be bought`;
};
