import { changedLayout, laidBox } from '@zb/core/layout/forBox';
import { readTable } from '@zb/core/layout/read/table';
import { TableError } from '@zb/core/layout/read/fault';
import { layoutSheet } from '@zb/core/layout/sheet';
import { installerWays, layoutSteps } from '@zb/core/layout/steps';
import { fstab } from '@zb/core/layout/write/fstab';
import { mkfsCommands } from '@zb/core/layout/write/mkfs';
import { layoutScript } from '@zb/core/layout/write/script';
import { sfdiskScript, type NoTableScript } from '@zb/core/layout/write/sfdisk';
import { sgdiskCommands } from '@zb/core/layout/write/sgdisk';
import { shrinksFirst } from '@zb/core/layout/write/shrink';
import { layoutPlanSchema, partSchools, swapSchools, type LayoutPlan } from '@zb/core/model/layout';
import {
  layoutCutWords,
  layoutProblemWords,
  layoutStepWords,
  noLayoutWords,
  noTableScriptWords,
  tableFaultWords,
} from '@zb/core/words/layout';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** Ways in which a layout can be printed. */
export const layoutForms = ['json', 'script', 'sfdisk', 'sgdisk', 'mkfs', 'fstab', 'steps'] as const;
export type LayoutForm = (typeof layoutForms)[number];

/** A plan of a drive as JSON. Throws InputError. */
export const planFrom = (text: string): LayoutPlan => readPlan(text, layoutPlanSchema);

/** What of a bench is laid out, and by which schools. */
export interface BoxAsked {
  box?: string;
  drive?: string;
  parts?: string;
  swap?: string;
}

function oneOf<T extends string>(list: readonly T[], value: string, option: string): T {
  const found = list.find((x) => x === value);
  if (found === undefined) throw new InputError(`${option} is one of: ${list.join(', ')}`);
  return found;
}

/** The plan of a box's drive, as the page lays it out; what is asked for here stands in place of what the box decided. */
export function planOfBox(text: string, asked: BoxAsked): LayoutPlan {
  const bench = readBench(text);
  const box = boxOf(bench, asked.box ?? '');
  const layout = changedLayout(box.layout, {
    ...(asked.drive === undefined ? {} : { driveId: asked.drive }),
    ...(asked.parts === undefined ? {} : { parts: oneOf(partSchools, asked.parts, '--parts') }),
    ...(asked.swap === undefined ? {} : { swap: oneOf(swapSchools, asked.swap, '--swap') }),
  });
  const { drive, drives, plan, why } = laidBox(bench, { ...box, layout });
  const another = asked.drive !== undefined && drive?.id !== asked.drive;
  if (another || why?.code === 'which drive' || why?.code === 'no drive')
    throw new InputError(
      `say which drive with --drive: ${drives.map((s) => `${s.id} (${s.fate})`).join(', ') || 'none is there'}`,
    );
  if (!plan) throw new InputError(why ? noLayoutWords(why) : 'nothing is laid out');
  return plan;
}

/** What `zb layout PLAN.json` prints: text for another tool, or all of it as data. Sizes in bytes. */
export function layoutOutput(plan: LayoutPlan, form: string, way: string): string | object {
  const as = oneOf(layoutForms, form, '--as');
  if (as === 'steps') {
    const steps = layoutSteps(plan, oneOf(installerWays, way, '--way'));
    return { way, steps: steps.map((s) => ({ ...s, words: layoutStepWords(s) })) };
  }
  const { layout, rows } = layoutSheet(plan);
  const lines = (list: readonly string[]): string => list.map((l) => `${l}\n`).join('');
  const given = (script: string | NoTableScript): string => {
    if (typeof script === 'string') return script;
    if (script.code === 'no table') return '';
    throw new InputError(noTableScriptWords(script));
  };
  if ((as === 'sfdisk' || as === 'sgdisk' || as === 'mkfs') && shrinksFirst(layout))
    throw new InputError(
      `a file system becomes smaller before its part does: --as ${as} would cut off its end. Take --as script, which does both in order`,
    );
  switch (as) {
    case 'script':
      return given(layoutScript(layout, plan));
    case 'sfdisk':
      return given(sfdiskScript(layout));
    case 'sgdisk':
      return lines(sgdiskCommands(layout, plan.drive, plan.device).map((c) => c.text));
    case 'mkfs':
      return lines(mkfsCommands(layout, plan.device));
    case 'fstab':
      return fstab(layout);
    case 'json': {
      const nameOf = (id: string): string => plan.want.wants.find((w) => w.id === id)?.name || id;
      return {
        ...layout,
        problems: layout.problems.map((p) => ({ ...p, words: layoutProblemWords(p, nameOf) })),
        cuts: layout.cuts.map((c) => ({ ...c, words: layoutCutWords(c, nameOf) })),
        parts: rows.map(({ part, typed, rest, space }) => ({ ...part, typed, rest, space })),
      };
    }
  }
}

/** What `zb table FILE` prints: a drive as a plan takes it, from what a tool printed of it. */
export function tableOutput(text: string, name: string | undefined, bytes: string | undefined): object {
  if (bytes !== undefined && !/^\d{1,16}$/.test(bytes))
    throw new InputError(`--bytes takes a number of bytes, not ${bytes}`);
  try {
    return readTable(text, { name, bytes: bytes === undefined ? undefined : Number(bytes) });
  } catch (error) {
    if (error instanceof TableError) throw new InputError(tableFaultWords(error.fault));
    throw error;
  }
}
