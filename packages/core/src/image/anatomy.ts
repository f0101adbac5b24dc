import { allZero } from './bytes';
import { ESP_GUID, BIOS_BOOT_GUID } from './gpt';
import type { Candidate, ImageFacts } from './read';
import type { ImageRegion, Outcome } from './types';

const region = (
  start: number,
  bytes: number,
  kind: ImageRegion['kind'],
  title: string,
  detail = '',
  starts = false,
): ImageRegion => ({ start, bytes, kind, title, detail, starts });

function partRegion(facts: ImageFacts, c: Candidate, rows: Outcome[]): ImageRegion {
  const name = c.mark?.label ?? (c.type === BIOS_BOOT_GUID ? 'BIOS boot area' : `part ${c.index}`);
  const bits = [c.mark?.kind ?? (c.type === BIOS_BOOT_GUID ? 'boot code' : 'not recognised')];
  const loader = rows.filter(
    (r) => r.starts === 'yes' && r.evidence?.startsWith('/EFI') && c.fat !== undefined,
  );
  const holdsLoader = loader.find((r) => {
    const at = Number(/at byte (\d+)/.exec(r.evidence ?? '')?.[1]);
    return at >= c.start && at < c.start + c.bytes;
  });
  if (holdsLoader) bits.push(`starts from ${holdsLoader.evidence?.split(' ')[0]}`);
  else if (c.type === ESP_GUID) bits.push('EFI system partition, no loader for these machines');
  if (c.active) bits.push('active');
  const kind = c.start + c.bytes > facts.source.size ? 'beyond' : c.type === BIOS_BOOT_GUID ? 'code' : 'part';
  return region(c.start, c.bytes, kind, name, bits.join(' · '), holdsLoader !== undefined || c.active);
}

/**
 * The image as consecutive stretches by offset, gaps included, for the anatomy picture.
 * Overlaps (hybrid optical images map the whole volume as a part) keep the narrower stretch.
 */
export function anatomy(facts: ImageFacts, rows: Outcome[]): ImageRegion[] {
  const { gpt, mbr, iso, source } = facts;
  const found: ImageRegion[] = [];
  if (mbr || gpt) {
    const empty = allZero(facts.head.subarray(0, 440));
    found.push(
      region(
        0,
        512,
        empty ? 'table' : 'code',
        empty ? 'Partition record' : 'Boot code',
        empty ? 'no boot code' : 'and the record of sector 0',
      ),
    );
  }
  for (const [which, copy] of [
    ['first copy', gpt?.primary],
    ['second copy', gpt?.backup],
  ] as const) {
    if (!gpt || !copy) continue;
    const start = Math.min(copy.header, copy.array);
    const end = Math.max(copy.header + gpt.sectorSize, copy.array + copy.arrayBytes);
    const state = copy.sound ? 'sound, CRC-32 agrees' : copy.faults.join('; ');
    found.push(region(start, Math.min(end, source.size) - start, 'table', `GPT, ${which}`, state));
  }
  if (iso) {
    // ECMA-119 §6.2.1: the first sixteen sectors are left to the system and hold nothing of the volume.
    if (!mbr && !gpt) found.push(region(0, 32768, 'gap', 'System area', 'left free by the standard'));
    found.push(region(32768, 2048 * 2, 'table', 'Volume descriptors', 'ISO 9660'));
    for (const e of facts.catalogue?.entries ?? []) {
      if (!e.bootable) continue;
      found.push(
        region(
          e.offset,
          Math.max(e.loadBytes, 2048),
          'code',
          `Boot image, ${e.platform === 'uefi' ? 'UEFI' : 'BIOS'}`,
          'El Torito',
          true,
        ),
      );
    }
  }
  for (const c of facts.candidates) found.push(partRegion(facts, c, rows));

  const cuts = [...new Set([0, source.size, ...found.flatMap((r) => [r.start, r.start + r.bytes])])].sort(
    (a, b) => a - b,
  );
  const out: ImageRegion[] = [];
  for (let i = 0; i + 1 < cuts.length; i += 1) {
    const from = cuts[i] ?? 0;
    const to = cuts[i + 1] ?? 0;
    const owner = found
      .filter((r) => r.start <= from && r.start + r.bytes >= to)
      .sort((a, b) => a.bytes - b.bytes)[0];
    const piece =
      owner ?? region(from, to - from, from >= source.size ? 'beyond' : 'gap', 'Free', 'belongs to no part');
    const last = out[out.length - 1];
    if (last && last.title === piece.title && last.kind === piece.kind && last.detail === piece.detail)
      last.bytes += to - from;
    else out.push({ ...piece, start: from, bytes: to - from });
  }
  return out;
}
