import { loaderPlaces } from '../model/installer';
import { plainModes, type RehearsalDrive, type RehearsalPlan } from '../model/rehearsal';
import { asksPerson, looksAlike } from './alike';
import { mayEnrol, precautionsFor } from './precautions';

/** What cannot be known beforehand. */
export const unknowns = [
  'order',
  'firmware order',
  'mode',
  'bios tries',
  'secure boot',
  'key',
  'entry',
  'read',
  'pick',
  'loader',
  'stick',
  'enrol',
  'set back',
  'power',
  'forgets',
] as const;
/** What cannot be known beforehand. */
export type Unknown = (typeof unknowns)[number];

/** A line of the firmware's menu that could be the stick: whose it is, and under which mode (null: the one there is). */
export interface MenuLine {
  drive: string;
  mode: 'uefi' | 'bios' | null;
  /** Another part of the stick, from which nothing starts. */
  dead: boolean;
}

/** Where the power may fail. */
export const cuts = [
  'holds',
  'before the table',
  'while copying',
  'before the loader',
  'before the restart',
] as const;
/** When the stick may come out. */
export const stickMoments = ['in time', 'left in', 'too early'] as const;

/** One thing that can vary, with in how many ways. */
export interface Varies {
  unknown: Unknown;
  ways: number;
}

/** All that can vary in a plan: the worlds are every combination. */
export interface World {
  /** Drives by their place in the plan, in groups that the firmware tries one after another, each in any order. */
  firmwareGroups: number[][];
  menu: MenuLine[];
  alike: RehearsalDrive[];
  /** In how many ways each varies, in the order of `unknowns`; 1 where it does not. */
  ways: number[];
  /** Only what varies. */
  varies: Varies[];
  /** How many worlds there are. */
  count: number;
}

function groupsOf({ drives, machine }: RehearsalPlan): number[][] {
  const named = (machine.order ?? []).map((group) =>
    drives.map((_, i) => i).filter((i) => group.includes(drives[i]?.id ?? '')),
  );
  const rest = drives.map((_, i) => i).filter((i) => !named.flat().includes(i));
  return [...named, ...(rest.length > 0 ? [rest] : [])];
}

/** In how many orders so many can stand. */
const orders = (n: number): number => (n < 2 ? 1 : n * orders(n - 1));

function menuOf(plan: RehearsalPlan): MenuLine[] {
  const stick = plan.drives.find((d) => d.role === 'installer');
  if (!stick) return [];
  const shown = plan.drives.filter((d) => d === stick || (d.bus === 'usb' && d.model === stick.model));
  const modes = plan.machine.mode === 'both' ? plainModes : [null];
  return shown.flatMap(({ id }) => [
    ...modes.map((mode): MenuLine => ({ drive: id, mode, dead: false })),
    ...(plan.machine.showsParts ? [{ drive: id, mode: null, dead: true }] : []),
  ]);
}

/** All that can vary in a plan. docs/rehearsal.md, “What can vary”. */
export function worldOf(plan: RehearsalPlan): World {
  const { machine, installer, drives } = plan;
  const install = plan.kind === 'install';
  const offered = precautionsFor(plan);
  const offers = (kind: string): boolean => offered.some((p) => p.kind === kind);
  const firmwareGroups = groupsOf(plan);
  const byMenu = install && (plan.startBy === 'menu' || offers('menu'));
  const byOrder = install && (plan.startBy === 'order' || offers('stick first'));
  const menu = byMenu ? menuOf(plan) : [];
  const alike = looksAlike(plan);
  const ways: Record<Unknown, number> = {
    order: orders(drives.length),
    'firmware order': install ? firmwareGroups.reduce((n, g) => n * orders(g.length), 1) : 1,
    mode: install && machine.mode === null ? 2 : 1,
    'bios tries': install && machine.biosTries === null && machine.mode !== 'uefi' ? 2 : 1,
    'secure boot': install && machine.secureBoot === null && machine.mode !== 'bios' ? 2 : 1,
    key: byMenu ? 2 : 1,
    entry: Math.max(1, menu.length),
    read: asksPerson(plan) ? 2 : 1,
    pick: Math.max(1, alike.length),
    loader: install && installer.loader === null ? loaderPlaces.length : 1,
    stick: install ? (installer.ends === 'powers off' ? 2 : 3) : 1,
    enrol: mayEnrol(plan) ? 2 : 1,
    'set back': byOrder ? 2 : 1,
    power: machine.power === 'secured' ? 1 : install ? cuts.length : 3,
    forgets: install && offers('unplug') ? 2 : 1,
  };
  const list = unknowns.map((u) => ways[u]);
  return {
    firmwareGroups,
    menu,
    alike,
    ways: list,
    varies: unknowns.filter((u) => ways[u] > 1).map((unknown) => ({ unknown, ways: ways[unknown] })),
    count: list.reduce((n, w) => n * w, 1),
  };
}
