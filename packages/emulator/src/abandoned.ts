import { readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';

/** Folders of machines and of what was unpacked for them, named by the process that made them. */
const OURS = /^zb-(?:trial|start)-(\d+)-/;

const lives = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // One of another user is there as well.
    return (error as { code?: string }).code === 'EPERM';
  }
};

/** Takes away what processes left behind in a folder that were killed before they could. Never throws. */
export function clearAbandoned(folder: string): void {
  try {
    for (const name of readdirSync(folder)) {
      const pid = OURS.exec(name)?.[1];
      if (pid !== undefined && !lives(Number(pid)))
        rmSync(join(folder, name), { recursive: true, force: true });
    }
  } catch {
    // What is not there, or is another user's, is not ours to clear.
  }
}
