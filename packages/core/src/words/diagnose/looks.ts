import type { LookCode, Moment, Symptom } from '../../diagnose/codes';
import type { Ground } from '../../diagnose/forBox';
import { factDefinition } from '../../model/facts';
import { factText } from '../../machine/text';
import { plural } from '../text';

const SYMPTOMS: Record<Symptom, string> = {
  'old system': 'The old system starts, or another one',
  'nothing starts': 'It says that there is nothing to start',
  'black screen': 'The screen stays black',
  refused: 'It refuses: a signature, a violation, a policy',
  'stick not in the menu': 'The stick is not in the menu',
  'installer again': 'The installer is there again',
  'a prompt': 'A prompt, where none should be',
  'no drive in the list': 'The drive is not in the list',
  'another drive is taken': 'Another drive is named than the one meant',
  'stops in the middle': 'It stops in the middle',
  'no network': 'There is no network',
  'wrong picture': 'The picture is wrong: turned, cut off or coarse',
  'no sound': 'There is no sound',
  'pad does nothing': 'The gamepad does nothing',
  'password refused': 'The password is refused',
  'does not answer': 'It does not answer over the network',
  'page does not open': 'Its page does not open',
};
/** What is seen, in words. */
export const symptomWords = (s: Symptom): string => SYMPTOMS[s];

const MOMENTS: Record<Moment, string> = {
  'starting the stick': 'while the stick is started',
  installing: 'at the installer',
  'at the restart': 'at the restart',
  'first start': 'at the first start',
  'in use': 'in use',
};
/** When it is seen, in words. */
export const momentWords = (m: Moment): string => MOMENTS[m];

const LOOKS: Record<LookCode, string> = {
  menu: 'Open the one-time menu: is the stick in it?',
  'tap again': 'Off and on, and tap the key from the first moment: does the menu come?',
  'take its line': 'Take the stick’s line in the menu: what happens?',
  'the other mode': 'Set the other boot mode once, and start the stick: what happens?',
  'another port': 'Put the stick into another port, on the board itself: is it better?',
  'another machine': 'Start the stick in another machine: does it start?',
  'built for': 'Look at Verify: what is the image built for?',
  message: 'What does the screen say, if only for a moment?',
  'secure boot': 'Look in setup: how does Secure Boot read?',
  'boot mode': 'Look in setup: how does the boot mode read?',
  'first in the order': 'Look in setup: what stands first in the order?',
  'stick still in': 'Is the stick still in?',
  'read it back': 'Read the stick back at the writing machine: what does it say?',
  'another cable': 'Put the screen on the other output, or take its other input: is there a picture?',
  'caps lock': 'Press Caps Lock: does its light change?',
  'basic graphics': 'Start again with the entry for basic graphics: what is there?',
  'memory test': 'Let the memory test run once: what does it say?',
  'wait and Enter': 'Wait five minutes, then press Enter once: what happens?',
  'drive in setup': 'Look in setup: is the drive listed?',
  'controller mode': 'Look in setup: how does the mode of the storage controller read?',
  'order of the list': 'Look at the installer’s list: where does your drive stand?',
  'how it was chosen': 'How was the drive chosen?',
  'last line': 'Read the last line on its screens (Alt F2): what failed?',
  'where it was installed': 'Start the stick, and look at the drives: where is the new system?',
  'mode of the installation': 'In which mode was the stick started when it was installed?',
  'light at the socket': 'Is the light at the network socket on?',
  'card listed': 'Type ip link: is the network card listed?',
  'its own address': 'Read its address at its own screen: which is it?',
  'who answers there': 'Ask its address from another machine: who answers?',
  'by number and by name': 'Ping an outside address by number, then by name: which go?',
  'typed where it can be seen': 'Type the password where it can be seen: how does it come out?',
  'output by its name': 'Choose the output by its name, and play something: what is heard?',
  'light of the pad': 'Look at the light of the pad: how is it?',
  'picture sheet': 'Open the test sheet of First start: what is wrong with it?',
  'https and port': 'Open the page with https and its port, as Network writes it: does it open?',
  'from its own keyboard': 'Go to it, with a keyboard and a screen: what does it show?',
};
/** What to look at, as a question. */
export const lookWords = (l: LookCode): string => LOOKS[l];

/** Why a cause weighs as it does on this box. */
export function groundWords(g: Ground): string {
  switch (g.code) {
    case 'worlds':
      return `the rehearsal has ${plural(g.worlds, 'scenario')} of it`;
    case 'cannot happen in this plan':
      return 'by the rehearsal it would not show in this plan';
    case 'precaution taken':
      return 'a precaution against it was taken';
    case 'fact':
      return `${factDefinition(g.fact).label}: ${factText(g.fact, g.value)}, which makes it ${g.makes}`;
    case 'stick proven':
      return 'the stick was read back and proven';
    case 'stick not proven':
      return 'the last write failed';
    case 'image refused':
      return 'by the image’s own bytes Secure Boot refuses it here';
    case 'image does not start':
      return 'by the image’s own bytes it does not start on this firmware';
    case 'image not as published':
      return 'the image is not what was published';
    case 'older than the release':
      return 'the machine is older than the release knows';
    case 'newer than the release':
      return 'the machine is newer than the release knows';
    case 'starts by the order':
      return 'the stick is started by the order';
  }
}
