import { expose } from 'comlink';
import { LogReadError } from '@zb/core/tune/logs/log';
import { readLog } from '@zb/core/tune/logs/read';
import { logView, type LogView } from '@zb/core/tune/logView';
import { playRun, type PlayAsk, type PlayedRun } from '@zb/core/tune/play';
import type { Panel } from '@zb/core/model/tune';

/** What became of a file: a log, or why it is none. */
export interface OpenedLog {
  log: LogView | null;
  fault: Pick<LogReadError, 'code' | 'detail'> | null;
}

const api = {
  async open(
    file: Blob,
    ask: { measureSeconds: number | null; panel: Panel | null },
    tell: (share: number) => void,
  ): Promise<OpenedLog> {
    try {
      const log = readLog(new Uint8Array(await file.arrayBuffer()), (share) => tell(0.8 * share));
      tell(0.8);
      return { log: logView(log, ask), fault: null };
    } catch (error) {
      if (error instanceof LogReadError)
        return { log: null, fault: { code: error.code, detail: error.detail } };
      throw error;
    }
  },
  play: (ask: PlayAsk, tell: (share: number) => void): PlayedRun => playRun(ask, tell),
};

export type LogWorker = typeof api;
expose(api);
