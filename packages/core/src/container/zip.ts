import { ZipReader, Reader, configure, type Entry } from '@zip.js/zip.js';
import { createCRC32 } from 'hash-wasm';
import { u16 } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import { damaged, faultOf, PackedFault } from './fault';
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

/** The one image of an archive: its name, its unpacked bytes, and its directory entry. */
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
  } catch (error) {
    throw faultOf(error);
  }
  const files = entries.filter((e) => !e.directory);
  const named = files.filter((e) => IMAGE_NAME.test(e.filename));
  const fit = named.length > 0 ? named : files.length === 1 ? files : [];
  const [entry] = fit;
  if (!entry || fit.length > 1)
    throw new PackedFault(
      fit.length > 1
        ? { code: 'several images', names: fit.map((e) => e.filename) }
        : { code: 'no image among them', files: files.length },
    );
  if (entry.encrypted) throw new PackedFault({ code: 'locked' });
  if (entry.compressionMethod !== STORED && entry.compressionMethod !== DEFLATED)
    throw new PackedFault({ code: 'method not read' });
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
  } catch (error) {
    throw faultOf(error);
  }
  if (length !== bytes || parseInt(crc.digest('hex'), 16) !== entry.signature) throw damaged();
}
