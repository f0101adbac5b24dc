import { bootCodeKind } from './bootCode';
import { allZero, hexOf } from '../formats/bytes';
import { bootEntryFields, gptFields, partFields, recordFields, volumeFields } from './decode';
import { BIOS_BOOT_GUID, ESP_GUID } from '../formats/gpt/layout';
import type { BootVolume, FoundLoader } from './loaders';
import type { Candidate, ImageFacts } from './read';
import type { ImageRegion, Outcome } from '../model/inspection';

/** So much of a stretch is kept to be seen without the file. */
const SHOWN = 128;
type Found = Omit<ImageRegion, 'hex'>;

const within = (at: number, c: { start: number; bytes: number }): boolean =>
  at >= c.start && at < c.start + c.bytes;

/** Loaders that firmware finds by itself and that can run: what "starts from" means. */
const starting = (loaders: readonly FoundLoader[], rows: readonly Outcome[]): FoundLoader | undefined =>
  loaders.find(
    (l) =>
      l.removable &&
      l.fault === null &&
      rows.some(
        (r) =>
          r.firmware === `uefi-${l.machine}` &&
          r.chain.some((c) => c.rung === 'loader' && c.state === 'whole'),
      ),
  );

async function partRegion(
  facts: ImageFacts,
  c: Candidate,
  all: FoundLoader[],
  rows: Outcome[],
): Promise<Found> {
  const boot = c.type === BIOS_BOOT_GUID;
  const loaders = all.filter((l) => within(l.offset, c));
  const bits = [c.mark?.kind ?? (boot ? 'boot code' : 'not recognised')];
  const first = starting(loaders, rows);
  if (first) bits.push('firmware starts it');
  else if (c.type === ESP_GUID) bits.push('EFI system partition, no loader for these machines');
  if (c.active) bits.push('active');
  const head = await facts.source.read(c.start, 512);
  return {
    start: c.start,
    bytes: c.bytes,
    kind: c.start + c.bytes > facts.source.size ? 'beyond' : boot ? 'code' : 'part',
    title: c.mark?.label ?? (c.name || (boot ? 'BIOS boot area' : `part ${c.index}`)),
    detail: bits.join(' · '),
    starts: first !== undefined || c.active,
    fields: partFields(c, head, loaders),
  };
}

function tables(facts: ImageFacts): Found[] {
  const { gpt, mbr, iso, source, head } = facts;
  const out: Found[] = [];
  if (mbr || gpt) {
    const empty = allZero(head.subarray(0, 440));
    out.push({
      start: 0,
      bytes: 512,
      kind: empty ? 'table' : 'code',
      title: empty ? 'Partition record' : 'Boot code',
      detail: empty
        ? 'no boot code'
        : `${mbr ? `${bootCodeKind(mbr.bootCode)}, ` : ''}and the record of sector 0`,
      starts: false,
      fields: recordFields(head, mbr),
    });
  }
  for (const [which, copy] of [
    ['first copy', gpt?.primary],
    ['second copy', gpt?.backup],
  ] as const) {
    if (!gpt || !copy) continue;
    const start = Math.min(copy.header, copy.array);
    const end = Math.max(copy.header + gpt.sectorSize, copy.array + copy.arrayBytes);
    out.push({
      start,
      bytes: Math.min(end, source.size) - start,
      kind: 'table',
      title: `GPT, ${which}`,
      detail: copy.sound ? 'sound, CRC-32 agrees' : copy.faults.join('; '),
      starts: false,
      fields: gptFields(copy, gpt.sectorSize),
    });
  }
  // Each table of a chain of logical drives stands in a sector of its own, in front of its drive.
  for (const e of mbr?.entries.filter((x) => x.index > 4) ?? [])
    out.push({
      start: e.at - 446,
      bytes: 512,
      kind: 'table',
      title: `Table of part ${e.index}`,
      detail: 'one of a chain',
      starts: false,
      fields: [],
    });
  if (iso) {
    // ECMA-119 §6.2.1: the first sixteen sectors are left to the system and hold nothing of the volume.
    const free = {
      kind: 'gap',
      title: 'System area',
      detail: 'left free by the standard',
      starts: false,
    } as const;
    if (!mbr && !gpt) out.push({ start: 0, bytes: 32768, ...free, fields: [] });
    out.push({
      start: 32768,
      bytes: 2048 * 2,
      kind: 'table',
      title: 'Volume descriptors',
      detail: `ISO 9660${iso.udf ? ' and UDF' : ''}, ${iso.names === 'plain' ? 'plain' : iso.names} names`,
      starts: false,
      fields: volumeFields(iso),
    });
  }
  return out;
}

function bootImages(facts: ImageFacts, all: FoundLoader[]): Found[] {
  return (facts.catalogue?.entries ?? [])
    .filter((e) => e.bootable)
    .map((e) => {
      const bytes = Math.max(e.loadBytes, 2048);
      const loaders = all.filter((l) => within(l.offset, { start: e.offset, bytes }));
      return {
        start: e.offset,
        bytes,
        kind: 'code',
        title: `Boot image, ${e.platform === 'uefi' ? 'UEFI' : 'BIOS'}`,
        detail: 'El Torito',
        starts: true,
        fields: [
          ...bootEntryFields(e),
          ...loaders.map((l) => ({
            offset: l.offset,
            name: l.path,
            value: `${l.machine ?? 'not a loader'}`,
          })),
        ],
      } satisfies Found;
    });
}

/** Consecutive stretches from overlapping ones: of two that share bytes the narrower is drawn. */
function laidOut(found: Found[], size: number): Found[] {
  const cuts = [...new Set([0, size, ...found.flatMap((r) => [r.start, r.start + r.bytes])])].sort(
    (a, b) => a - b,
  );
  const out: Found[] = [];
  for (let i = 0; i + 1 < cuts.length; i += 1) {
    const from = cuts[i] ?? 0;
    const to = cuts[i + 1] ?? 0;
    const owner = found
      .filter((r) => r.start <= from && r.start + r.bytes >= to)
      .sort((a, b) => a.bytes - b.bytes)[0];
    const piece = owner ?? {
      start: from,
      bytes: to - from,
      kind: from >= size ? ('beyond' as const) : ('gap' as const),
      title: 'Free',
      detail: 'belongs to no part',
      starts: false,
      fields: [],
    };
    const last = out[out.length - 1];
    if (last && last.title === piece.title && last.kind === piece.kind && last.detail === piece.detail)
      last.bytes += to - from;
    else out.push({ ...piece, start: from, bytes: to - from });
  }
  return out;
}

/**
 * The image as consecutive stretches by offset, gaps included, for the anatomy picture; each with its first bytes and
 * its decoded fields. Overlaps (hybrid optical images map the whole volume as a part) keep the narrower stretch.
 */
export async function anatomy(
  facts: ImageFacts,
  volumes: BootVolume[],
  rows: Outcome[],
): Promise<ImageRegion[]> {
  const loaders = volumes.flatMap((v) => v.loaders);
  const found = [...tables(facts), ...bootImages(facts, loaders)];
  for (const c of facts.candidates) found.push(await partRegion(facts, c, loaders, rows));
  const out: ImageRegion[] = [];
  for (const r of laidOut(
    found.filter((r) => r.bytes > 0),
    facts.source.size,
  ))
    out.push({ ...r, hex: hexOf(await facts.source.read(r.start, Math.min(SHOWN, r.bytes))) });
  return out;
}
