import type { Packing } from '../model/inspection';
import type { ByteSource } from '../formats/source';
import { unbzip2 } from './bzip2';
import { gunzip } from './gzip';
import { PackedSource } from './packedSource';
import { unxz } from './xz';
import { imageInZip, unzip } from './zip';
import { unzstd } from './zstd';

/** A packed file, ready to be unpacked as often as is wanted. */
export interface Packed {
  /** Name of the image inside, where the container keeps one. */
  innerName: string | null;
  /** Its size in bytes where the container tells it beforehand. */
  innerBytes: number | null;
  /** The content from the front; throws PackedFault where it is damaged. */
  content: () => AsyncGenerator<Uint8Array>;
  /** Reads what no unpacking asked for, so that every byte of the file went by once. */
  rest: () => Promise<void>;
}

/**
 * Opens a packed file. `fresh` is handed every byte of the file once and in order while it is being unpacked. Only a few
 * pieces are in memory at a time, whatever the sizes.
 */
export async function openPacked(
  kind: Packing,
  source: ByteSource,
  fresh: (piece: Uint8Array) => void = () => undefined,
): Promise<Packed> {
  const packed = new PackedSource(source, fresh);
  const rest = (): Promise<void> => packed.rest();
  if (kind === 'zip') {
    const image = await imageInZip(source);
    return { innerName: image.name, innerBytes: image.bytes, content: () => unzip(packed, image), rest };
  }
  const content = { gzip: gunzip, xz: unxz, zstd: unzstd, bzip2: unbzip2 }[kind];
  return { innerName: null, innerBytes: null, content: () => content(packed), rest };
}
