import { XzReadableStream } from 'xz-decompress';
import { faultOf, PackedFault } from './fault';
import type { PackedSource } from './packedSource';
import { piecesOf, streamOf, type PieceStream } from './streams';

/** The decoder's word for a file that asks for what it cannot do; for .xz that is a check other than CRC-32 and CRC-64. */
const OPTIONS_FAULT = 'code 6';

/** Unpacks an .xz file (format 1.0.4), several streams in a row too. */
export async function* unxz(packed: PackedSource): AsyncGenerator<Uint8Array> {
  try {
    const stream = new XzReadableStream(streamOf(packed.pieces()) as never) as unknown as PieceStream;
    yield* piecesOf(stream);
  } catch (error) {
    if (String(error).includes(OPTIONS_FAULT)) throw new PackedFault({ code: 'xz check not read' });
    throw faultOf(error);
  }
}
