import { heldWords } from './claim';
import type { RehearsalPlan } from '../model/rehearsal';
import { missesAim, type Aim, type Ending } from '../rehearsal/ending';
import type { NoRehearsal, RehearsalAssumption } from '../rehearsal/forBox';
import type { DriveLook, Frame, StartedHow, TakenBy } from '../rehearsal/frames';
import type { Precaution, PrecautionRisk } from '../rehearsal/precautions';
import { causeOf, type Cause } from '../rehearsal/cause';
import { wrongWorld, type Effect, type Rehearsal } from '../rehearsal/rehearse';
import type { SafeSet } from '../rehearsal/sets';
import type { RehearsalFault, Tally } from '../rehearsal/tally';
import type { Unknown } from '../rehearsal/varies';
import { causeWords } from './rehearsalCause';
import { capital, counted, list, plural, within } from './text';

/** Names of the drives of a plan by their ids. */
export type NameOf = (drive: string) => string;

/** The name of a drive in a plan; its id where it has none. */
export const namesIn =
  (plan: Pick<RehearsalPlan, 'drives'>): NameOf =>
  (id) =>
    plan.drives.find((d) => d.id === id)?.name || id;

/** So long a name is told in a narrow place; its end tells it from another. */
const LONG = 32;

/** Names for narrow places. */
export const shortNames =
  (nameOf: NameOf): NameOf =>
  (id) => {
    const name = nameOf(id);
    return name.length > LONG ? `${name.slice(0, LONG - 9)}…${name.slice(-8)}` : name;
  };

const quoted = (name: string): string => (name.startsWith('the ') ? name : `“${name}”`);

/** What cannot be known, as the list of what can vary says it. */
export const unknownWords: Record<Unknown, string> = {
  order: 'Order in which drives answer',
  'firmware order': 'Order the firmware tries',
  mode: 'Mode the machine is set to',
  'bios tries': 'BIOS tries every drive, or one',
  'secure boot': 'Secure Boot on or off',
  key: 'Menu key caught in time',
  entry: 'Line taken in the menu',
  read: 'List read before yes',
  pick: 'Look-alikes in the list',
  loader: 'Where the loader goes',
  stick: 'When the stick comes out',
  enrol: 'Key enrolled while the screen asks',
  'set back': 'Order set back afterwards',
  power: 'Power holds',
  forgets: 'Order forgets what was unplugged',
};

/** How a world ends, short. */
export const endingWords: Record<Ending, string> = {
  'right system starts': 'The right system starts',
  written: 'Written as meant',
  'installer starts again': 'The installer starts again',
  'another system starts': 'Another system starts',
  'nothing starts': 'Nothing starts',
  'nothing written': 'Nothing was written',
  'half written, again': 'Half written, can be repeated',
  'other drive erased': 'Wrong drive taken, nothing lost that matters',
  'half written, for good': 'Half written, a kept part with it',
  'kept start altered': 'What boots a kept system is overwritten',
  'kept drive erased': 'A drive to keep is erased',
};

/** A precaution as an order to oneself. */
export function precautionWords(p: Precaution, nameOf: NameOf): string {
  const drive = p.drive === null ? '' : quoted(nameOf(p.drive));
  switch (p.kind) {
    case 'away':
      return `Put ${drive} away`;
    case 'unplug':
      return `Unplug ${drive}`;
    case 'port off':
      return `Switch the port of ${drive} off in setup`;
    case 'copy':
      return `Copy ${drive} away first`;
    case 'label':
      return 'Label the target so that its name cannot be another’s';
    case 'serial':
      return 'Choose by serial, not by place';
    case 'read':
      return 'Read the list aloud before yes';
    case 'menu':
      return 'One-time menu, order untouched';
    case 'stick first':
      return 'Stick first in the order, no menu';
    case 'key':
      return 'Try the menu key once before';
    case 'target first':
      return 'Put the target first in the order at the end';
    case 'stick out':
      return 'Stay, and take the stick out at the restart';
    case 'mode':
      return 'Fix the boot mode in setup';
    case 'secure off':
      return 'Secure Boot off';
    case 'enrol':
      return 'Stay at the screen that asks for the key';
    case 'power':
      return 'Secure the power: battery or buffered socket';
  }
}

const RISK: Record<PrecautionRisk, string> = {
  'opens the machine': 'opens the machine',
  'the order may forget it': 'the boot order may forget it',
  'a copy has to be compared': 'compare the copy before you trust it',
  'a setting is changed': 'write the setting down first',
};

/** What a precaution costs. */
export const precautionCost = (p: Precaution): string =>
  [
    `${p.minutes} min`,
    ...(p.screws > 0 ? [plural(p.screws, 'screw')] : []),
    ...p.risks.map((r) => RISK[r]),
  ].join(' · ');

/** What a set of precautions costs. */
export const setCost = ({ ids, minutes, screws }: SafeSet): string =>
  ids.length === 0
    ? 'every scenario is safe already'
    : [`${minutes} min`, ...(screws > 0 ? [plural(screws, 'screw')] : [])].join(' · ');

/** What an aim is, in a line. */
export const aimWords: Record<Aim, string> = {
  'nothing lost': 'No scenario erases or harms what matters; some may have to be done again.',
  'right at once': 'The right system boots in every scenario, at the first go.',
};

const BY: Record<TakenBy, string> = {
  first: 'it answers first, and nobody is asked',
  largest: 'it is the largest, and nobody is asked',
  serial: 'chosen by its serial',
  read: 'chosen from the list by what it shows',
  label: 'chosen by its label',
  place: 'chosen by its place in the list',
  preselected: 'it was marked already, and yes was said unread',
};
const ENDS: Record<Ending, string> = {
  'right system starts': 'with everything in its place',
  written: 'and can be read back',
  'installer starts again': 'the stick is still tried first',
  'another system starts': 'what was there before, or on another drive',
  'nothing starts': 'nothing that was there before is harmed',
  'nothing written': 'begin again',
  'half written, again': 'begin again from the stick',
  'other drive erased': 'all that was on it is gone',
  'half written, for good': 'what was to stay was being moved',
  'kept start altered': 'what was on it does not start any more',
  'kept drive erased': 'all that was on it is gone',
};
const HOW: Record<StartedHow, string> = {
  menu: 'key caught, its line taken in the menu',
  'key missed': 'key missed, so the order decides',
  'dead line': 'the line of another part was taken, so the order decides',
  'line does not start': 'the line that was taken starts nothing, so the order decides',
  'stick first': 'the stick stands first in the order',
  'power back': 'when the power is back, the stick still in',
  restart: 'at the restart',
  later: 'at a later start',
};
const CUT = {
  'before the table': 'before anything is written',
  'while copying': 'while the system is copied',
  'before the loader': 'before the loader is written',
  'before the restart': 'before the restart',
} as const;

/** A frame of the reel: what happened, and what follows from it. */
export function frameWords(frame: Frame, nameOf: NameOf): { title: string; because: string } {
  const { title, because } = saidWords(frame, nameOf);
  return { title: capital(title), because };
}

function saidWords({ said }: Frame, nameOf: NameOf): { title: string; because: string } {
  const name = (id: string): string => quoted(nameOf(id));
  switch (said.code) {
    case 'ready':
      return {
        title: said.away.length === 0 ? 'Everything is in' : 'Ready to begin',
        because: said.away.length === 0 ? '' : `out: ${said.away.map(name).join(', ')}`,
      };
    case 'starts':
      return {
        title: `${nameOf(said.drive)} starts`,
        because: `${HOW[said.how]}, under ${said.mode === 'uefi' ? 'UEFI' : 'BIOS'}`,
      };
    case 'nothing starts':
      return { title: 'Nothing starts', because: `${HOW[said.how]}; no drive has anything to start` };
    case 'taken':
      return { title: `${nameOf(said.drive)} is taken`, because: BY[said.by] };
    case 'cut':
      return { title: 'The power fails', because: CUT[said.when] };
    case 'stick out too early':
      return { title: 'Stick out too early', because: 'the installer was not done' };
    case 'written':
      return {
        title: `${nameOf(said.drive)} is written`,
        because: said.whole ? 'all that was on it is gone' : 'beside what stays on it',
      };
    case 'loader':
      return {
        title: `Loader to ${nameOf(said.drive)}`,
        because: said.entry ? 'and it is first in the order now' : 'the order stays as it was',
      };
    case 'stick':
      return said.out
        ? { title: 'Stick out', because: 'at the restart' }
        : { title: 'Stick left in', because: 'at the restart' };
    case 'put back':
      return {
        title: 'Everything back in',
        because: said.drives.map(name).join(', ') + (said.forgotten ? '; the order has forgotten it' : ''),
      };
    case 'end':
      return { title: endingWords[said.ending], because: ENDS[said.ending] };
  }
}

const HARM: Record<string, string> = {
  erased: 'erased',
  altered: 'left without what boots it',
  'half written': 'left half written',
};

/** What heads the sheet: what can go wrong, and how. How many scenarios do is no odds, and is told under “why”. */
export function rehearsalHeadline({ tally, told }: Rehearsal, nameOf: NameOf): string {
  const { lost, again } = tally;
  const world = wrongWorld({ told });
  const cause = world && causeOf(world);
  const how = cause ? `: ${causeWords[cause]}` : '';
  if (lost > 0) {
    const look = world?.frames.at(-1)?.looks;
    const drive = look?.find((l) => ['erased', 'altered', 'half written'].includes(l.look))?.drive;
    const what = drive === undefined ? 'A drive to keep' : capital(quoted(nameOf(drive)));
    return `${what} can be ${HARM[look?.find((l) => l.drive === drive)?.look ?? ''] ?? 'lost'}${how}`;
  }
  if (again > 0) return `Nothing that matters is lost; it may have to be done again${how}`;
  return 'Every scenario ends right';
}

/** What a precaution changes, under an aim: what it rules out, else in which direction it works. */
export function effectWords({ rulesOut, lost, notRight }: Effect, aim: Aim): string {
  const out = rulesOut.filter((e) => missesAim(e, aim)).map((e) => within(endingWords[e]));
  if (out.length > 0) return `Rules out: ${list(out)}`;
  switch (aim === 'nothing lost' ? lost : notRight) {
    case 'fewer':
      return 'Fewer scenarios go wrong';
    case 'as many':
      return 'Changes nothing by itself';
    case 'more':
      return 'The installation gets further, so later steps can go wrong too';
  }
}

/** Why a plan was not rehearsed. */
export function rehearsalFaultWords(fault: RehearsalFault): string {
  switch (fault.code) {
    case 'too many worlds':
      return `this plan has about ${fault.worlds.toExponential(1)} scenarios, more than can be counted exactly; say what you know (the boot order, the mode, where drives sit) or leave drives out`;
    case 'too many runs':
      return `after ${counted(fault.runs)} runs ${((100 * fault.walked) / fault.worlds).toFixed(1)} % of the scenarios were walked; say what you know (the boot order, the mode, where drives sit) or leave drives out`;
    case 'stopped':
      return 'the rehearsal was stopped; nothing was changed';
  }
}

/** Why there is nothing to rehearse. */
export function noRehearsalWords(why: NoRehearsal): string {
  switch (why.code) {
    case 'no machine':
      return 'This box has no machine yet.';
    case 'no system':
      return 'This box has no system yet.';
    case 'no target':
      return 'Nobody has said which drive the system goes on.';
    case 'target is kept':
      return `“${why.drive}” is not marked as one that may be lost.`;
    case 'target is held':
      return heldWords(why.drive, why.claim);
    case 'too many drives':
      return `${why.drives} drives are within reach: more than are rehearsed at once.`;
    case 'starts by a board’s own loader':
      return 'The machine starts by a board’s own loader, which asks for no order.';
  }
}

/** What had to be taken for true. */
export function rehearsalAssumptionWords(a: RehearsalAssumption): string {
  switch (a.code) {
    case 'starts not known':
      return `What starts from “${a.drive}” is not known: something might, under either mode.`;
    case 'stick not written':
      return 'The stick is not written yet: one that looks like no other is taken.';
    case 'image not read':
      return 'The image was not read: it is taken to start in either mode, signed.';
    case 'beside the machine':
      return `“${a.drive}” is not in ${a.machine}: it is taken to hang on USB.`;
    case 'battery carries it':
      return 'The battery carries the machine through a power cut: its capacity was measured.';
    case 'battery not relied on':
      return a.why === 'weak'
        ? 'The battery is too weak to carry the machine through a power cut.'
        : 'The battery is not relied on, since nobody measured its capacity. Survey the machine, or enter its capacity.';
  }
}

/** What can be seen of a drive in a frame. */
export const lookWords: Record<DriveLook, string> = {
  away: 'not there',
  there: 'there',
  starts: 'starts',
  taken: 'taken',
  written: 'newly written',
  'half written': 'half written',
  erased: 'erased',
  altered: 'its start overwritten',
};

/** How a plan goes, in a sentence for a record: what can happen and how, then the scenarios counted as its ground. */
export function tallyWords({ worlds, lost, again, right }: Tally, cause: Cause | null): string {
  const how = cause ? `: ${causeWords[cause]}` : '';
  const says =
    lost > 0
      ? `Something that matters can be lost${how}.`
      : again > 0
        ? `Nothing that matters can be lost; it may have to be done again${how}.`
        : 'Every scenario ends right.';
  return `${says} Why: of ${plural(worlds, 'scenario')}, not equally likely, ${counted(right)} end right, ${counted(again)} are done again, ${counted(lost)} lose something.`;
}
