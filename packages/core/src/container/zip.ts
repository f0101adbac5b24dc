import { ZipReader, Reader, configure, type Entry } from '@zip.js/zip.js';
import { createCRC32 } from 'hash-wasm';
import { u16 } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import { DAMAGED, PackedFault } from './fault';
import type { PackedSource } from './packedSource';
import { inflate } from './streams';

// Only the directory is read by the library; nothing of it needs a worker.
configure({ useWebWorkers: false });

/** Names that a disk image inside an archive has: common practice, no source. */
const IMAGE_NAME = /\.(img|iso|raw|bin|dd|wic|hddimg|usb)$/i;
/** Bytes of a local header before its names: APPNOTE 4.3.7. */
const LOCAL_HEADER = 30;
const STORED = 0;
const DEFLATED = 8;

class SourceReader extends Reader<ByteSource> {
  constructor(private readonly from: ByteSource) {
    super(from);
    this.size = from.size;
  }
  override readUint8Array(index: number, length: number): Promise<Uint8Array<ArrayBuffer>> {
    return this.from.read(index, length) as Promise<Uint8Array<ArrayBuffer>>;
  }
}

export interface ZippedImage {
  name: string;
  bytes: number;
  entry: Entry;
}

/** The one image in a zip archive; of several files the one that is named like an image. */
export async function imageInZip(source: ByteSource): Promise<ZippedImage> {
  let entries: Entry[];
  try {
    entries = await new ZipReader(new SourceReader(source)).getEntries();
  } catch {
    throw new PackedFault(DAMAGED);
  }
  const files = entries.filter((e) => !e.directory);
  const named = files.filter((e) => IMAGE_NAME.test(e.filename));
  const fit = named.length > 0 ? named : files.length === 1 ? files : [];
  const [entry] = fit;
  if (!entry || fit.length > 1)
    throw new PackedFault(
      fit.length > 1
        ? `This archive holds ${fit.length} images (${fit.map((e) => e.filename).join(', ')}). Unpack it and open the one you want.`
        : `This archive holds ${files.length} files, none of them named like a disk image. Unpack it and open the one you want.`,
    );
  if (entry.encrypted)
    throw new PackedFault('This archive is locked with a password. Unpack it and open what is inside.');
  if (entry.compressionMethod !== STORED && entry.compressionMethod !== DEFLATED)
    throw new PackedFault(
      'This archive is packed by a method that is not read here. Unpack it and open what is inside.',
    );
  return { name: entry.filename, bytes: entry.uncompressedSize, entry };
}

/** Unpacks the image of a zip archive, held against the CRC-32 of its directory (APPNOTE 4.4.7). */
export async function* unzip(
  packed: PackedSource,
  { entry, bytes }: ZippedImage,
): AsyncGenerator<Uint8Array> {
  const header = await packed.source.read(entry.offset, LOCAL_HEADER);
  const from = entry.offset + LOCAL_HEADER + u16(header, 26) + u16(header, 28);
  const pieces = packed.pieces(from, Math.min(packed.source.size, from + entry.compressedSize));
  const crc = await createCRC32();
  let length = 0;
  crc.init();
  try {
    for await (const piece of entry.compressionMethod === STORED ? pieces : inflate(pieces, 'deflate-raw')) {
      crc.update(piece);
      length += piece.length;
      yield piece;
    }
  } catch {
    throw new PackedFault(DAMAGED);
  }
  if (length !== bytes || parseInt(crc.digest('hex'), 16) !== entry.signature) throw new PackedFault(DAMAGED);
}
