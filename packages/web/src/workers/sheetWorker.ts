import { expose } from 'comlink';
import { briefSheet, type BriefSheet } from '@zb/core/system/sheet';
import type { Bench } from '@zb/core/model/bench';

const api = {
  sheet: (bench: Bench, by: BriefSheet['by']): BriefSheet => briefSheet(bench, by),
};

export type SheetWorker = typeof api;
expose(api);
