/** What a sentence of an exercise is filled with: names as they are, `bytes` in bytes, `minutes` in minutes. */
export type Values = Readonly<Record<string, string | number>>;

/** Something said in an exercise, as data; words/practice makes the sentence. */
export interface Said {
  code: string;
  values: Values;
}
/** A code with what its sentence is filled with. */
export const said = (code: string, values: Values = {}): Said => ({ code, values });

/** What stands in a table or on a screen: a name or figure of the made-up world, or something said. */
export type Part = string | Said;
