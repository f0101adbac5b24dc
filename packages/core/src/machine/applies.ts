import type { Machine } from '../model/bench';
import type { FactKey } from '../model/facts';
import { knownFact } from '../model/known';

/** False where a fact has no meaning for this machine: psABI levels off x86-64, UEFI's own facts where there is no UEFI. */
export function factApplies(machine: Pick<Machine, 'facts'>, key: FactKey): boolean {
  const arch = knownFact(machine, 'cpu.arch')?.value;
  const mode = knownFact(machine, 'firmware.mode')?.value;
  if (key === 'cpu.level') return arch === undefined || arch === 'x86_64';
  if (key === 'firmware.bits' || key === 'firmware.secureBoot') return mode === undefined || mode === 'uefi';
  return true;
}
