import { formatNumber } from '../units/number';
import { runningTotal } from '../system/report';
import type { Bench } from '../model/bench';
import { toAccept } from '../assign/accept';
import { committed } from '../assign/scene';
import type { Assignment, Solution } from '../assign/solve';
import { amount } from './money';

/** A plan's finding as a headline. */
export function planHeadline(bench: Bench, plan: Solution): string {
  const met = plan.assignments.length;
  const all = bench.wishes.length;
  const spent = plan.spent + committed(bench);
  const how = spent > 0 ? `for ${amount(bench, spent)}` : 'with what is on the shelf';
  if (met === all) return `${all === 1 ? 'The wish' : `All ${all} wishes`} can be met ${how}`;
  return `${met} of ${all} wishes can be met ${how}`;
}

/** How sure the plan is: proven, or how far the best could still lie above. */
export const provenWords = (plan: Solution): string =>
  plan.optimal
    ? 'proven best'
    : `stopped early: the best may be worth ${formatNumber(plan.gap * 100, 1)} % more`;

/** One figure of a plan and where it comes from. */
export interface PlanLine {
  label: string;
  value: string;
  because: string;
}

/** What a plan costs and draws, each figure with where it comes from. */
export function planLines(bench: Bench, plan: Solution): PlanLine[] {
  const pairs = plan.assignments.flatMap((a) => {
    const wish = bench.wishes.find((w) => w.id === a.wishId);
    return wish ? [{ machineId: a.machineId, wish }] : [];
  });
  const { idle, perYear, unknown } = runningTotal(bench, pairs);
  const parts = plan.assignments.flatMap((a) => a.parts);
  const before = committed(bench);
  const named = (list: typeof parts): string =>
    list.map((p) => `${p.count > 1 ? `${p.count} × ` : ''}“${p.name}”`).join(', ');
  const left = unknown > 0 ? `; ${unknown} without known watts left out` : '';
  return [
    {
      label: 'To buy',
      value: `${amount(bench, plan.spent + before)} of ${amount(bench, bench.settings.budget)}`,
      because:
        [
          named(parts.filter((p) => p.offer)),
          before > 0 ? `${amount(bench, before)} put aside for decided boxes` : '',
        ]
          .filter(Boolean)
          .join('; ') || 'nothing',
    },
    { label: 'Parts moved', value: String(plan.partsMoved), because: named(parts) || 'none' },
    {
      label: 'Idle, all boxes',
      value: `${idle} W`,
      because: `the idle watts of the ${pairs.length} machines together${left}`,
    },
    {
      label: 'Electricity a year',
      value: amount(bench, perYear),
      because: `hours a day of each wish at ${amount(bench, bench.settings.tariff)} a kilowatt-hour${left}`,
    },
    {
      label: 'Value',
      value: formatNumber(plan.value, 1),
      because:
        'importance × (100 + score) of each wish met, less a little for each part and for what is bought',
    },
  ];
}

/** How a runner-up differs from the plan, in words. */
export function difference(bench: Bench, plan: Solution, other: Solution): string {
  const name = (id: string): string => bench.items.find((i) => i.id === id)?.name ?? id;
  const of = (s: Solution, id: string): Assignment | undefined => s.assignments.find((a) => a.wishId === id);
  const words = bench.wishes.flatMap((w) => {
    const [a, b] = [of(plan, w.id), of(other, w.id)];
    if (a?.machineId === b?.machineId) return [];
    if (!b) return [`${w.name} left out`];
    return [`${w.name} on ${name(b.machineId)}${a ? ` instead of ${name(a.machineId)}` : ''}`];
  });
  const less = plan.value > 0 ? (100 * (plan.value - other.value)) / plan.value : 0;
  return `${words.join('; ')} (${formatNumber(less, 1)} % less value)`;
}

/** The act in words, for its button. */
export function acceptWords(bench: Bench, plan: Solution): string | undefined {
  const { boxes, parts } = toAccept(bench, plan);
  if (boxes > 0) return `Accept and open ${boxes === 1 ? 'one box' : `${boxes} boxes`}`;
  return parts > 0 ? 'Accept and put the parts aside' : undefined;
}
