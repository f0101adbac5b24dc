import { shownOnTerminal } from '@zb/core/units/terminal';
import { formatIec } from '@zb/core/units/bytes';

const FIRST_MS = 2000;
const EVERY_MS = 2000;

/**
 * Tells on standard error how far long work is, a line every two seconds, and nothing of short work. `what` is said before
 * the bytes; `total` in bytes.
 */
export function progressOf(what: string, total: number): (bytes: number, unpacked?: number) => void {
  const begun = performance.now();
  let told = begun + FIRST_MS - EVERY_MS;
  return (bytes, unpacked = 0) => {
    const now = performance.now();
    if (now - told < EVERY_MS) return;
    told = now;
    const inside = unpacked > 0 ? `, ${formatIec(unpacked)} unpacked` : '';
    process.stderr.write(
      `zb: ${shownOnTerminal(what)}: ${formatIec(bytes)} of ${formatIec(total)} read${inside}\n`,
    );
  };
}
