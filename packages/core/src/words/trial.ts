import type { Starts } from '../model/inspection';
import type { KeptTrial, Trial, TrialEnd, TrialFirmware, TrialHappened } from '../model/trial';
import { agrees } from '../starting/happened';
import { formatDuration } from '../units/duration';

const FIRMWARE: Record<TrialFirmware, string> = {
  bios: 'BIOS',
  'uefi-x64': 'UEFI',
  'uefi-x64-secure': 'UEFI, Secure Boot on',
};
/** Firmware of a trial. */
export const trialFirmwareWords = (f: TrialFirmware): string => FIRMWARE[f];
/** How an image is attached. */
export const attachedWords = (a: Trial['attached']): string =>
  a === 'disk' ? 'as a stick' : 'as optical media';
/** A trial by firmware and how it was attached. */
export const trialTitle = ({ firmware, attached }: Pick<Trial, 'firmware' | 'attached'>): string =>
  `${FIRMWARE[firmware]}, ${attachedWords(attached)}`;

const HAPPENED: Record<TrialHappened, string> = {
  'found nothing': 'firmware found nothing to start',
  refused: 'Secure Boot refused it',
  'gave up': 'it was started, and gave up',
  started: 'it started',
  silent: 'firmware handed over, and nothing was seen since',
  'not seen': 'firmware is still at work',
};
/** What a trial came to. */
export const happenedWords = (h: TrialHappened): string => HAPPENED[h];

/** What was foretold of it. */
export const foretoldTrialWords = (f: Starts | null): string =>
  f === null
    ? 'nothing was foretold'
    : f === 'yes'
      ? 'it starts'
      : f === 'no'
        ? 'it does not start'
        : 'cannot be told';

const ENDS: Record<TrialEnd, string> = {
  stopped: 'You ended it.',
  'page closed': 'Nobody looked any more.',
  'time is up': 'Its time was up.',
  'machine ended': 'The machine switched itself off.',
  'emulator failed': 'The emulator failed.',
  'file did not come': 'Its file did not come whole.',
  'wrote too much': 'It wrote more than a trial may, and was switched off. Your image is unchanged.',
  'no room left':
    'There was hardly any room left on this machine, so it was switched off. Your image is unchanged. Make room, then try again.',
};
/** Why a trial is over. */
export const trialEndWords = (e: TrialEnd): string => ENDS[e];

/** Whether what happened is what was foretold, as a word. */
export function agreesWords(foretold: Starts | null, what: TrialHappened): string {
  const is = agrees(foretold, what);
  return is === null ? 'nothing to compare' : is ? 'as foretold' : 'NOT as foretold';
}

/** The finding of a trial, of one that runs, or of none. */
export function trialHeadline(name: string, trial: Trial | null, foretold: Starts | null): string {
  if (!trial) return `What does ${name} really do when it is started?`;
  const { happened, state } = trial;
  if (state === 'waits for its file') return `${name} is on its way to the emulator`;
  if (state === 'unpacks') return `${name} is being unpacked`;
  if (happened === 'not seen')
    return state === 'over'
      ? `Nothing came of it in ${formatDuration(trial.seconds)}`
      : `${name} is being started`;
  const said = `${happenedWords(happened)}, ${agreesWords(foretold, happened)}`;
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/** Trials in which something else happened than was foretold, by the rules of then: each is a finding about our rules. */
export const disagreements = (trials: readonly KeptTrial[]): KeptTrial[] =>
  trials.filter((t) => agrees(t.foretold, t.happened) === false);
