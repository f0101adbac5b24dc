import { tradePicture } from '../tune/picture';
import { quantities } from '../tune/quantities';
import type { ExperimentResult } from '../tune/results';
import { costWords, stateTitle } from './tune';

/** The picture of what the states of an experiment cost and give, as an SVG that stands by itself; null where it has no such pair. */
export function pictureOfTrade(result: ExperimentResult): string | null {
  const { trade } = result;
  if (!trade) return null;
  const [cost, gain] = [quantities[trade.cost], quantities[trade.gain]];
  return tradePicture(
    `${gain.label}, against ${costWords(trade.cost)}`,
    result,
    trade,
    { cost: `${cost.label}, ${cost.unit}`, gain: gain.unit === '' ? gain.label : gain.unit },
    (arm) => stateTitle(result, arm),
  );
}
