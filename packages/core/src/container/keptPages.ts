export const PAGE = 64 * 1024;
/** Pages that stay at hand behind the newest one: longer than any piece that a decoder gives. */
const WINDOW = 64;

/** Pages of an unpacked image that goes by from the front: those that are wanted are kept, others for a little while. */
export class KeptPages {
  private readonly kept = new Map<number, Uint8Array>();
  private readonly recent = new Map<number, Uint8Array>();
  /** Bytes that have gone by since the front. */
  at = 0;

  constructor(private readonly wanted: (page: number) => boolean) {}

  take(piece: Uint8Array): void {
    const end = this.at + piece.length;
    for (let page = Math.floor(this.at / PAGE); page * PAGE < end; page += 1) {
      const from = Math.max(this.at, page * PAGE);
      let bytes = this.recent.get(page);
      if (!bytes) {
        bytes = new Uint8Array(PAGE);
        this.recent.set(page, bytes);
      }
      bytes.set(
        piece.subarray(from - this.at, Math.min(end, (page + 1) * PAGE) - this.at),
        from - page * PAGE,
      );
    }
    this.at = end;
    for (const [page, bytes] of this.recent) {
      if (page >= Math.floor(end / PAGE) - WINDOW) break;
      if (this.wanted(page)) this.kept.set(page, bytes);
      this.recent.delete(page);
    }
  }

  /** Keeps what is at hand and begins again at the front. */
  restart(): void {
    for (const [page, bytes] of this.recent) this.kept.set(page, bytes);
    this.recent.clear();
    this.at = 0;
  }

  /** Begins again at the front; what was not asked for is let go. */
  forget(): void {
    this.recent.clear();
    this.at = 0;
  }

  /** A page that is whole and still at hand, and stays so from now on. */
  get(page: number, size: number): Uint8Array | undefined {
    const kept = this.kept.get(page);
    if (kept) return kept;
    const bytes = this.recent.get(page);
    if (!bytes || this.at < Math.min(size, (page + 1) * PAGE)) return undefined;
    this.kept.set(page, bytes);
    return bytes;
  }
}
