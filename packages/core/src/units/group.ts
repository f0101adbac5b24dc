/** Things by what they have in common, each lot in the order they came; those without a key are passed over. */
export function grouped<T, K>(things: Iterable<T>, keyOf: (thing: T) => K | undefined): Map<K, T[]> {
  const out = new Map<K, T[]>();
  for (const thing of things) {
    const key = keyOf(thing);
    if (key === undefined) continue;
    const there = out.get(key);
    if (there) there.push(thing);
    else out.set(key, [thing]);
  }
  return out;
}
