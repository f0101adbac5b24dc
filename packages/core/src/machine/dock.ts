import { knownFact } from '../model/known';
import type { Machine } from '../model/shelf';

/**
 * Does it take a dock to plug in a stick while the machine is fed? One port for both does; a handheld of which nobody has counted
 * the ports is taken to have one. One answer for Gather, run mode and what is said after a write.
 */
export function needsDock(machine: Pick<Machine, 'facts' | 'form'>): boolean {
  const ports = knownFact(machine, 'ports.usb')?.value;
  return ports === 1 || (ports === undefined && machine.form === 'handheld');
}
