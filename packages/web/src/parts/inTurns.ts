/** Milliseconds after which work on the page's own thread rests. */
const TURN_MS = 8;

/** Lets the page draw and hear before work goes on. */
const rest = (): Promise<void> =>
  new Promise((go) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      go();
    };
    port2.postMessage(null);
  });

/** Does something with each of many in turns, so that the page stays quick; ends where nobody wants it any more. */
export async function inTurns<T>(
  all: Iterable<T>,
  work: (one: T) => void,
  wanted: () => boolean = () => true,
): Promise<void> {
  let since = performance.now();
  for (const one of all) {
    if (!wanted()) return;
    work(one);
    if (performance.now() - since < TURN_MS) continue;
    await rest();
    since = performance.now();
  }
}
