import { heldWords } from './claim';
import type { Hazard, HazardCode } from '../box/hazard';
import { formatIec } from '../units/bytes';
import type { Cause } from '../rehearsal/cause';
import { causeWords } from './rehearsalCause';
import { findingWords } from './fit/finding';
import { imageFaultWords } from './imageFinding';
import { moveFaultWords } from './moving';
import { networkFaultWords } from './network';
import { guestFaultWords } from './guestFault';
import { tuneFaultWords } from './tuneFault';
import { gateFaultWords } from './gateFault';
import { shareFaultWords } from './sharing';
import { startWords } from './start';
import { copyFaultWords, poolFaultWords } from './poolFault';

type Params = Readonly<Record<string, string>>;

const TAKES: Record<string, string> = {
  unasked: 'takes the first drive without asking',
  preselected: 'comes with the first drive selected',
};

const CHANGED: Record<string, string> = {
  'secure boot': 'Secure Boot is switched',
  mode: 'the boot mode is switched',
  both: 'Secure Boot and the boot mode are switched',
};

/** How it can happen, where that is known. */
const happens = ({ cause = '' }: Params): string =>
  Object.hasOwn(causeWords, cause) ? `: ${causeWords[cause as Cause]}` : '';

const WORDS: Record<HazardCode, (p: Params) => string> = {
  'does not fit': (p) => `${p.system} does not fit ${p.machine}. ${p.because}`,
  'wants a change': (p) => `${p.because} ${p.repair}`.trim(),
  'fact open': (p) => `${p.because} ${p.system} depends on it.`,
  'drive not decided': (p) =>
    `Whether what is on “${p.drive}” in ${p.machine} may be lost is not decided: ${p.holds || 'empty, as far as known'}. Decide it, or take the drive out.`,
  'system drive suggested': (p) =>
    `Nobody has chosen the drive for the system. “${p.drive}” is suggested: choose it, or another.`,
  'installer takes a kept drive': (p) =>
    `The installer ${TAKES[p.way ?? ''] ?? ''}, and “${p.drive}” in ${p.machine} holds ${p.holds || 'what must be kept'}. Take it out first.`,
  'installer takes the first drive': (p) =>
    `The installer ${TAKES[p.way ?? ''] ?? ''}. Only the drive that may be lost should be in the machine.`,
  'kept drive inside': (p) => `“${p.drive}” in ${p.machine} holds ${p.holds || 'what must be kept'}.`,
  'rehearsal loses a drive': (p) =>
    `What is on “${p.drive}” can be lost${p.holds ? ` (${p.holds})` : ''}${happens(p)}. Rehearse the plan and take a precaution.`,
  'rehearsal to be done again': (p) =>
    `Nothing that matters is lost, but it may have to be done again${happens(p)}.`,
  'not rehearsed': () =>
    'The plan has more scenarios than are counted by the way. Open its rehearsal before you begin.',
  'not what was published': (p) =>
    `${p.image} is not the file that was published. Fetch it again; nothing has been written.`,
  'not compared': (p) => `${p.image} has not been compared with a published checksum.`,
  'read by earlier rules': (p) =>
    `What ${p.image} starts on was judged by earlier rules. Open the file again: its bytes are needed to say it anew.`,
  'stick is the system drive': (p) =>
    `The installer is to be written to “${p.drive}”, and the system is to be installed on it as well. Choose another medium for one of them.`,
  packed: (p) =>
    `${p.image} is packed as ${p.kind}. The stand-in writer unpacks it; another writer may not, and then nothing starts.`,
  'found in the image': (p) => p.because ?? '',
  'Secure Boot refuses': (p) =>
    `${p.machine} has Secure Boot on and will refuse this image: ${p.because}. Turn it off at stop 6.`,
  'Secure Boot not known': (p) =>
    `Whether ${p.machine} has Secure Boot on is not known, and it decides: ${p.because}. Look at the setup screen.`,
  'support ended': (p) =>
    `Support for ${p.system} ${p.version} ended on ${p.day}: what is found wrong with it is not mended any more.`,
  'stays off after a cut': (p) =>
    `${p.machine} stays off when power comes back after a cut, and ${p.system} is to serve for years: set it to come on again in setup.`,
  'halts without a keyboard': (p) =>
    `${p.machine} halts at power-on without a keyboard or display, and ${p.system} is to run without them: set it to halt on nothing in setup.`,
  'may not start from USB': (p) =>
    `${p.machine} is of ${p.year}: firmware of that age may not start from USB. Look at the setup screen, or have a disc or another way ready.`,
  'does not start': (p) =>
    `${p.machine} starts by ${p.firmware}, and from a stick this image does not: ${p.because}.`,
  'for another processor': (p) =>
    `${p.image} is built for ${p.built}, and ${p.system} ${p.version} was chosen for ${p.wants}. Fetch the one for ${p.wants}.`,
  'of another release': (p) =>
    `${p.image} says it is ${p.says}; chosen for this box is ${p.system} ${p.version}.`,
  'of another variant': (p) =>
    `${p.image} says it is the variant “${p.says}”; chosen for this box is “${p.variant}” of ${p.system}.`,
  'calls itself otherwise': (p) => `${p.image} calls itself “${p.says}”. Is that ${p.system}?`,
  'small for its system': (p) =>
    `${p.image} holds ${formatIec(Number(p.bytes))}, very little for ${p.system}, which wants a drive of ${formatIec(Number(p.wants))}. Is it all of it?`,
  'system not all said': (p) =>
    `Of ${p.system} ${p.count} values are guesses: nothing in its image tells them. Say them before its fit is believed.`,
  'start not told': (p) =>
    `Whether ${p.machine} starts this image cannot be told from its bytes: ${p.because}.`,
  'trust assumed': (p) =>
    `${p.machine} has Secure Boot on; this image starts if its firmware trusts the key: ${p.because}.`,
  'write failed': (p) => `Stick …${p.tail} failed its comparison. Do not start from it.`,
  'upright panel': () => 'The panel is upright. Expect a sideways first screen.',
  network: (p) => p.because ?? '',
  'default password stands': (p) =>
    `${p.system} comes with a password everybody knows, and others reach it: replace it before it joins the network.`,
  'password not written down': (p) => `Where the password of ${p.box} is written down, nobody has said.`,
  'insists on a network': (p) =>
    `${p.system} insists on a network at its first start, and ${p.machine} has none without its driver: know the way round beforehand.`,
  'network driver not fetched': (p) =>
    `${p.machine} has no network before its driver is in, and nothing of it is on a stick yet.`,
  'drivers do not fit': (p) => `The drivers are ${formatIec(Number(p.bytes))}: too much for “${p.stick}”.`,
  'driver differs': (p) =>
    `“${p.file}” is not the file its list names. Fetch it again; nothing was installed.`,
  'certificate ends': (p) =>
    Number(p.days) < 0
      ? `The certificate of its page ended on ${p.day}: browsers refuse it. Renew it, and note the new fingerprint.`
      : `The certificate of its page ends on ${p.day}, in ${p.days} days.`,
  'default user over the network': (p) =>
    `${p.system} comes with a user and password everybody knows, and its remote shell is on: take that user away, or shut the shell.`,
  'controller hides drives': (p) =>
    `The storage controller of ${p.machine} is in RAID mode: an installer without its driver sees no drive behind it. Write the setting down, then switch it to AHCI. A system that was installed in RAID mode does not boot after the switch.`,
  'recovery key': (p) =>
    `If the system on “${p.drive}” is encrypted with the machine’s security chip (TPM), it asks for its recovery key after ${CHANGED[p.what ?? ''] ?? 'the change'}. Have the recovery key at hand before you change it.`,
  'one USB port': (p) => `${p.machine} has one USB port: the stick and the charger need a dock.`,
  pool: (p) => p.because ?? '',
  copies: (p) => p.because ?? '',
  sharing: (p) => p.because ?? '',
  moving: (p) => p.because ?? '',
  rules: (p) => p.because ?? '',
  guests: (p) => p.because ?? '',
  tuning: (p) => p.because ?? '',
  'copy would stop': (p) =>
    `In “${p.folder}” ${p.open} kinds of trouble would stop the copy, and nothing was decided about them.`,
  'too much to carry': (p) =>
    `“${p.folder}” has ${formatIec(Number(p.bytes))}, and the pool ${formatIec(Number(p.room))}.`,
  'held by another box': (p) =>
    heldWords(p.item ?? '', { as: p.as === 'in use' ? 'in use' : 'reserved', boxName: p.box ?? '' }),
  'stick holds another image': (p) =>
    p.image
      ? `“${p.stick}” now holds ${p.image}${p.box ? `, written for the box “${p.box}”` : ''}. Write the image of this box again, or select another stick.`
      : `“${p.stick}” was written to again, and what it holds is not known. Write the image of this box again.`,
  'stick lies': (p) =>
    `“${p.stick}” claims ${formatIec(Number(p.claims))} and really holds about ${formatIec(Number(p.holds))}. Take another stick.`,
};

/** The words of the judgement a hazard passes on. */
function originWords(from: Hazard['from']): Params {
  if (!from) return {};
  if ('start' in from) return { because: startWords(from.start) };
  if ('network' in from) return { because: networkFaultWords(from.network.fault, from.network) };
  if ('pool' in from) return { because: poolFaultWords(from.pool) };
  if ('moving' in from) return { because: moveFaultWords(from.moving) };
  if ('tuning' in from) return { because: tuneFaultWords(from.tuning) };
  if ('guests' in from) return { because: guestFaultWords(from.guests) };
  if ('rules' in from) return { because: gateFaultWords(from.rules) };
  if ('sharing' in from) return { because: shareFaultWords(from.sharing) };
  if ('copies' in from) return { because: copyFaultWords(from.copies) };
  if ('fault' in from) return { because: imageFaultWords(from.fault) };
  const { because, repair } = findingWords(from.finding);
  return { because, repair };
}

/** What a hazard means, in a sentence. */
export const hazardWords = (h: Pick<Hazard, 'code' | 'params' | 'from'>): string =>
  WORDS[h.code]({
    ...Object.fromEntries(Object.entries(h.params).map(([k, v]) => [k, String(v)])),
    ...originWords(h.from),
  });
