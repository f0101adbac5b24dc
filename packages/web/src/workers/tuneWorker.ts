import { resultOf, stateOf, type ExperimentResult } from '@zb/core/tune/results';
import type { Experiment, Setting, TuneRun } from '@zb/core/model/tune';
import type { Told } from './elsewhere';

/** What is asked of the thread; runs come without their traces. */
export interface TuneJob {
  experiment: Experiment;
  settings: Setting[];
  runs: TuneRun[];
}

const tell = (told: Told<ExperimentResult, 'stopped'>): void => self.postMessage(told);

self.onmessage = ({ data: { experiment, settings, runs } }: MessageEvent<TuneJob>): void => {
  try {
    tell({ found: resultOf(stateOf(experiment, settings, runs)) });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
