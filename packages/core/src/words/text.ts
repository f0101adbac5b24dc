/** A count with its noun: “1 port”, “3 ports”. */
export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** Names in a row. */
export const list = (names: readonly string[]): string => names.join(', ');

/** A sentence begins with a capital. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A large count with its thousands apart. */
export const counted = (n: number): string => n.toLocaleString('en');

/** Words as they stand within a sentence: “Fresh” becomes “fresh”, “18 W” and “VRR” stay. */
export const within = (text: string): string =>
  /^\p{Lu}(?!\p{Lu})/u.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text;
