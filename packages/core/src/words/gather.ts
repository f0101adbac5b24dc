import { csvFile } from '../formats/writer/csv';
import type { Box, Machine } from '../model/bench';
import type { GatherLine, GatherThing, PartPlace } from '../gather/line';
import type { GatherList } from '../gather/list';
import type { SafetyNote } from '../gather/safety';
import type { ShoppingLine, ShoppingList } from '../gather/shopping';
import { formatBoth } from '../units/bytes';
import { purchaseWords } from './fit/repairs';
import { capital } from './text';

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

const SAFETY: Record<SafetyNote['key'], (n: SafetyNote) => string> = {
  cell: () =>
    'A lithium cell is inside: never pierce, bend or charge a swollen one; disconnect it before other work where it can be. Old cells go to battery recycling.',
  mains: () =>
    'The mains supply stays closed: its capacitors hold charge after the plug is out. Unplug before opening; anything behind the socket is for a licensed electrician under local code.',
  charger: () => 'Never work on an opened device while its charger is plugged in.',
  rack: () =>
    'Rack servers are heavy and rails are sharp: two people. Racks and fixed wiring follow local code.',
  button: () =>
    'A handheld can switch itself on when its button is pressed during the work; ribbon cables tear, so lay the cover beside it and never pull.',
  static: () =>
    'Touch bare metal of the case before touching boards and modules; one screw often stays in the cover, so keep the screws by hole.',
  data: ({ drives }) =>
    `Other people’s data may be on ${drives.map((d) => `“${d}”`).join(', ')}: ask, then erase before reuse.`,
};

/** What can hurt, and what to do about it. */
export const safetyWords = (note: SafetyNote): string => SAFETY[note.key](note);

const say = (what: string, why: string): { what: string; why: string } => ({ what, why });
const named = (what: string, name: string | null): string => (name === null ? what : `${what}: ${name}`);

function placeWords({ role, drive, memory, goesIn }: PartPlace): string {
  if (drive) {
    const shape = drive.m2
      ? `M.2 ${drive.m2.length}, key ${drive.m2.key}, ${drive.transport}`
      : [drive.shape, drive.transport].filter(Boolean).join(', ');
    return [role === 'drive' ? 'goes into a free place' : '', shape].filter(Boolean).join(': ');
  }
  if (memory) return `goes into a free slot: ${memory.type} ${memory.form}`;
  return goesIn === undefined ? 'goes in' : `goes into the ${goesIn}`;
}

/** What a thing is called on the list, and why it must lie there. */
export function thingWords(t: GatherThing): { what: string; why: string } {
  switch (t.code) {
    case 'stick':
      return say(
        named(`A stick of at least ${formatBoth(t.bytes)}`, t.named),
        `${t.image === null ? `for ${t.system}` : `${t.image} is to go on it`}; USB 3 saves minutes`,
      );
    case 'second stick':
      return say(
        named('A second stick', t.named),
        'for drivers and content, so that nothing is fetched over a network that may not work yet',
      );
    case 'chain stick':
      return say(`The stick that stays in: ${t.named}`, 'the firmware boots it, and it goes on to the drive');
    case 'card reader':
      return say('Card reader', `${t.system} is written straight to the card`);
    case 'drive adapter':
      return say(
        'USB adapter for the final drive',
        `${t.system} can be written straight to the drive; otherwise start a stick and copy from there`,
      );
    case 'dock':
      return say(
        t.named === null ? 'A dock that also takes power' : `Dock: ${t.named}`,
        'one USB port for stick, keyboard and charger',
      );
    case 'charger':
      return say('Its charger', 'an install must not end with the battery');
    case 'keyboard':
      return say(
        'Keyboard, on a wire',
        'for the setup keys and the first start; wireless ones wake too late',
      );
    case 'display':
      return say('Display and its cable', 'only until remote administration is on');
    case 'network wire':
      return say(
        t.count > 1 ? `${t.count} network wires` : 'Network wire',
        t.atInstall ? 'the installer needs the network' : 'what serves goes on a wire',
      );
    case 'part':
      return say(t.name, placeWords(t.place));
    case 'purchase':
      return say(
        capital(purchaseWords(t.purchase)),
        `for ${t.system} on ${t.machine}; no price is noted for it`,
      );
    case 'labelled bag':
      return say(
        `A labelled bag for “${t.drive}”`,
        t.kept
          ? `it holds ${t.holds || 'what must be kept'}, and comes out before the install`
          : `whether what is on it may be lost is not decided (${t.holds || 'empty, as far as known'}); it comes out before the install`,
      );
    case 'tools':
      return say(capital(TOOLS[t.form]), 'the usual ones for its kind; the screw in hand decides');
    case 'tray':
      return say(
        'A tray with places for the screws, and a camera',
        'screws by hole; photograph cables before pulling them',
      );
    case 'driver':
      return say(`${t.number}. ${t.name}`, 'fetched beforehand: there may be no network without it');
    case 'paper':
      return say(
        'Pen and paper',
        t.login === 'shipped default'
          ? 'a new password replaces the shipped one at once, and is written down'
          : 'every firmware setting before it is changed, and the password',
      );
  }
}

/** The finding at the head of the gather sheet. */
export function gatherHeadline(list: GatherList, box: Pick<Box, 'gathered'>): string {
  const open = list.lines.filter((l: GatherLine) => !box.gathered.includes(l.key));
  const buy = open.filter((l) => l.where === 'to buy').length;
  if (list.lines.length === 0) return 'What must lie on the bench?';
  if (open.length === 0) return 'Everything lies on the bench';
  return buy > 0
    ? `${open.length} things are still to gather, ${buy} of them to buy`
    : `${open.length} things are still to gather; nothing has to be bought`;
}

/** What a line of the shopping list is called. */
export const shoppingName = (l: ShoppingLine): string => l.name ?? thingWords(l.thing).what;

/** The shopping list as a file for a spreadsheet (RFC 4180). */
export const shoppingCsv = (list: ShoppingList): string =>
  csvFile(
    ['What', 'Count', 'Price', 'Together', 'For'],
    list.lines.map((l) => [
      shoppingName(l),
      l.count,
      l.price === null ? null : l.price.toFixed(2),
      l.price === null ? null : (l.price * l.count).toFixed(2),
      l.boxes.join('; '),
    ]),
  );
