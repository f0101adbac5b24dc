import { formatExact, formatIec } from '../units/bytes';

/** One block that differs: its place in blocks, whether it came back empty, and how many bits are wrong where that is known. */
export interface BlockResult {
  index: number;
  zeros: boolean;
  bits?: number;
}

export type ReadbackPattern =
  | 'same'
  | 'lying capacity'
  | 'flipped bit'
  | 'weak place'
  | 'every n-th block'
  | 'changed by the first start'
  | 'scattered'
  | 'cut short';

export interface Readback {
  result: 'proven' | 'failed';
  pattern: ReadbackPattern;
  explanation: string;
  /** Byte offset of the first block that differs; null where none does. */
  firstDifference: number | null;
  differing: number;
}

const at = (offset: number): string => `byte ${formatExact(offset).replace(' bytes', '')}`;

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
  if (writtenBytes < total) {
    return {
      result: 'failed',
      pattern: 'cut short',
      explanation: `The stick went away after ${formatExact(writtenBytes)} of ${formatExact(total)}. What is on it is not a whole image: do not start from it. Plug it in again and write from the beginning.`,
      firstDifference: writtenBytes,
      differing: Math.ceil((total - writtenBytes) / blockBytes),
    };
  }
  if (!first) {
    return {
      result: 'proven',
      pattern: 'same',
      explanation: `All ${formatExact(total)} were read back and agree with the image.`,
      firstDifference: null,
      differing: 0,
    };
  }
  const blocks = Math.ceil(total / blockBytes);
  const place = first.index * blockBytes;
  const tail =
    bad.length > 1 && bad.every((b, i) => b.index === first.index + i) && first.index + bad.length === blocks;
  const base = { result: 'failed' as const, firstDifference: place, differing: bad.length };
  const step = stepOf(bad);
  if (step !== undefined)
    return {
      ...base,
      pattern: 'every n-th block',
      explanation: `Every ${step}th block of ${formatIec(blockBytes)} differs, from ${at(place)} on. One of several memory chips, or its line, is lost. Do not use the stick.`,
    };
  if (tail || (bad.length > 1 && bad.filter((b) => b.zeros).length > bad.length / 2)) {
    return {
      ...base,
      pattern: 'lying capacity',
      explanation: `From ${at(place)} on, what comes back is ${bad.every((b) => b.zeros) ? 'empty' : 'not what was sent'}. The stick claims more than it has: its real size is about ${formatIec(place)}. Do not use it.`,
    };
  }
  if (bad.length === 1 && first.bits === 1)
    return {
      ...base,
      pattern: 'flipped bit',
      explanation: `One single bit differs, at ${at(place)} or shortly after; all else agrees. A weak cell. Write once more; if it differs again, discard the stick.`,
    };
  if (bad.length <= 2) {
    return {
      ...base,
      pattern: 'weak place',
      explanation: `${bad.length === 1 ? 'One block' : 'Two blocks'} of ${formatIec(blockBytes)} at ${at(place)} came back changed; all else agrees. The stick has a weak place there. Write once more; if it differs again, discard the stick.`,
    };
  }
  return {
    ...base,
    pattern: 'scattered',
    explanation: `${bad.length} of ${blocks} blocks came back changed, the first at ${at(place)}. A bad port, cable or stick. Try another port, then another stick.`,
  };
}
