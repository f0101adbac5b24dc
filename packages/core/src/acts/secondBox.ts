import { secondBox, secondTakes, type SecondBox, type SecondTakes } from '../box/secondBox';
import type { Bench, Box, Machine } from '../model/bench';
import { applyChanges, edited, type Act, type Change } from '../model/changes';
import { within } from '../words/text';
import { carriedWords } from '../words/secondBox';
import { logBase, logged } from './base';
import { createBox } from './box';
import type { Stamp } from './stamp';

/** Opens a box after another: with its system and decisions, on a machine of its own. The time it should take is of the bench with it. */
export function beginFrom(
  bench: Bench,
  first: Box,
  name: string,
  machine: Machine | undefined,
  stamp: Stamp,
  newMachine = false,
): Act & { box: Box; after: SecondBox; takes: SecondTakes } {
  const after = secondBox(bench, first, machine);
  const made = createBox(name, first.purpose, undefined, stamp);
  const box: Box = { ...made.box, ...after.fields, machineId: machine?.id ?? null };
  const { machine: told } = after;
  const item: Change[] = !told
    ? []
    : newMachine
      ? [{ in: 'items', id: told.id, to: told }]
      : machine && told !== machine
        ? [edited('items', machine, told)]
        : [];
  const changes: Change[] = [
    ...item,
    { in: 'boxes', id: box.id, to: box },
    logged({
      kind: 'note',
      ...logBase(box, 'survey', stamp),
      text: `Begun after ${first.name}: ${after.carries.map((c) => within(carriedWords(c))).join(', ')}`,
    }),
  ];
  const then = applyChanges(bench, changes);
  return {
    box,
    after,
    takes: secondTakes(then, first, box),
    label: `Box “${name}” opened after ${first.name}`,
    changes,
  };
}
