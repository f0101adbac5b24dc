import { knownFact } from '../model/known';
import { findImage, findMachine, type Bench, type Box } from '../model/bench';
import { factText } from '../machine/text';

/**
 * What to do with a stick that holds the proven image, in order; empty where none does. Common practice, no source: the
 * one-time menu is preferred because nothing has to be changed back.
 */
export function afterWrite(bench: Bench, box: Box): string[] {
  const image = findImage(bench, box.imageId);
  const machine = findMachine(bench, box.machineId);
  if (!image || box.written?.result !== 'proven' || box.written.imageId !== image.id) return [];
  const steps = [`Label the stick “${image.name}”, so that it is not taken for an empty one.`];
  if (!machine) return [...steps, 'Keep it by until the box has a machine.'];
  const dock = knownFact(machine, 'ports.usb')?.value === 1 ? ', through the dock' : '';
  steps.push(`Plug it into ${machine.name}${dock}, and power on.`);
  const key = (name: 'firmware.menuKey' | 'firmware.setupKey'): string => {
    const known = knownFact(machine, name);
    return known ? factText(name, known.value) : 'its key (not known yet; enter it at Firmware)';
  };
  steps.push(
    box.startBy === 'menu'
      ? `Tap ${key('firmware.menuKey')} from power-on for the one-time menu, and pick the stick.`
      : `Open setup with ${key('firmware.setupKey')}, put USB first in the order, and put it back afterwards.`,
  );
  steps.push('Take it out when the installer asks for a restart: not before, not after.');
  return steps;
}
