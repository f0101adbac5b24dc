import type { Stop } from '../model/stops';
import type { Span } from '../units/duration';
import type { Hazard } from './hazard';
import type { Scene } from './scene';
import type { TradeLine } from './trade/line';

/** A figure of the ledger with what it is made of. */
export interface LedgerLine {
  label: string;
  value: string;
  because: string;
}

/**
 * One stop of a box. What it keeps in the box stands in model/stopRecords.ts; ledger, route, rail and build sheet ask all
 * stops the same questions (stops/index.ts).
 */
export interface StopModule {
  stop: Stop;
  /** Seconds of a person's own hands, and of waiting. Common practice, no source, where nothing was measured. */
  hands(scene: Scene): Span;
  waiting(scene: Scene): Span;
  hazards(scene: Scene): Hazard[];
  /** What has to be answered here, in words. */
  questions(scene: Scene): string[];
  /** Bytes that what is done here could cost. */
  bytesAtRisk(scene: Scene): LedgerLine[];
  /** What people who do this often look at here. */
  lines(scene: Scene): TradeLine[];
}

/** A stop with nothing of its own but its minutes; low and high in minutes. */
export const plainStop = (
  stop: Stop,
  hands: readonly [number, number],
  waiting: readonly [number, number] = [0, 0],
): StopModule => {
  const span = ([low, high]: readonly [number, number]): Span => ({ low: low * 60, high: high * 60 });
  return {
    stop,
    hands: () => span(hands),
    waiting: () => span(waiting),
    hazards: () => [],
    questions: () => [],
    bytesAtRisk: () => [],
    lines: () => [],
  };
};
