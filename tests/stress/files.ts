import { exportedFiles } from '@zb/core/exports/writers';
import {
  CANARY,
  fullBench,
  HOSTILE,
  hostileBench,
  hostileFolder,
} from '../../packages/core/test/hostileBench';
import { skeletonOf } from '../../packages/core/test/skeletons';
import { sleep, type Part } from './part';

const AT = '2026-03-05T18:00:00.000Z';

/**
 * The demo bench with a hostile text in every field, written to every file there is: strict readers find in each what they find
 * with harmless texts in the same fields, and nothing besides.
 */
export const files: Part = async ({ random, goOn, count, wrong }) => {
  const hall = fullBench();
  while (goOn()) {
    const turn = random.int(0, 1000);
    const { hostile, harmless, changed } = hostileBench(hall, turn);
    count('fields made hostile', changed);
    if (!JSON.stringify(hostile).includes(CANARY)) wrong(`turn ${turn} has no hostile text`);
    const boxes = random.some(hall.boxes, 2).map((b) => b.id);
    // Ids are hostile as well: the box is known by its place.
    for (const place of hall.boxes.flatMap((b, i) => (boxes.includes(b.id) ? [i] : []))) {
      const made = ([hostile, harmless] as const).map((bench, i) => {
        const box = bench.boxes[place]?.id ?? '';
        const out = new Map<string, string[]>();
        for (const f of exportedFiles({ bench, at: AT, folder: hostileFolder(i === 0) }, { box })) {
          let found: string;
          try {
            found = JSON.stringify(skeletonOf(f.format, f.content));
          } catch (error) {
            found = `not readable: ${String(error)}`;
            wrong(`turn ${turn}, ${f.writer}: ${found}`);
          }
          out.set(f.writer, [...(out.get(f.writer) ?? []), found].sort());
        }
        return out;
      });
      const [bad, good] = made;
      for (const writer of new Set([...(bad?.keys() ?? []), ...(good?.keys() ?? [])])) {
        const [a, b] = [bad?.get(writer)?.join('\n') ?? '', good?.get(writer)?.join('\n') ?? ''];
        if (a !== b)
          wrong(`turn ${turn} of ${HOSTILE.length} texts, box ${place}, ${writer}: the structure is another`);
        count('files compared', bad?.get(writer)?.length ?? 0);
      }
      await sleep(0);
    }
  }
};
