import { anatomy } from '../image/anatomy';
import { findings, packedFinding } from '../image/findings';
import { bootVolumes } from '../image/loaders';
import { fileCopy } from './fileCopy';
import { identityOf } from './identity';
import { outcomes, packedOutcomes } from './outcome';
import { readImage } from '../image/read';
import type { TrustedKey } from '../image/signature';
import { cachedSource, type ByteSource } from '../formats/source';
import { hexOf } from '../formats/bytes';
import { containerKind } from '../container/kind';
import { READING_RULES, type ContainerKind, type ImageReading, type Inspection } from '../model/inspection';

/** How an image is read. */
export interface InspectOptions {
  /** Certificates the machine's firmware trusts (its db); without them a signature's trust stays unknown. */
  keys?: readonly TrustedKey[] | undefined;
}

/** Reads an image that is not packed: tables, file systems, loaders, and what all of it will start on. */
export async function readDisk(source: ByteSource, options: InspectOptions = {}): Promise<ImageReading> {
  const facts = await readImage(cachedSource(source));
  const volumes = await bootVolumes(facts, options.keys);
  const rows = await outcomes(facts, volumes);
  const loaders = volumes.flatMap((v) => v.loaders);
  return {
    bytes: source.size,
    layout: facts.layout,
    sectorSize: facts.gpt?.sectorSize ?? 512,
    parts: facts.candidates.map((c) => ({
      index: c.index,
      start: c.start,
      bytes: c.bytes,
      type: c.type,
      filesystem: c.mark?.kind ?? null,
      label: c.mark?.label ?? null,
      uuid: c.mark?.uuid ?? null,
      filesystemBytes: c.mark?.bytes ?? null,
      active: c.active,
      name: c.name,
    })),
    loaders: loaders.map((l) => ({
      path: l.path,
      machine: l.machine,
      signed: l.signed,
      signers: l.signers,
      fault: l.fault,
      place: l.place,
      offset: l.offset,
      bytes: l.bytes,
      removable: l.removable,
    })),
    outcomes: rows,
    regions: await anatomy(facts, volumes, rows),
    findings: await findings(facts, loaders),
    fileCopy: facts.iso ? await fileCopy(facts.source, facts.iso) : null,
    identity: await identityOf(facts, volumes, rows),
  };
}

async function packed(source: ByteSource, kind: ContainerKind): Promise<ImageReading> {
  return {
    bytes: source.size,
    layout: 'none',
    sectorSize: 512,
    parts: [],
    loaders: [],
    outcomes: packedOutcomes(kind),
    regions: [
      {
        start: 0,
        bytes: source.size,
        kind: 'part',
        title: `${kind} file`,
        detail: 'packed; its content is read by unpacking it',
        starts: false,
        fields: [],
        hex: hexOf(await source.read(0, 64)),
      },
    ],
    findings: [packedFinding(kind)],
    fileCopy: null,
    identity: null,
  };
}

/**
 * Reads an image's tables and file systems and says what it will start on. Reads a few hundred kilobytes at most
 * places, never the whole; throws only what the source throws. A packed file is named and not unpacked: see
 * container/read.ts for what is inside.
 */
export async function inspectImage(source: ByteSource, options: InspectOptions = {}): Promise<Inspection> {
  const kind = containerKind(await source.read(0, 512));
  const reading = kind === 'none' ? await readDisk(source, options) : await packed(source, kind);
  return {
    ...reading,
    rules: READING_RULES,
    container: { kind, innerName: null, innerBytes: null, innerSha256: null },
    inner: null,
  };
}
