import { firmwareTitle } from '../model/inspection';
import type { BootLadder } from '../starting/ladder';
import type { LadderAssumption, Rung, RungEntry, RungRemedy, RungWhy } from '../starting/rung';
import { startReasonWords, startWords } from './start';

/** An entry of the ladder by name. */
export function rungTitle(entry: RungEntry): string {
  switch (entry.kind) {
    case 'drive':
      return `Internal drive “${entry.name}”`;
    case 'boot entry':
      return `Entry ${entry.id} “${entry.label}”`;
    case 'new system':
      return `${entry.name} on “${entry.drive}”${entry.by === 'entry' ? ', by its own entry' : ''}`;
    case 'no drive':
      return 'Internal drive';
    case 'stick':
      return `Stick${entry.tail === null ? '' : ` …${entry.tail}`}, by the ${entry.by === 'menu' ? 'one-time menu' : 'boot order'}`;
    case 'optical':
      return 'Optical drive';
    case 'network':
      return 'Network';
  }
}

/** Why a rung is what it is. */
export function rungWords(why: RungWhy): string {
  switch (why.code) {
    case 'content not known':
      return 'what is on it is not known';
    case 'stick holds another image':
      return why.image === null
        ? 'what lies on the stick now is not known: something else was written to it'
        : `the stick holds ${why.image} now, not the image of this box`;
    case 'start not known':
      return `whether something on it starts is not known: ${why.holds}`;
    case 'empty':
      return 'it is empty';
    case 'starts another way':
      return `“${why.title}” on it starts by ${firmwareTitle[why.firmware]} alone`;
    case 'nothing that starts':
      return `it holds ${why.holds}, nothing that starts`;
    case 'starts from it':
      return `${why.title} starts from it`;
    case 'entry switched off':
      return 'the entry is switched off';
    case 'its drive is not there':
      return 'the drive it names is not in the machine';
    case 'several drives answer':
      return `${why.drives.map((d) => `“${d}”`).join(' and ')} answer to what it names, as copies do: which is found first is not known`;
    case 'by an entry outside the order':
      return `“${why.title}” on it starts by an entry that is not in the boot order; whether it starts without is not known`;
    case 'firmware does not start from it':
      return `this firmware does not start from ${why.bus}`;
    case 'just installed':
      return why.by === 'entry'
        ? 'the installer has put its entry before all others'
        : 'its drive has this place in the order';
    case 'through the chain loader':
      return `the chain loader on “${why.stick}” goes on to it after ${why.seconds} s${why.seconds === 0 ? ', and its menu is never shown' : ''}`;
    case 'key to be enrolled':
      return 'before it starts, a screen asks for its key to be enrolled, and goes away by itself after seconds';
    case 'new system not signed':
      return 'Secure Boot is on, and this system is not signed';
    case 'installer again':
      return 'the stick is still in, and the installer begins again';
    case 'BIOS tried the first disk':
      return 'this BIOS tries the first disk alone';
    case 'no drive known':
      return 'no drive is known in the machine';
    case 'no stick written':
      return 'no stick has been written for this box';
    case 'write failed':
      return `the last write failed: ${why.explanation}`;
    case 'firmware not known':
      return 'the machine’s boot mode or architecture is not known';
    case 'image not read':
      return 'the image has not been read';
    case 'Secure Boot refuses':
      return `Secure Boot is on and ${startWords(why.why)}`;
    case 'image':
      return `${why.firmware ? `${firmwareTitle[why.firmware]}: ` : ''}${startWords(why.why)}`;
    case 'another has started':
      return `${rungTitle(why.entry)} has started`;
    case 'not foretold above':
      return 'the rung above cannot be foretold';
    case 'no disc in it':
      return 'no disc is in it';
    case 'nobody answers':
      return 'nothing on the network answers';
  }
}

const REMEDIES: Record<RungRemedy, string> = {
  'say what is on it': 'Read the survey again, or say it on the drive’s sheet.',
  'write a stick': 'Write one at stop 5.',
  'write again': 'Write again at stop 5.',
  'enter the boot mode': 'Enter the boot mode.',
  'open the image': 'Open it at stop 4.',
  'Secure Boot off': 'Turn Secure Boot off in setup.',
  'chain loader': 'Start it by a chain loader on a stick that stays in.',
  'enrol the key':
    'Stay at the screen: choose to enrol, confirm, and give the password set while installing.',
  'stick out': 'Take the stick out at the restart: not before, not after.',
  'target first': 'Put this drive first in the order, in setup.',
};

/** What would change a rung; undefined where nothing is named. */
export const rungRemedy = (rung: Rung): string | undefined =>
  rung.remedy === null ? undefined : REMEDIES[rung.remedy];

/** What had to be assumed, as a sentence. */
export function assumptionWords(a: LadderAssumption): string {
  switch (a.code) {
    case 'internal before USB':
      return 'The boot order is not known; internal drive before USB is assumed.';
    case 'next start still to come':
      return 'An entry is set for the next start alone (BootNext); that the machine has not started since the survey is assumed.';
    case 'menu key not known':
      return 'The one-time menu key is not known yet.';
    case 'signature trusted':
      return `Secure Boot is on, and the loader is ${startReasonWords(a.reason)}; that it does is assumed.`;
    case 'Secure Boot off':
      return 'Secure Boot is not known; off is assumed.';
    case 'BIOS tries every drive':
      return 'That BIOS goes on to the next drive when the first does not start is assumed; some try the first alone.';
    case 'key enrolled in time':
      return 'That its key is enrolled while the screen asks for it is assumed.';
    case 'target not chosen':
      return 'Which drive takes the system is not said yet: say it at Install.';
    case 'starts as the machine does':
      return `That “${a.title}” on “${a.drive}” starts the way this machine does is assumed.`;
  }
}

const WHEN = {
  now: 'next',
  'first restart': 'at the first restart',
  'every later start': 'ever after',
} as const;

function laterHeadline({ machine, decides, result, moment }: BootLadder): string {
  const when = WHEN[moment];
  switch (result) {
    case 'the new system starts':
      return `${machine} will start ${decides?.entry.kind === 'new system' ? decides.entry.name : 'the new system'} ${when}`;
    case 'the stick starts':
      return `${machine} will start the installer again ${when}`;
    case 'something else starts':
      return `${machine} will start ${decides ? rungTitle(decides.entry) : 'something else'} ${when}, not the new system`;
    case 'cannot say':
      return `What ${machine} does ${when} cannot be said: ${decides ? rungWords(decides.why) : ''}`;
    case 'nothing starts':
      return `${machine} will find nothing to start ${when}`;
  }
}

/** The finding at the head of the firmware sheet: what the next start does. */
export function ladderHeadline(ladder: BootLadder): string {
  const { machine, decides, moment } = ladder;
  if (moment !== 'now') return laterHeadline(ladder);
  if (ladder.result === 'the stick starts') return `${machine} will start ${ladder.image ?? 'the stick'}`;
  if (ladder.result === 'cannot say')
    return `What ${machine} does next cannot be said yet: ${decides ? rungWords(decides.why) : ''}`;
  const stick = ladder.rungs.find((r) => r.entry.kind === 'stick');
  const why =
    stick?.state === 'not reached' ? 'the internal drive comes first' : stick ? rungWords(stick.why) : '';
  return ladder.result === 'something else starts'
    ? `${machine} will not start the stick: ${why}`
    : `${machine} will find nothing to start: ${why}`;
}
