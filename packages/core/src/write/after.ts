import { knownFact } from '../model/known';
import { findImage, findMachine, findProfile, type Bench, type Box } from '../model/bench';
import { standingWrite } from '../plan/proof';
import { targetOf } from './target';
import { needsDock } from '../machine/dock';
import { factText } from '../machine/text';

/** One key by its name, or keys held together; not a way in several steps. */
const isOneKey = (text: string): boolean => /^[A-Za-z0-9]+( ?\+ ?[A-Za-z0-9]+)*$/.test(text.trim());

/**
 * What to do with a stick that holds the proven image, in order; empty where none does. Common practice, no source: the
 * one-time menu is preferred because nothing has to be changed back.
 */
export function afterWrite(bench: Bench, box: Box): string[] {
  const image = findImage(bench, box.imageId);
  const machine = findMachine(bench, box.machineId);
  const written = standingWrite(bench, box);
  if (!image || written?.result !== 'proven' || written.imageId !== image.id) return [];
  const target = targetOf(bench, box);
  const profile = findProfile(bench, box.profileId);
  // The system itself was written to it: it is what the machine runs from.
  const straight = profile?.installer === 'written straight to the final drive';
  if (target?.kind === 'card' || (target?.kind === 'drive' && straight)) {
    const what = target.kind;
    return machine
      ? [
          `Put the ${what} into ${machine.name}, and power on.`,
          `It stays in: ${machine.name} runs from it. Its first start is longer than all later ones.`,
        ]
      : [`Label the ${what} “${image.name}”, and keep it by until the box has a machine.`];
  }
  const steps = [`Label the stick “${image.name}”, so that it is not taken for an empty one.`];
  if (!machine) return [...steps, 'Keep it by until the box has a machine.'];
  const dock = needsDock(machine) ? ', through the dock' : '';
  steps.push(`Plug it into ${machine.name}${dock}, and power on.`);
  const key = (name: 'firmware.menuKey' | 'firmware.setupKey'): string => {
    const known = knownFact(machine, name);
    if (!known) return 'Its key is not known yet: enter it at Firmware.';
    const text = factText(name, known.value);
    // A person may have noted one key, or what to hold and in which order: both read as what they are.
    return isOneKey(text) ? `Tap ${text} again and again from power-on.` : `This machine’s way: ${text}.`;
  };
  steps.push(
    box.startBy === 'menu'
      ? `Bring up the one-time menu, and pick the stick. ${key('firmware.menuKey')}`
      : `Open setup, put USB first in the order, and put it back afterwards. ${key('firmware.setupKey')}`,
  );
  steps.push(
    straight
      ? `It stays in: this system has no installer, and ${machine.name} runs from what was written.`
      : 'Take it out when the installer asks for a restart: not before, not after.',
  );
  return steps;
}
