import type { Machine } from '../model/bench';
import type { FactKey } from '../model/facts';
import { knownFact } from '../model/known';

/** False where a fact has no meaning for this machine: psABI levels off x86-64, UEFI's own facts where there is no UEFI, those of a setup screen on boards. */
export function factApplies(machine: Pick<Machine, 'facts'>, key: FactKey): boolean {
  const arch = knownFact(machine, 'cpu.arch')?.value;
  const mode = knownFact(machine, 'firmware.mode')?.value;
  if (key === 'cpu.level') return arch === undefined || arch === 'x86_64';
  if (key === 'firmware.bits' || key === 'firmware.secureBoot') return mode === undefined || mode === 'uefi';
  if (key === 'cpu.arm32') return arch === 'aarch64';
  if (OF_SETUP.has(key)) return mode !== 'board';
  return true;
}

/** Facts of a setup screen, which boards do not have. */
const OF_SETUP = new Set<FactKey>([
  'firmware.offers',
  'firmware.startsNvme',
  'firmware.startsUsb',
  'firmware.startsCard',
  'firmware.graphicsMemory',
  'firmware.afterPowerCut',
  'firmware.haltsOn',
  'firmware.splitsLanes',
]);
