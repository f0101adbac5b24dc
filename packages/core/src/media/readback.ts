import { formatExact, formatIec } from '../units/bytes';

/** One block of the comparison: did the stick return what was sent, and if not, only zeros? */
export interface BlockResult {
  index: number;
  same: boolean;
  zeros: boolean;
}

export interface Readback {
  result: 'proven' | 'failed';
  pattern: 'same' | 'lying capacity' | 'weak place' | 'scattered' | 'cut short';
  explanation: string;
  /** Byte offset of the first block that differs; null where none does. */
  firstDifference: number | null;
  differing: number;
}

/**
 * Says what a block-by-block comparison means. `blockBytes` is the size of a block, `total` the image's bytes,
 * `writtenBytes` what reached the stick before it ended.
 * Patterns are common practice, no source: zeros or strangers from one place to the end are a lying capacity.
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
  const at = first.index * blockBytes;
  const tail =
    bad.length > 1 && bad.every((b, i) => b.index === first.index + i) && first.index + bad.length === blocks;
  const base = { result: 'failed' as const, firstDifference: at, differing: bad.length };
  if (tail || (bad.length > 1 && bad.filter((b) => b.zeros).length > bad.length / 2)) {
    return {
      ...base,
      pattern: 'lying capacity',
      explanation: `From byte ${formatExact(at).replace(' bytes', '')} on, what comes back is ${bad.every((b) => b.zeros) ? 'empty' : 'not what was sent'}. The stick claims more than it has: its real size is about ${formatIec(at)}. Do not use it.`,
    };
  }
  if (bad.length <= 2) {
    return {
      ...base,
      pattern: 'weak place',
      explanation: `${bad.length === 1 ? 'One block' : 'Two blocks'} of ${formatIec(blockBytes)} at byte ${formatExact(at).replace(' bytes', '')} came back changed; all else agrees. The stick has a weak place there. Write once more; if it differs again, discard the stick.`,
    };
  }
  return {
    ...base,
    pattern: 'scattered',
    explanation: `${bad.length} of ${blocks} blocks came back changed, the first at byte ${formatExact(at).replace(' bytes', '')}. A bad port, cable or stick. Try another port, then another stick.`,
  };
}
