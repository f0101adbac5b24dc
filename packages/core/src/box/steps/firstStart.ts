import { step, type StepDraft } from '../../runsheet/step';
import { span } from '../../units/duration';
import type { FirstLineCode } from '../../firststart/line';
import type { Scene } from '../scene';

const WAITS: readonly FirstLineCode[] = ['first start', 'updates', 'memory test'];

/** The list of the first start, line by line. */
export function firstStartSteps(scene: Scene): StepDraft[] {
  const found = scene.firstStart;
  if ('code' in found) return [];
  return found.lines
    .filter((l) => !l.left)
    .map((l) => {
      const waits = WAITS.includes(l.code);
      return step(
        'first-start',
        `first:${l.key}`,
        { code: 'first start', line: l.code, of: l.of, why: l.why, set: found.record.set[l.key] ?? null },
        {
          after: [
            'write:*',
            'setup:*',
            'open:*',
            'inst:*',
            'back:*',
            'start:*',
            ...l.after.map((k) => `first:${k}`),
          ],
          hands: waits ? span(30, 90) : l.seconds,
          alone: waits ? l.seconds : span(0),
          pauses: !waits,
          seen: l.done,
          needs: ['monitor', 'keyboard', ...(l.code === 'network' ? (['wire'] as const) : [])],
          asks: l.code === 'sound output' ? 'words' : null,
        },
      );
    });
}
