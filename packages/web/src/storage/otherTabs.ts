import { z } from 'zod';
import type { Done } from './keeper';

const messageSchema = z.discriminatedUnion('kind', [
  // What was done comes from the same page in another tab; storage, not the message, is what counts.
  z.object({ kind: z.literal('changed'), done: z.custom<Done>().optional() }),
  z.object({ kind: z.literal('who has a bench') }),
  z.object({ kind: z.literal('has a bench'), name: z.string() }),
]);
type Message = z.infer<typeof messageSchema>;

/** Long enough for a tab in the background, short enough not to be felt. Milliseconds. */
const ANSWER_MS = 400;

/** What the tabs of this application tell each other. Does nothing where the browser has no channel for it. */
export class OtherTabs {
  private readonly channel =
    typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('zealous-box');

  /** Asked when the page opens, so that nobody waits for it where a bench is to be begun. */
  private asked: Promise<string | null> | null;

  /** `onChanged` gets what was done, or undefined where all is to be read anew; `shown` answers the name of the bench on this tab's screen; null where there is none. */
  constructor(onChanged: (done: Done | undefined) => void, shown: () => string | null) {
    this.listen((message) => {
      if (message.kind === 'changed') onChanged(message.done);
      if (message.kind !== 'who has a bench') return;
      const name = shown();
      if (name !== null) this.tell({ kind: 'has a bench', name });
    });
    this.asked = this.ask();
  }

  private listen(hear: (message: Message) => void): () => void {
    const on = (e: MessageEvent<unknown>): void => {
      const { data } = messageSchema.safeParse(e.data);
      if (data) hear(data);
    };
    this.channel?.addEventListener('message', on);
    return () => this.channel?.removeEventListener('message', on);
  }

  tell(message: Message): void {
    this.channel?.postMessage(message);
  }

  /** All of it is another than it was: to be read anew. */
  tellAnew(): void {
    this.tell({ kind: 'changed' });
  }

  /** The name of a bench that another tab has on its screen; null where none says so. */
  bench(): Promise<string | null> {
    const answer = this.asked ?? this.ask();
    this.asked = null;
    return answer;
  }

  private async ask(): Promise<string | null> {
    if (!this.channel) return null;
    return new Promise((resolve) => {
      const done = (name: string | null): void => {
        clearTimeout(timer);
        stop();
        resolve(name);
      };
      const stop = this.listen((m) => m.kind === 'has a bench' && done(m.name));
      const timer = setTimeout(() => done(null), ANSWER_MS);
      this.tell({ kind: 'who has a bench' });
    });
  }
}
