import { expose } from 'comlink';
import { briefSheet, type BriefSheet } from '@zb/core/fit/sheet';
import type { Bench } from '@zb/core/schema/bench';

const api = {
  sheet: (bench: Bench, by: BriefSheet['by']): BriefSheet => briefSheet(bench, by),
};

export type SheetWorker = typeof api;
expose(api);
