import { expose, transfer } from 'comlink';

/** Reads pieces of a file on a thread of its own, so that reading and digesting go on at the same time. */
const api = {
  async read(file: Blob, from: number, length: number): Promise<ArrayBuffer> {
    const bytes = await file.slice(from, from + length).arrayBuffer();
    return transfer(bytes, [bytes]);
  },
};

export type PieceWorker = typeof api;
expose(api);
