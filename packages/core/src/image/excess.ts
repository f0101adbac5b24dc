import { allZero } from '../formats/bytes';
import type { ImageFacts } from './read';
import type { ImageFinding } from '../model/imageFinding';

/** So much is looked at behind the last named byte, and as much again at the end: bounds what a long tail costs. */
const LOOK = 64 * 1024;
/** Makers of optical images fill up to whole tracks with this much (150 sectors of 2048 bytes): common practice. */
const PADDING = 150 * 2048;

/**
 * What stands behind everything that the image names. Zeros are room or padding; anything else was appended by somebody,
 * and comes along when the image is written.
 */
export async function excess(facts: ImageFacts, wanted: number): Promise<ImageFinding[]> {
  const { gpt, source } = facts;
  const backupEnd = gpt?.backup ? gpt.backup.header + gpt.sectorSize : 0;
  const end = Math.max(wanted, backupEnd, gpt?.primary ? gpt.primary.array + gpt.primary.arrayBytes : 512);
  const over = source.size - end;
  if (over <= 0) return [];
  for (const at of [end, Math.max(end, source.size - LOOK)]) {
    const piece = await source.read(at, LOOK);
    if (allZero(piece)) continue;
    const first = at + piece.findIndex((x) => x !== 0);
    return [
      {
        grade: 'check',
        fault: { code: 'appended', bytes: over },
        offset: first,
      },
    ];
  }
  // Free room behind the last part of a table is usual; behind a volume that tells its own size it is padding.
  const volume = facts.iso !== undefined || facts.candidates.some((c) => c.from === 'whole');
  return volume && over > PADDING
    ? [{ grade: 'note', fault: { code: 'padded with zeros', bytes: over }, offset: end }]
    : [];
}
