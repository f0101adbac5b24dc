import { judgedOn } from '../../box/today';
import { choresOf } from '../../keeping/chores';
import { firmwareBack, keptSettings } from '../../keeping/settings';
import type { Bench, Box } from '../../model/bench';
import { formatDay, formatMoment } from '../../units/date';
import { markdownTable, markdownText as safe, md } from '../../formats/writer/markdown';
import { dash } from './dash';
import { choreTitle, driveEndWords, dueWords, everyWords, machineEndWords } from '../keep';

/** Settings as they came and as they are, and the way back of firmware. */
export function settingLines(bench: Bench, box: Box): string[] {
  const settings = keptSettings(bench, box);
  if (settings.length === 0) return [];
  const back = firmwareBack(settings);
  return [
    '',
    '## Settings',
    '',
    ...markdownTable(
      ['Setting', 'Lives in', 'As it came', 'Now', 'Why', 'Taken back by'],
      settings.map((s) => [s.name, s.place, dash(s.came), dash(s.now), dash(s.why), dash(s.back)]),
    ),
    ...(back.length > 0
      ? [
          '',
          '## How firmware is put back',
          '',
          'In this order, the last change first:',
          '',
          ...back.map((s, i) => md`${i + 1}. ${s.name}: from ${s.now} to **${s.came}**`.text),
        ]
      : []),
  ];
}

/** Where the password is and who knows it; never the password. */
export const passwordLines = ({ first }: Box): string[] => [
  '',
  '## Password',
  '',
  first?.password
    ? `Where it is kept: ${safe(first.password.kept)}. Known to ${safe(dash(first.password.knows))}.${first.password.replaced ? ' The one it came with opens it no longer.' : ' **The one it came with was not replaced.**'}`
    : 'Nobody noted where it is kept.',
];

/** What comes round, and how it ended. */
export function yearLines(bench: Bench, box: Box): string[] {
  const today = judgedOn();
  const chores = today === undefined ? [] : choresOf(bench, box, today).filter((c) => c.due !== null);
  const retired = box.kept?.retired;
  return [
    ...(chores.length > 0
      ? [
          '',
          '## What comes round',
          '',
          ...markdownTable(
            ['What', 'How often', 'Last', 'Due'],
            chores.map((c) => [
              choreTitle(c),
              everyWords(c),
              c.last === null ? '–' : formatDay(c.last),
              dueWords(c),
            ]),
          ),
        ]
      : []),
    ...(retired
      ? [
          '',
          '## Retired',
          '',
          md`${formatMoment(retired.at)}: ${retired.because}. ${machineEndWords(retired.machine)}; cells: ${retired.cells}.`
            .text,
          '',
          ...retired.drives.map(
            (d) =>
              md`- ${d.name}, serial ${dash(d.serial)}: ${driveEndWords(d.end)}${d.how === '' ? '' : `, ${d.how}`}${d.readBack ? ', read back' : ''}`
                .text,
          ),
        ]
      : []),
  ];
}
