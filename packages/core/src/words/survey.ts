import type { Machine } from '../model/bench';
import { factDefinition, factKeys } from '../model/facts';
import { knownFact } from '../model/known';

/** Facts that choosing and starting rest on. */
const DECIDING = [
  'cpu.arch',
  'cpu.bits',
  'cpu.cores',
  'memory.bytes',
  'firmware.mode',
  'graphics.family',
  'network.wired',
  'ports.drives',
] as const;

/** The question or finding at the head of the survey sheet. */
export function surveyHeadline(machine: Machine | undefined): string {
  if (!machine) return 'Which machine is this box to be?';
  const known = factKeys.filter((k) => knownFact(machine, k)).length;
  const open = DECIDING.filter((k) => !knownFact(machine, k));
  if (known === 0) return `What is ${machine.name}?`;
  if (open.length === 0) return `${machine.name} is known: ${known} facts, each with its source`;
  const [first] = open;
  return first && open.length === 1
    ? `One fact about ${machine.name} is still open: ${factDefinition(first).label.toLowerCase()}`
    : `${open.length} deciding facts about ${machine.name} are still open`;
}
