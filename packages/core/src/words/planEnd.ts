import { stopTitle } from '../model/stops';
import type { Goal, GoalResult, Lack, WayOut } from '../box/goal';
import type { Plan, Unmet } from '../box/plan';
import { rungTitle, rungWords } from './ladder';
import { runStepWords } from './runsheet/step';
import { plural } from './text';

/** A goal of a plan, as what is true once it is reached. */
export function goalWords(goal: Goal): string {
  switch (goal.code) {
    case 'has a machine and a system':
      return `${goal.box} has a machine and a system.`;
    case 'boots its system':
      return `${goal.machine} boots ${goal.system} at every later start.`;
    case 'kept drive untouched':
      return `“${goal.drive}” keeps what is on it.`;
    case 'back in its place':
      return `“${goal.item}” is back in ${goal.machine}.`;
    case 'boots after a power cut':
      return `${goal.machine} boots by itself after a power cut.`;
    case 'has an address':
      return `${goal.box} keeps its address.`;
    case 'shipped password replaced':
      return `The password that ${goal.system} ships with is replaced.`;
    case 'answers at its address':
      return `${goal.host} answers at ${goal.address}.`;
    case 'folder is shared':
      return `The folder “${goal.folder}” is shared.`;
    case 'rules are in force':
      return `The rules of ${goal.box} are in force.`;
    case 'guest starts by itself':
      return `“${goal.guest}” starts by itself.`;
  }
}

/** Why a goal is not reached. */
export function lackWords(lack: Lack): string {
  switch (lack.code) {
    case 'no machine':
      return 'No machine is chosen.';
    case 'no system':
      return 'No system is chosen.';
    case 'system drive not decided':
      return 'Nobody has decided which drive takes the system.';
    case 'system not installed':
      return `No step puts the system on “${lack.drive}”.`;
    case 'system drive outside':
      return `No step puts “${lack.drive}” into ${lack.machine}.`;
    case 'boot not told':
      return `It cannot be told at “${rungTitle(lack.rung.entry)}”: ${rungWords(lack.rung.why)}.`;
    case 'another boots':
      return `${rungTitle(lack.rung.entry)} boots instead: ${rungWords(lack.rung.why)}.`;
    case 'nothing boots': {
      const [first] = lack.rungs;
      return first ? `Nothing boots. ${rungTitle(first.entry)}: ${rungWords(first.why)}.` : 'Nothing boots.';
    }
    case 'a step erases it':
      return 'A step of the plan erases it.';
    case 'no step puts it back':
      return 'No step puts it back.';
    case 'stays off after a power cut':
      return lack.now === null
        ? 'What its firmware does after a power cut is not known.'
        : `Its firmware is set to “${lack.now}” after a power cut.`;
    case 'no address':
      return 'It has no address yet.';
    case 'address may change':
      return 'Its address is a lease that may change.';
    case 'no step sets a password':
      return 'No step sets a password of your own.';
    case 'its step is not done':
      return 'Its step was skipped, or nobody recorded it.';
  }
}

const TAKE: Record<string, string> = {
  'target first': 'Put its drive first in the boot order',
  'secure off': 'Turn Secure Boot off',
  enrol: 'Enrol its key',
};

/** What the control that leads out of it says. */
export function wayOutWords({ stage, act }: WayOut): string {
  if (act.code === 'take') return TAKE[act.precaution] ?? `Add it at ${stopTitle[stage]}`;
  return act.code === 'do' ? 'Show the step' : `Decide it at ${stopTitle[stage]}`;
}

/** Why a step cannot be done when it comes. */
export function unmetWords({ must: { code, of } }: Pick<Unmet, 'must'>): string {
  const named = (other: string): string => (of === '' ? other : `“${of}”`);
  switch (code) {
    case 'medium is chosen':
      return `Nobody has chosen ${of}.`;
    case 'stick is not the system drive':
      return `The system is to be installed on ${named('the drive')} itself: the installer needs a medium of its own.`;
    case 'way is decided':
      return `Nobody has decided how the system reaches ${named('its drive')}: by a stick, or in an adapter.`;
    case 'adapter is at hand':
      return `No adapter on the shelf puts ${named('the drive')} on USB.`;
    case 'another system runs':
      return `No other system boots on the machine, so none can write ${named('the drive')} in place.`;
    case 'drive may be lost':
      return `${named('The drive')} is to be kept, or nobody has decided.`;
    case 'sum agrees':
      return 'The image is not the one that was published.';
    case 'stick is proven':
      return `${named('The stick')} was not read back and proven.`;
    case 'image fits':
      return `The image does not fit on ${named('the medium')}.`;
    case 'drive is in the machine':
      return `${named('The drive')} is not in the machine then.`;
    case 'stick starts':
      return `${of} does not boot from the stick then.`;
    case 'address is settled':
      return `${of} has no address yet, and the installer asks for it.`;
    case 'drives have serials':
      return `A drive of the pool cannot be told by its serial: ${of}.`;
    case 'machine is off':
      return `${of} is not off.`;
  }
}

/** The same with the step that it stops, by its title. */
export function unmetLine({ sheet }: Pick<Plan, 'sheet'>, unmet: Unmet): string {
  const step = sheet.steps.find((s) => s.key === unmet.key);
  return `${step ? runStepWords(step.what).title : unmet.key}. ${unmetWords(unmet)}`;
}

/** What stands over a plan. */
export function planHeadline({ reaches, goals, unmet, sheet }: Plan): string {
  if (sheet.steps.length === 0) return 'There is no plan yet.';
  if (reaches === true) return sheet.next ? 'The plan reaches its end.' : 'The plan has reached its end.';
  if (reaches === null) return 'Whether the plan reaches its end cannot be told yet.';
  const lacks = unmet.length + goals.filter((g) => g.holds === false).length;
  return `The plan does not reach its end: ${plural(lacks, 'thing')} ${lacks === 1 ? 'is' : 'are'} lacking.`;
}

/** A goal with what is lacking of it, in one text. */
export const goalResultWords = ({ goal, lack }: GoalResult): string =>
  lack ? `${goalWords(goal)} ${lackWords(lack)}` : goalWords(goal);
