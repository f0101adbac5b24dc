import { formatExact, formatIec } from '../units/bytes';
import type { DumpComparison } from '../write/compareDump';
import type { Readback } from '../write/readback';

const at = (offset: number | null): string => `byte ${formatExact(offset ?? 0).replace(' bytes', '')}`;

/** What a read-back of a written stick means, and what to do. */
export function readbackWords(r: Readback): string {
  const place = at(r.firstDifference);
  switch (r.pattern) {
    case 'cut short':
      return `The stick went away after ${formatExact(r.there)} of ${formatExact(r.total)}. What is on it is not a whole image: do not start from it. Plug it in again and write from the beginning.`;
    case 'same':
      return `All ${formatExact(r.total)} were read back and agree with the image.`;
    case 'every n-th block':
      return `Every ${r.step}th block of ${formatIec(r.blockBytes)} differs, from ${place} on. One of several memory chips, or its line, is lost. Do not use the stick.`;
    case 'lying capacity':
      return `From ${place} on, what comes back is ${r.empty ? 'empty' : 'not what was sent'}. The stick claims more than it has: its real size is about ${formatIec(r.firstDifference ?? 0)}. Do not use it.`;
    case 'flipped bit':
      return `One single bit differs, at ${place} or shortly after; all else agrees. A weak cell. Write once more; if it differs again, discard the stick.`;
    case 'weak place':
      return `${r.differing === 1 ? 'One block' : 'Two blocks'} of ${formatIec(r.blockBytes)} at ${place} came back changed; all else agrees. The stick has a weak place there. Write once more; if it differs again, discard the stick.`;
    case 'changed by the first start':
      return 'Only the partition tables differ; every part agrees with the image. A first start, or a tool that moved the second copy to the end of the stick, does that. The parts were written well.';
    case 'scattered':
      return `${r.differing} of ${r.blocks} blocks came back changed, the first at ${place}. A bad port, cable or stick. Try another port, then another stick.`;
  }
}

/** What a comparison with a dump means: as a read-back says it, and what it says of a first start. */
export function dumpWords(d: DumpComparison): string {
  const beyond =
    d.beyond > 0
      ? ` The dump goes on for ${formatExact(d.beyond)} behind the image: the rest of the stick, not compared.`
      : '';
  if (d.pattern === 'cut short')
    return `The dump ends after ${formatExact(d.there)} of ${formatExact(d.imageBytes)}. ${d.differing === 0 ? 'What is there agrees with the image. ' : ''}Dump at least as much as the image has.`;
  if (d.grown)
    return `Its last part has grown from ${formatExact(d.grown.from)} to ${formatExact(d.grown.to)}: the system has started from it and fitted itself to the stick. That is normal for an image that grows; whether the write was good can only be told before the first start.${beyond}`;
  return `${readbackWords(d)}${beyond}`;
}
