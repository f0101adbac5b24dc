/**
 * What is said by its code: a sentence, or a sentence with why it matters. `{name}` is filled with the value of that name.
 */
export type PracticeTable = Readonly<Record<string, string | readonly [said: string, why: string]>>;
