/** A record of JSON before anything is known of its shape. */
export type Plain = Record<string, unknown>;

/** A value as such a record; undefined where it is none. */
export const plain = (value: unknown): Plain | undefined =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Plain) : undefined;

/** Every record of a list made anew; what is none is left as it is, so that validation can say what is wrong with it. */
export const each = (value: unknown, make: (record: Plain, i: number) => Plain): unknown =>
  Array.isArray(value) ? value.map((x, i) => (plain(x) ? make(x as Plain, i) : (x as unknown))) : value;
