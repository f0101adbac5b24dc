/** The two inner pieces of the decoder that are used: it keeps no types of its own. */
declare module 'unbzip2-stream/lib/bit_iterator.js' {
  interface Bits {
    (count: number | null): number;
    /** Bytes taken so far, the one under way included. */
    bytesRead: number;
  }
  export default function bitIterator(nextBuffer: () => Uint8Array): Bits;
}
declare module 'unbzip2-stream/lib/bzip2.js' {
  import type bitIterator from 'unbzip2-stream/lib/bit_iterator.js';
  type Bits = ReturnType<typeof bitIterator>;
  interface Bzip2 {
    /** Reads a stream's header and answers its block size in units of 100 000 bytes. */
    header(bits: Bits): number;
    /** Unpacks one block; answers the running sum, or null at the end of the stream. */
    decompress(
      bits: Bits,
      take: (byte: number) => void,
      work: Int32Array,
      size: number,
      sum: number | null,
    ): number | null;
  }
  const bzip2: Bzip2;
  export default bzip2;
}
