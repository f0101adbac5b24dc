import { driverKind, type DriverKind } from '../system/drivers';
import type { KeyVerdict } from '../firststart/keys';
import type { FirstFault, FirstLine, FirstWhy } from '../firststart/line';
import type { Screen } from '../firststart/screen';
import type { FirstStart, NoFirst } from '../firststart/forBox';
import { formatSpan, type Span } from '../units/duration';
import { list, plural } from './text';

/** What a line asks to be done. */
export function firstLineTitle(line: Pick<FirstLine, 'code' | 'of' | 'why'>): string {
  switch (line.code) {
    case 'memory test':
      return 'Let the memory test run once';
    case 'first start':
      return 'Start it, and let it be';
    case 'rotation':
      return 'Turn the picture';
    case 'language':
      return 'Language';
    case 'zone':
      return 'Time zone';
    case 'keyboard':
      return 'Keyboard: press the keys';
    case 'set of software':
      return 'Minimal or full set';
    case 'way round the network':
      return 'Take the way round the network';
    case 'user':
      return 'A local user';
    case 'password':
      return 'A real password';
    case 'default password':
      return 'Replace the password it came with';
    case 'network':
      return 'Network';
    case 'channel':
      return 'Switch where updates come from';
    case 'channel, second place':
      return 'Switch it on in the second place too';
    case 'updates':
      return 'Update, restart, and again';
    case 'driver':
      return `Driver: ${line.of ?? ''}`;
    case 'sound output':
      return 'Sound output, by its name';
    case 'gamepads paired':
      return 'Pair the gamepads';
    case 'gamepads mapped':
      return 'Map every button once';
    case 'keyring':
      return 'Answer the wallet once';
    case 'shell':
      return 'Remote shell on';
    case 'screen sheet':
      return 'Look at the test sheet';
  }
}

/** Why a driver stands where it does among the others. Common practice, no source. */
const DRIVER_REASON: Record<DriverKind, string> = {
  chipset: 'First: the other devices hang on it.',
  network: 'Before the rest: what is missing is fetched over it.',
  graphics: 'The picture gets its size and its speed by it.',
  'card reader': 'A card is seen only with it.',
  bluetooth: 'Gamepads are paired by it.',
  'audio amplifier': 'Before the codec, which looks for it once.',
  'audio codec': 'After the amplifier: without one it stays silent.',
};
const driverReason = (name: string): string => {
  const kind = driverKind(name);
  return kind ? DRIVER_REASON[kind] : '';
};

/** Why, and where to find it. */
export function firstWhyWords(why: FirstWhy): string {
  switch (why.code) {
    case 'asked':
      return '';
    case 'old machine':
      return `The machine is of ${why.year}: its own memory test, from setup or the stick’s menu, before anything is trusted to it.`;
    case 'grows':
      return why.drive === null
        ? 'The first start is longer than all later ones.'
        : `The first start is longest: it grows onto “${why.drive}”. Do not switch it off.`;
    case 'upright panel':
      return 'The panel is upright: in the display settings, a quarter turn.';
    case 'network needed':
      return why.way === ''
        ? 'It insists on a network, and this machine has none yet. Nobody has said a way round: look for one beforehand.'
        : `It insists on a network, and this machine has none yet: ${why.way}`;
    case 'shipped default':
      return 'Everybody knows the one it came with. Before it joins a network; write the new one down.';
    case 'real password':
      return 'It is asked for at every visit. Write it down on paper or in a manager.';
    case 'serves':
      return 'Others reach it over the network. Never the one of another box; write it down.';
    case 'needs switching':
      return `New it takes updates from the ${why.from} channel; hobbyists take the ${why.to} one.${why.place === '' ? '' : ` In ${why.place}.`}`;
    case 'until nothing is offered':
      return `Usually ${why.rounds[0] === why.rounds[1] ? plural(why.rounds[0], 'round') : `${why.rounds[0]} to ${why.rounds[1]} rounds`}, with a restart after each, until nothing is offered.`;
    case 'driver from the stick':
      return `From the stick: there may be no network without it. ${driverReason(why.driver)}`.trim();
    case 'driver by the network':
      return `From the network, after the updates: they may bring it. ${driverReason(why.driver)}`.trim();
    case 'sound goes astray':
      return `“Automatic” takes the wrong one: choose it by name. There is ${list(why.outputs)}.`;
    case 'buttons do nothing':
      return 'A pad with the wrong driver is connected and does nothing: pair, every button once, sticks to all four ends.';
    case 'asked once':
      return 'It asks once for all; with no password of its own it never asks again.';
    case 'before the monitor goes':
      return 'Once the monitor is gone nobody gets in without it.';
    case 'look at it':
      return 'Edges, grey steps, left and right: what is cut off is overscan.';
  }
}

/** What is wrong with the list itself. */
export function firstFaultWords(fault: FirstFault, titleOf: (key: string) => string): string {
  return fault.code === 'circle'
    ? `These wait for each other, and none can begin: ${list(fault.keys.map(titleOf))}.`
    : `“${titleOf(fault.key)}” wants “${titleOf(fault.wants)}” first, and that is not in the list.`;
}

/** The list of a box, as a headline. */
export function firstHeadline(found: FirstStart | NoFirst, box: string): string {
  if ('code' in found)
    return found.code === 'no machine'
      ? `Which machine will ${box} start on?`
      : `Which system will ${box} start?`;
  const open = found.lines.filter((l) => !l.done && !l.left);
  const [next] = open;
  if (!next) return `${box} has been started, updated and set`;
  return open.length === found.lines.length
    ? `${plural(open.length, 'thing')} at the first start, in this order`
    : `Next: ${firstLineTitle(next).toLowerCase()}, ${open.length} left`;
}

/** Up to when a black screen is nothing, and what to do then. */
export const blackWords = (upTo: Span): string =>
  upTo.high === 0
    ? 'Its screen does not stay black. If it does: Enter once, then the entry with basic graphics.'
    : `Black for ${formatSpan(upTo)} is normal. After that press Enter once: a stuck line may only want that. Then hold the power button, and take the entry with basic graphics.`;

/** What updates stand at. */
export function roundsWords(
  rounds: readonly { offered: number | null }[],
  usual: readonly [number, number],
): string {
  const last = rounds.at(-1);
  if (!last) return `No round yet; usually ${usual[0]} to ${usual[1]}.`;
  return last.offered === 0
    ? `Nothing is offered any more, after ${plural(rounds.length, 'round')}.`
    : `${plural(rounds.length, 'round')} so far${last.offered === null ? '' : `, ${last.offered} in the last`}: restart, and once more.`;
}

/** What pressing the keys told. */
export function keyVerdictWords(verdict: KeyVerdict): string {
  switch (verdict.code) {
    case 'layout':
      return `These come out as on the ${verdict.layout} layout. A password typed here is the password.`;
    case 'other key':
      return `Another key was pressed than the one ${verdict.where}: begin again.`;
    case 'not known':
      return `These came out: ${verdict.keys.join(' ')}. Hold them against what is printed on the keys.`;
  }
}

/** What a display says of itself. */
export function screenWords({ edid }: Screen): string {
  if (!edid) return 'what it says of itself cannot be read';
  const { native, refreshHz, rates, portrait, audio } = edid;
  return [
    native ? `${native.width} × ${native.height}` : 'no mode of its own',
    ...(refreshHz === null ? [] : [`${refreshHz.toFixed(2)} Hz`]),
    ...(rates ? [`takes ${rates.least} to ${rates.most} Hz`] : []),
    ...(portrait ? ['upright: turn the picture'] : []),
    audio ? 'takes sound: choose it by name' : 'takes no sound: choose another output',
  ].join(', ');
}
