import { arranged, findBox, findMachine, findProfile, storesIn, storesOf } from '@zb/core/model/bench';
import { benchFromText } from '@zb/core/model/file';
import { z } from 'zod';
import { readTable } from '@zb/core/layout/read/table';
import { TableError } from '@zb/core/layout/read/fault';
import { layoutSheet } from '@zb/core/layout/sheet';
import { installerWays, layoutSteps, type InstallerWay } from '@zb/core/layout/steps';
import { driveThere, usualWant } from '@zb/core/layout/usual';
import { fstab } from '@zb/core/layout/write/fstab';
import { mkfsCommands } from '@zb/core/layout/write/mkfs';
import { sfdiskScript } from '@zb/core/layout/write/sfdisk';
import { sgdiskCommands } from '@zb/core/layout/write/sgdisk';
import { layoutPlanSchema, partSchools, swapSchools, type LayoutPlan } from '@zb/core/model/layout';
import {
  layoutCutWords,
  layoutProblemWords,
  layoutStepWords,
  noLayoutWords,
  tableFaultWords,
} from '@zb/core/words/layout';
import { InputError } from './inputFile';

/** Ways in which a layout can be printed. */
export const layoutForms = ['json', 'sfdisk', 'sgdisk', 'mkfs', 'fstab', 'steps'] as const;
export type LayoutForm = (typeof layoutForms)[number];

function planFrom(text: string): LayoutPlan {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new InputError('the plan is no JSON');
  }
  const read = layoutPlanSchema.safeParse(value);
  if (!read.success) throw new InputError(`the plan cannot be used: ${z.prettifyError(read.error)}`);
  return read.data;
}

/** What of a bench is laid out, and by which schools. */
export interface BoxAsked {
  box?: string;
  drive?: string;
  parts?: string;
  swap?: string;
}

const oneOf = <T extends string>(list: readonly T[], value: string | undefined, option: string): T | null => {
  if (value === undefined) return null;
  const found = list.find((x) => x === value);
  if (found === undefined) throw new InputError(`${option} is one of: ${list.join(', ')}`);
  return found;
};

/** The plan of a box's drive: the one that is named, loose ones too, or the only one in its machine that may be lost. */
export function planOfBox(text: string, asked: BoxAsked): string {
  const bench = arranged(benchFromText(text));
  const box = findBox(bench, asked.box ?? '');
  if (!box) throw new InputError(`there is no box ${asked.box ?? ''} on this bench`);
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine || !profile) throw new InputError(`${box.name} has no machine or no system yet`);
  const inside = storesIn(bench, machine.id);
  const free = inside.filter((s) => s.fate === 'may be lost');
  const drive = asked.drive === undefined ? free[0] : storesOf(bench).find((s) => s.id === asked.drive);
  if (!drive || (asked.drive === undefined && free.length > 1))
    throw new InputError(
      `say which drive with --drive: ${inside.map((s) => `${s.id} (${s.fate})`).join(', ') || 'none is in the machine'}`,
    );
  if (drive.fate !== 'may be lost')
    throw new InputError(`“${drive.name}” is not marked as one that may be lost; nothing is planned over it`);
  const parts = oneOf(partSchools, asked.parts, '--parts');
  const want = usualWant({ profile, machine, drive, parts, swap: oneOf(swapSchools, asked.swap, '--swap') });
  if ('code' in want) throw new InputError(noLayoutWords(want));
  return JSON.stringify({ drive: driveThere(drive), want });
}

const wayFrom = (text: string): InstallerWay => {
  const way = installerWays.find((w) => w === text);
  if (!way) throw new InputError(`--way is one of: ${installerWays.join(', ')}`);
  return way;
};

/** What `zb layout PLAN.json` prints: text for another tool, or all of it as data. Sizes in bytes. */
export function layoutOutput(text: string, form: string, way: string): string | object {
  const plan = planFrom(text);
  const { layout, rows } = layoutSheet(plan);
  const lines = (list: readonly string[]): string => list.map((l) => `${l}\n`).join('');
  switch (layoutForms.find((f) => f === form)) {
    case 'sfdisk':
      return sfdiskScript(layout);
    case 'sgdisk':
      return lines(sgdiskCommands(layout, plan.drive, plan.device));
    case 'mkfs':
      return lines(mkfsCommands(layout, plan.device));
    case 'fstab':
      return fstab(layout);
    case 'steps':
      return {
        way,
        steps: layoutSteps(plan, wayFrom(way)).map((s) => ({ ...s, words: layoutStepWords(s) })),
      };
    case 'json': {
      const nameOf = (id: string): string => plan.want.wants.find((w) => w.id === id)?.name || id;
      return {
        ...layout,
        problems: layout.problems.map((p) => ({ ...p, words: layoutProblemWords(p, nameOf) })),
        cuts: layout.cuts.map((c) => ({ ...c, words: layoutCutWords(c, nameOf) })),
        parts: rows.map(({ part, typed, rest, space }) => ({ ...part, typed, rest, space })),
      };
    }
    case undefined:
      throw new InputError(`--as is one of: ${layoutForms.join(', ')}`);
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
