import type { Scene } from './scene';

/** Which settings that decide what boots are to be changed by what was decided. */
export function startChanges({ start, judged, rehearsed }: Scene): { secureBoot: boolean; mode: boolean } {
  const taken = (kind: 'secure off' | 'mode'): boolean =>
    rehearsed?.taken.some((p) => p.kind === kind) ?? false;
  const wants = (fact: string): boolean =>
    judged?.repairs.some((r) => r.kind === 'setting' && r.set === fact) ?? false;
  return {
    secureBoot: taken('secure off') || start?.refused === true || wants('firmware.secureBoot'),
    mode: taken('mode') || wants('firmware.mode'),
  };
}
