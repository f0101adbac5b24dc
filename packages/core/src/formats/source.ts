/**
 * Where image bytes come from: a File in a page, a file handle on the server, an array in a test.
 * Offsets and lengths are bytes. A read past the end returns what there is, never an error.
 */
export interface ByteSource {
  readonly size: number;
  read(offset: number, length: number): Promise<Uint8Array>;
}

/** An array as a source. */
export function bytesSource(bytes: Uint8Array): ByteSource {
  return {
    size: bytes.length,
    read: (offset, length) => Promise.resolve(bytes.subarray(offset, offset + Math.max(0, length))),
  };
}

/** A window into another source, clipped to it; how a partition is handed to a file-system reader. */
export function slice(source: ByteSource, start: number, length: number): ByteSource {
  const size = Math.max(0, Math.min(length, source.size - start));
  return {
    size,
    read: (offset, wanted) =>
      offset < 0 || offset >= size
        ? Promise.resolve(new Uint8Array(0))
        : source.read(start + offset, Math.min(wanted, size - offset)),
  };
}

const PAGE = 16 * 1024;

/**
 * Keeps recently read pages, since directory and FAT walks return to the same few places.
 * Also counts what was really read, so that "inspect only" can be held to a bound.
 */
export function cachedSource(source: ByteSource, maxPages = 128): ByteSource & { bytesRead(): number } {
  const pages = new Map<number, Promise<Uint8Array>>();
  let total = 0;
  const page = (index: number): Promise<Uint8Array> => {
    const known = pages.get(index);
    if (known) return known;
    const fresh = source.read(index * PAGE, PAGE).then((bytes) => {
      total += bytes.length;
      return bytes;
    });
    pages.set(index, fresh);
    if (pages.size > maxPages) pages.delete(pages.keys().next().value ?? index);
    return fresh;
  };
  return {
    size: source.size,
    bytesRead: () => total,
    async read(offset, length) {
      const start = Math.max(0, offset);
      const end = Math.min(source.size, offset + length);
      if (end <= start) return new Uint8Array(0);
      const out = new Uint8Array(end - start);
      for (let index = Math.floor(start / PAGE); index * PAGE < end; index += 1) {
        const bytes = await page(index);
        const from = Math.max(start, index * PAGE);
        const to = Math.min(end, index * PAGE + bytes.length);
        if (to > from) out.set(bytes.subarray(from - index * PAGE, to - index * PAGE), from - start);
      }
      return out;
    },
  };
}
