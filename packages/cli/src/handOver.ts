import { copyOrAgain } from '@zb/core/box/copyOrAgain';
import { judgeOn } from '@zb/core/box/today';
import { choresOf, isDue } from '@zb/core/keeping/chores';
import { retirementOf } from '@zb/core/keeping/retirement';
import { firmwareBack, keptSettings } from '@zb/core/keeping/settings';
import { isClosed } from '@zb/core/keeping/closed';
import { machineEnds, type MachineEnd } from '@zb/core/model/keep';
import { buildSheet } from '@zb/core/words/buildSheet';
import { sheetHtml } from '@zb/core/words/handOver/html';
import { choreHow, choreTitle, copyWords, keepCalendar, retireWords } from '@zb/core/words/keep';
import { z } from 'zod';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** Forms of a build sheet, and of what comes round. */
export const sheetForms = ['md', 'html'] as const;
export const keepForms = ['json', 'ics'] as const;

/** The day that is asked for, else that of `now`. Throws InputError where it is none. */
export function dayOf(text: string | undefined, now: Date): string {
  const day = z.iso.date().safeParse(text ?? now.toISOString().slice(0, 10));
  if (!day.success) throw new InputError(`a day is such as 2026-03-05, not ${text}`);
  return day.data;
}

/** What `zb sheet` prints: the build sheet of a box. */
export function buildSheetOutput(
  text: string,
  id: string,
  as: string,
  today: string | undefined,
  now: Date,
): string {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  judgeOn(dayOf(today, now));
  if (as === 'md') return buildSheet(bench, box);
  if (as === 'html') return sheetHtml(box.name, buildSheet(bench, box));
  throw new InputError(`--as is one of: ${sheetForms.join(', ')}`);
}

/** What `zb keep` prints: what comes round with its days, settings as they came, a copy against doing it again; or a calendar. */
export function keepOutput(
  text: string,
  ids: readonly string[],
  { as, today }: { as: string; today?: string },
  now: Date,
): object | string {
  const bench = readBench(text);
  const boxes = ids.length > 0 ? ids.map((id) => boxOf(bench, id)) : bench.boxes;
  const day = dayOf(today, now);
  if (as === 'ics') return keepCalendar(bench, boxes, day, now.toISOString());
  if (as !== 'json') throw new InputError(`--as is one of: ${keepForms.join(', ')}`);
  return {
    today: day,
    boxes: boxes.map((box) => {
      const settings = keptSettings(bench, box);
      const copy = copyOrAgain(bench, box);
      return {
        id: box.id,
        name: box.name,
        closed: isClosed(box),
        chores: choresOf(bench, box, day).map((c) => ({
          ...c,
          isDue: isDue(c),
          title: choreTitle(c),
          how: choreHow(c.code),
        })),
        settings,
        firmwareBack: firmwareBack(settings),
        copy: copy && { ...copy, drive: copy.drive.name, words: copyWords(copy) },
      };
    }),
  };
}

/** What `zb retire` prints: what is done before a box is no more, drives by their kind. */
export function retireOutput(text: string, id: string, to: string) {
  const bench = readBench(text);
  if (!(machineEnds as readonly string[]).includes(to))
    throw new InputError(`--to is one of: ${machineEnds.join(', ')}`);
  return retirementOf(bench, boxOf(bench, id), to as MachineEnd).map((line) => ({
    ...(line.code === 'erase'
      ? {
          code: line.code,
          drive: line.drive.store.name,
          serial: line.drive.store.serial,
          kind: line.drive.plan.kind,
          level: line.drive.level,
          holds: line.drive.holds,
          find: line.drive.plan.find,
          ways: line.drive.plan.ways.filter((w) => w.level === line.drive.level),
        }
      : line),
    words: retireWords(line),
  }));
}
