import { bundleOf } from '../../firststart/forBox';
import { gatherList } from '../../gather/list';
import { step, type StepDraft } from '../../runsheet/step';
import { grouped } from '../../units/group';
import type { Scene } from '../scene';

const AFTER = ['choose:*'];

/** What must lie on the bench, group by group, and what mends what does not fit yet. */
export function gatherSteps({ bench, box, judged }: Scene): StepDraft[] {
  const { lines } = gatherList(bench, box);
  const groups = [...grouped(lines, (l) => l.group)];
  const { lines: drivers, stick } = bundleOf(bench, box);
  // Settings are changed at the firmware, and parts stand in the list.
  const repairs = (judged?.repairs ?? []).filter((r) => r.kind === 'release' || r.kind === 'variant');
  return [
    ...repairs.map((repair, i) =>
      step('gather', `gather:mend:${i}`, { code: 'mend', repair }, { after: AFTER }),
    ),
    ...groups.map(([group, all]) =>
      step(
        'gather',
        `gather:${group}`,
        { code: 'lay out', group, things: all.map((l) => l.thing) },
        { after: AFTER, seen: all.every((l) => box.gathered.includes(l.key)) },
      ),
    ),
    ...(drivers.length > 0
      ? [
          step(
            'gather',
            'gather:drivers',
            { code: 'fetch drivers', drivers: drivers.map((d) => d.driver), stick: stick?.name ?? null },
            { after: AFTER, seen: drivers.every((d) => d.files.length > 0) },
          ),
        ]
      : []),
  ];
}
