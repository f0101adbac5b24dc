import { readBootCatalogue, type BootCatalogue } from '../formats/eltorito';
import { fatGeometry, openFat, type FatVolume } from '../formats/fat/read';
import type { FilesystemMark } from '../formats/filesystemMark';
import { recogniseFilesystem } from '../formats/filesystems';
import { readGpt, type Gpt } from '../formats/gpt/read';
import { openIso, type IsoVolume } from '../formats/iso9660/read';
import { isExtendedType, readMbr, type Mbr } from '../formats/mbr/read';
import { slice, type ByteSource } from '../formats/source';

/** One stretch of the image that may hold a file system, whatever named it. */
export interface Candidate {
  index: number;
  start: number;
  bytes: number;
  type: string;
  from: 'gpt' | 'mbr' | 'whole';
  active: boolean;
  /** Its name in the partition table; MBR tables keep none. */
  name: string;
  mark: FilesystemMark | undefined;
  fat: FatVolume | undefined;
}

/** Everything the readers found, before any judgement is made. */
export interface ImageFacts {
  source: ByteSource;
  head: Uint8Array;
  mbr: Mbr | undefined;
  gpt: Gpt | undefined;
  iso: IsoVolume | undefined;
  catalogue: BootCatalogue | undefined;
  candidates: Candidate[];
  layout: string;
}

function layoutName(facts: Pick<ImageFacts, 'mbr' | 'gpt' | 'iso'> & { fat: boolean }): string {
  const { mbr, gpt, iso } = facts;
  const hybridTable = gpt && mbr && mbr.entries.some((e) => e.type !== 0xee);
  if (iso) return gpt ? 'iso9660+gpt' : mbr ? 'iso9660+mbr' : 'iso9660';
  if (gpt) return hybridTable ? 'gpt+mbr' : 'gpt';
  if (mbr) return 'mbr';
  return facts.fat ? 'filesystem' : 'none';
}

async function candidate(source: ByteSource, base: Omit<Candidate, 'mark' | 'fat'>): Promise<Candidate> {
  const window = slice(source, base.start, base.bytes);
  const fat = await openFat(window);
  const mark = await recogniseFilesystem(window, fat);
  return { ...base, mark, fat };
}

/** Runs every reader over the image. All reads are bounded; nothing here judges. */
export async function readImage(source: ByteSource): Promise<ImageFacts> {
  const head = await source.read(0, 512);
  const iso = await openIso(source);
  const gpt = await readGpt(source);
  // A file system without any table has the same end mark in sector 0; its boot sector must not be read as a table.
  const mbr = await readMbr(source, gpt?.sectorSize ?? 512);
  const catalogue = iso?.bootCatalogue ? await readBootCatalogue(source, iso.bootCatalogue) : undefined;

  const found: Omit<Candidate, 'mark' | 'fat'>[] = [];
  for (const p of gpt?.parts ?? []) {
    found.push({
      index: p.index,
      start: p.start,
      bytes: p.bytes,
      type: p.typeGuid,
      from: 'gpt',
      active: false,
      name: p.name,
    });
  }
  for (const e of mbr?.entries ?? []) {
    const known = found.some((f) => f.start === e.start && f.bytes === e.bytes);
    if (e.type === 0xee || isExtendedType(e.type) || known) continue;
    const type = e.type.toString(16).padStart(2, '0');
    found.push({
      index: e.index,
      start: e.start,
      bytes: e.bytes,
      type,
      from: 'mbr',
      active: e.active,
      name: '',
    });
  }
  const superfloppy = !mbr && !gpt && fatGeometry(head) !== undefined;
  if (superfloppy) {
    found.push({
      index: 1,
      start: 0,
      bytes: source.size,
      type: 'filesystem',
      from: 'whole',
      active: false,
      name: '',
    });
  }
  const candidates: Candidate[] = [];
  for (const base of found) candidates.push(await candidate(source, base));
  if (candidates.length === 0) {
    const mark = await recogniseFilesystem(source);
    if (mark) {
      const bytes = iso?.bytes ?? source.size;
      candidates.push({
        index: 1,
        start: 0,
        bytes,
        type: mark.kind,
        from: 'whole',
        active: false,
        name: '',
        mark,
        fat: undefined,
      });
    }
  }
  const layout = layoutName({ mbr, gpt, iso, fat: superfloppy });
  return { source, head, mbr, gpt, iso, catalogue, candidates, layout };
}
