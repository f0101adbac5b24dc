import { openPacked } from '@zb/core/container/unpack';
import type { Packing } from '@zb/core/model/inspection';
import { openOwn, readFully } from './ownFile';

/** What is packed in a file of the server's own, piece by piece. Throws PackedFault, and the file system's error. */
export async function* unpacked(path: string, kind: Packing): AsyncGenerator<Uint8Array> {
  const file = await openOwn(path, 'read');
  try {
    const { size } = await file.stat();
    const packed = await openPacked(kind, {
      size,
      async read(offset, length) {
        const out = new Uint8Array(Math.max(0, Math.min(length, size - offset)));
        await readFully(file, out, offset);
        return out;
      },
    });
    yield* packed.content();
  } finally {
    await file.close();
  }
}
