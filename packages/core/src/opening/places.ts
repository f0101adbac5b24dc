import { schematic, type PlaceGroup } from '../machine/schematic';
import { findMachine, type Bench, type Box } from '../model/bench';
import type { Opening } from './forBox';
import { moved } from './moves';

/** The places of a machine before it is opened, and afterwards. Apart from the opening: the ledger of every page asks for its minutes alone. */
export function openingPlaces(
  bench: Bench,
  box: Box,
  { goesOut, goesIn }: Pick<Opening, 'goesOut' | 'goesIn'>,
): { before: PlaceGroup[]; after: PlaceGroup[] } {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return { before: [], after: [] };
  return {
    before: schematic(bench, machine.id),
    after: schematic(moved(bench, machine, goesOut, goesIn), machine.id),
  };
}
