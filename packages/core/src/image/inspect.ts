import { anatomy } from './anatomy';
import { findings } from './findings';
import { outcomes } from './outcome';
import { readImage } from './read';
import { cachedSource, type ByteSource } from './source';
import type { Inspection } from './types';

/**
 * Reads an image's tables and file systems and says what it will start on. Reads a few hundred kilobytes at most
 * places, never the whole; throws only what the source throws.
 */
export async function inspectImage(source: ByteSource): Promise<Inspection> {
  const facts = await readImage(cachedSource(source));
  const rows = await outcomes(facts);
  return {
    bytes: source.size,
    container: { kind: facts.container },
    layout: facts.layout,
    parts: facts.candidates.map((c) => ({
      index: c.index,
      start: c.start,
      bytes: c.bytes,
      type: c.type,
      filesystem: c.mark?.kind ?? null,
      label: c.mark?.label ?? null,
    })),
    outcomes: rows,
    regions: anatomy(facts, rows),
    findings: findings(facts),
  };
}
