/** Why a text is no drive's table that can be taken. Nothing is changed by it. */
export type TableFault =
  | { code: 'not JSON' }
  | { code: 'nothing known' }
  | { code: 'no such drive'; drives: string[] }
  | { code: 'no bytes' }
  | { code: 'rounded' }
  | { code: 'odd sectors'; bytes: number }
  | { code: 'bad line'; line: number }
  | { code: 'bad dump'; words: string };

/** A text that is no table; `fault` says why. */
export class TableError extends Error {
  override readonly name = 'TableError';
  constructor(readonly fault: TableFault) {
    super(fault.code);
  }
}
