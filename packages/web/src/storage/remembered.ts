/*
 * Small things a browser remembers beside the bench. Where it keeps nothing, or lets nobody look, only a convenience is
 * lost: what was said counts until the page is closed.
 */
type Where = 'local' | 'session';
const area = (where: Where): Storage => (where === 'local' ? localStorage : sessionStorage);

/** What is remembered under a name; null where nothing is, or nothing can be. */
export function recall(name: string, where: Where = 'local'): string | null {
  try {
    return area(where).getItem(name);
  } catch {
    return null;
  }
}

/** Remembers it for all tabs and times, or (`session`) as long as the tab; null forgets it. */
export function remember(name: string, value: string | null, where: Where = 'local'): void {
  try {
    if (value === null) area(where).removeItem(name);
    else area(where).setItem(name, value);
  } catch {
    // Said above.
  }
}
