/** One block that differs: its place in blocks, whether it came back empty, and how many bits are wrong where that is known. */
export interface BlockResult {
  index: number;
  zeros: boolean;
  bits?: number;
}

/** What a read-back looks like; each has a cause of its own. */
export type ReadbackPattern =
  | 'same'
  | 'lying capacity'
  | 'flipped bit'
  | 'weak place'
  | 'every n-th block'
  | 'changed by the first start'
  | 'scattered'
  | 'cut short';

/** What a block-by-block comparison means, as data; words/readback.ts says it. Bytes. */
export interface Readback {
  result: 'proven' | 'failed';
  pattern: ReadbackPattern;
  /** Byte offset of the first block that differs; null where none does. */
  firstDifference: number | null;
  /** Blocks that differ, of all, and the size of one. */
  differing: number;
  blocks: number;
  blockBytes: number;
  total: number;
  /** Bytes that reached the stick, or that there are to compare. */
  there: number;
  /** Every so many blocks one differs; null where they keep no step. */
  step: number | null;
  /** All that differs came back empty. */
  empty: boolean;
}

/** The step between bad blocks where they stand in a row of equal steps; undefined where they do not. */
function stepOf(bad: readonly BlockResult[]): number | undefined {
  const step = (bad[1]?.index ?? 0) - (bad[0]?.index ?? 0);
  // Four of them could hardly keep step by chance.
  if (bad.length < 4 || step < 2) return undefined;
  return bad.every((b, i) => b.index === (bad[0]?.index ?? 0) + i * step) ? step : undefined;
}

/**
 * Says what a block-by-block comparison means. `blockBytes` is the size of a block, `total` the image's bytes,
 * `writtenBytes` what reached the stick, or what there is of it to compare.
 * Patterns are common practice, no source: zeros or strangers from one place to the end are a lying capacity; every
 * n-th block is a controller that loses one chip of several; one bit is a weak cell.
 */
export function explainReadback(
  bad: readonly BlockResult[],
  blockBytes: number,
  total: number,
  writtenBytes: number,
): Readback {
  const [first] = bad;
  const blocks = Math.ceil(total / blockBytes);
  const base = {
    blocks,
    blockBytes,
    total,
    there: writtenBytes,
    step: null,
    empty: bad.length > 0 && bad.every((b) => b.zeros),
  };
  if (writtenBytes < total)
    return {
      ...base,
      result: 'failed',
      pattern: 'cut short',
      firstDifference: writtenBytes,
      differing: Math.ceil((total - writtenBytes) / blockBytes),
    };
  if (!first) return { ...base, result: 'proven', pattern: 'same', firstDifference: null, differing: 0 };
  const failed = (pattern: ReadbackPattern, step: number | null = null): Readback => ({
    ...base,
    result: 'failed',
    pattern,
    step,
    firstDifference: first.index * blockBytes,
    differing: bad.length,
  });
  const step = stepOf(bad);
  if (step !== undefined) return failed('every n-th block', step);
  const tail =
    bad.length > 1 && bad.every((b, i) => b.index === first.index + i) && first.index + bad.length === blocks;
  if (tail || (bad.length > 1 && bad.filter((b) => b.zeros).length > bad.length / 2))
    return failed('lying capacity');
  if (bad.length === 1 && first.bits === 1) return failed('flipped bit');
  return failed(bad.length <= 2 ? 'weak place' : 'scattered');
}
