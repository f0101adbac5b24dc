import { stops, type Stop } from '../../model/stops';
import type { StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';
import { chooseSteps } from './choose';
import { firmwareSteps } from './firmware';
import { firstStartSteps } from './firstStart';
import { gatherSteps } from './gather';
import { installSteps } from './install';
import { keepSteps } from './keep';
import { loadSteps } from './load';
import { networkSteps } from './network';
import { surveySteps } from './survey';
import { tuneSteps } from './tune';
import { verifySteps } from './verify';
import { writeSteps } from './write';

/** What is done at each stop, step by step. Apart from what every page asks of a stop: a run sheet is asked for by few. */
const stepsAt: Readonly<Record<Stop, (scene: Scene) => StepDraft[]>> = {
  survey: surveySteps,
  choose: chooseSteps,
  gather: gatherSteps,
  verify: verifySteps,
  write: writeSteps,
  firmware: firmwareSteps,
  install: installSteps,
  'first-start': firstStartSteps,
  network: networkSteps,
  load: loadSteps,
  tune: tuneSteps,
  keep: keepSteps,
};

/** The steps that all stops of a box contribute, stop by stop. */
export const stepsOf = (scene: Scene): StepDraft[] => stops.flatMap((s) => stepsAt[s](scene));
