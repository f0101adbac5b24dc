import type { ByteSource } from '../formats/source';
import { PackedFault } from './fault';
import { PAGE, type KeptPages } from './keptPages';

/** More passes than any real image needs; a chain that is scattered on purpose must not hold anybody up for ever. */
const MAX_PASSES = 24;

/**
 * A packed image as a source to read from: pages that are at hand are answered at once; for any other the content is
 * unpacked again from the front, and the reading goes on when its page comes by.
 */
export class PassSource implements ByteSource {
  private readonly waiting = new Map<number, ((page: Uint8Array) => void)[]>();
  private wake: () => void = () => undefined;
  private over = false;

  constructor(
    readonly size: number,
    private readonly pages: KeptPages,
    private readonly content: () => AsyncGenerator<Uint8Array>,
  ) {}

  async read(offset: number, length: number): Promise<Uint8Array> {
    const from = Math.max(0, offset);
    const to = Math.min(this.size, offset + length);
    if (to <= from) return new Uint8Array(0);
    const out = new Uint8Array(to - from);
    for (let page = Math.floor(from / PAGE); page * PAGE < to; page += 1) {
      const bytes = this.pages.get(page, this.size) ?? (await this.later(page));
      const begin = Math.max(from, page * PAGE);
      out.set(
        bytes.subarray(begin - page * PAGE, Math.min(to, (page + 1) * PAGE) - page * PAGE),
        begin - from,
      );
    }
    return out;
  }

  private later(page: number): Promise<Uint8Array> {
    return new Promise((give) => {
      this.waiting.set(page, [...(this.waiting.get(page) ?? []), give]);
      this.wake();
    });
  }

  /** Resolves when somebody waits for a page, or when the work is over. */
  private async asked(): Promise<void> {
    if (!this.over && this.waiting.size === 0) await new Promise<void>((go) => (this.wake = go));
  }

  /** Runs `work` over this source, unpacking as often as it asks for what is not at hand; undefined where stopped. */
  async serve<T>(work: Promise<T>, stopped: () => boolean): Promise<T | undefined> {
    const end = (): void => {
      this.over = true;
      this.wake();
    };
    work.then(end, end);
    for (let pass = 0; ; pass += 1) {
      await this.asked();
      if (this.over) return work;
      if (pass === MAX_PASSES) throw new PackedFault({ code: 'scattered' });
      await this.pass(stopped);
      if (stopped()) return undefined;
    }
  }

  /** Unpacks from the front until nobody waits for anything that is still ahead. */
  private async pass(stopped: () => boolean): Promise<void> {
    this.pages.forget();
    for await (const piece of this.content()) {
      this.pages.take(piece);
      // Whoever got a page may ask for its neighbour, which is at hand.
      while (this.give()) await this.asked();
      const ahead = [...this.waiting.keys()].some((page) => (page + 1) * PAGE > this.pages.at);
      if (this.over || stopped() || !ahead) return;
    }
    while (this.give()) await this.asked();
  }

  private give(): boolean {
    let gave = false;
    for (const [page, waiting] of [...this.waiting]) {
      const bytes = this.pages.get(page, this.size);
      if (!bytes) continue;
      this.waiting.delete(page);
      for (const give of waiting) give(bytes);
      gave = true;
    }
    return gave;
  }
}
