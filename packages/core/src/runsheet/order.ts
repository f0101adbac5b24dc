import { inOrder } from '../firststart/order';
import type { FirstFault } from '../firststart/line';
import type { StepDraft } from './step';

const ALL = '*';

/**
 * Steps in an order in which none comes before what it needs; among those that may come next, the one that was named first.
 * A need of “write:*” is one of every step whose key begins so; a need of what is not on the sheet is none. Afterwards each names
 * single steps.
 */
export function orderSteps(drafts: readonly StepDraft[]): { steps: StepDraft[]; faults: FirstFault[] } {
  const keys = drafts.map((d) => d.key);
  const needs = (d: StepDraft): string[] => {
    const named = d.after.flatMap((a) =>
      a.endsWith(ALL)
        ? keys.filter((k) => k.startsWith(a.slice(0, -ALL.length)))
        : keys.filter((k) => k === a),
    );
    return [...new Set(named)].filter((k) => k !== d.key);
  };
  const { order, faults } = inOrder(drafts.map((d) => ({ ...d, after: needs(d) })));
  return { steps: order, faults };
}
