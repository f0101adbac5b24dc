/** So often a thread tells how far it is. */
const EVERY_MS = 100;

/** Tells a share (0 to 1) now and then: every one would keep the page busy with listening. */
export function paced(tell: (share: number) => void): (share: number) => void {
  let before = performance.now();
  return (share) => {
    const now = performance.now();
    if (now - before < EVERY_MS) return;
    before = now;
    tell(share);
  };
}
