import type { SignatureCheck } from '@zb/core/checksum/signature';
import { told } from '../storage/told';

/** The checksum list that lies open in the image room, and what its signature said. */
export interface RoomList {
  text: string;
  /** The list byte for byte, as a signature is over it. */
  bytes: Blob;
  from: string;
  signature: SignatureCheck | null;
}

/** What the image room holds while the application is open; files cannot be kept by a browser. */
interface Room {
  /** Names of files that wait to be read, in order. */
  waiting: string[];
  list: RoomList | null;
  /** Files that were opened, by the image they became. */
  files: ReadonlyMap<string, File>;
}

const room = told<Room>({ waiting: [], list: null, files: new Map() });
const queue: File[] = [];
let running = false;

const set = (change: Partial<Room>): void => room.set({ ...room.now(), ...change });

export const useRoom = room.use;
export const roomNow = room.now;
export const setRoomList = (list: RoomList | null): void => set({ list });
export const keepFile = (imageId: string, file: File): void =>
  set({ files: new Map(room.now().files).set(imageId, file) });

/** Reads files one after the other, so that each has the whole machine; goes on while the user looks elsewhere. */
export async function readInTurn(
  files: readonly File[],
  read: (file: File) => Promise<unknown>,
): Promise<void> {
  queue.push(...files);
  set({ waiting: queue.map((f) => f.name) });
  if (running) return;
  running = true;
  try {
    for (let next = queue.shift(); next; next = queue.shift()) {
      set({ waiting: queue.map((f) => f.name) });
      await read(next);
    }
  } finally {
    running = false;
    set({ waiting: [] });
  }
}

/** Lets go of what waits; what is being read goes on. */
export function forgetWaiting(): void {
  queue.length = 0;
  set({ waiting: [] });
}
