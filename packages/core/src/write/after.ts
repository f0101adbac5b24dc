import { knownFact } from '../model/known';
import { findImage, findMachine, findProfile, type Bench, type Box } from '../model/bench';
import type { InstallerEnds } from '../model/installer';
import { standingWrite } from '../plan/proof';
import { targetOf } from './target';
import { needsDock } from '../machine/dock';
import { factText } from '../machine/text';

/** When the installer's stick comes out: one answer for Write, Install, Firmware and run mode. */
export const STICK_OUT: Record<InstallerEnds, string> = {
  'asks for a restart': 'Take it out when the installer asks for the restart: not before, not after.',
  'restarts by itself': 'Take it out as soon as the screen goes black: the installer asks nobody.',
  'powers off': 'Take it out once the machine is off, before it is switched on again.',
};

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
      : STICK_OUT[profile?.manner.ends ?? 'asks for a restart'],
  );
  return steps;
}
