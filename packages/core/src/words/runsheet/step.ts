import type { StepWhat } from '../../runsheet/what';
import { afterWords } from './after';
import { beforeWords } from './before';
import { machineWords } from './machine';
import type { Say, StepWords } from './say';

const SAY: Say = { ...beforeWords, ...machineWords, ...afterWords };

/** A step as it is read at the machine. */
export const runStepWords = (what: StepWhat): StepWords =>
  (SAY[what.code] as (w: StepWhat) => StepWords)(what);
