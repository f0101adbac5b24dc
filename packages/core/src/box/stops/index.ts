import { stops, type Stop } from '../../model/stops';
import type { StopModule } from '../stopModule';
import { choose } from './choose';
import { firmware } from './firmware';
import { firstStart } from './firstStart';
import { gather } from './gather';
import { install } from './install';
import { keep } from './keep';
import { load } from './load';
import { network } from './network';
import { survey } from './survey';
import { tune } from './tune';
import { verify } from './verify';
import { write } from './write';

/** Every stop by its name. */
export const stopModules: Readonly<Record<Stop, StopModule>> = {
  survey,
  choose,
  gather,
  verify,
  write,
  firmware,
  install,
  'first-start': firstStart,
  network,
  load,
  tune,
  keep,
};

/** All of them, in the order in which a box visits them. */
export const inOrder: readonly StopModule[] = stops.map((s) => stopModules[s]);
