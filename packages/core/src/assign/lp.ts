/** Linear expressions and a model in the LP text format that solvers of mixed-integer programs read. */
export interface Term {
  name: string;
  by: number;
}

/** One constraint: the sum of coefficient × variable lies between its bounds. */
export interface Row {
  terms: Term[];
  sign: '<=' | '>=' | '=';
  is: number;
}

/** A mixed-integer model: what is made as large as possible, under which constraints. */
export interface Model {
  /** To be made as large as possible. */
  objective: Term[];
  rows: Row[];
  binary: string[];
  /** Whole numbers from 0 to the bound. */
  whole: { name: string; most: number }[];
  /** Any numbers from 0 to the bound. */
  any?: { name: string; most: number }[];
}

/** Exact decimals: the format knows no exponents everywhere, and sizes here are small whole units. */
const number = (n: number): string => (Number.isInteger(n) ? String(n) : n.toFixed(9));

const expression = (terms: readonly Term[]): string =>
  terms
    .filter((t) => t.by !== 0)
    .map((t) => `${t.by < 0 ? '-' : '+'} ${number(Math.abs(t.by))} ${t.name}`)
    .join('\n ');

/** The model as text. `relaxed` lets every variable take fractions, for an upper bound. */
export function lpText(model: Model, relaxed = false): string {
  const rows = model.rows.flatMap((r, i) => {
    const left = expression(r.terms);
    return left === '' ? [] : [` r${i}: ${left} ${r.sign} ${number(r.is)}`];
  });
  const bounds = [
    ...(relaxed ? model.binary.map((b) => ` 0 <= ${b} <= 1`) : []),
    ...[...model.whole, ...(model.any ?? [])].map((w) => ` 0 <= ${w.name} <= ${w.most}`),
  ];
  return [
    'Maximize',
    ` obj: ${expression(model.objective) || '+ 0 nothing'}`,
    'Subject To',
    ...(rows.length > 0 ? rows : [' r: + 1 nothing <= 0']),
    'Bounds',
    ' 0 <= nothing <= 0',
    ...bounds,
    ...(relaxed || model.binary.length === 0 ? [] : ['Binary', ...model.binary.map((b) => ` ${b}`)]),
    ...(relaxed || model.whole.length === 0 ? [] : ['General', ...model.whole.map((w) => ` ${w.name}`)]),
    'End',
    '',
  ].join('\n');
}

/** What a solver answers; `values` by the variable's name. */
export interface Solved {
  status: 'optimal' | 'stopped' | 'infeasible';
  objective: number;
  values: ReadonlyMap<string, number>;
}

/** A solver of such texts, given from outside: core carries none. */
export type SolveLp = (text: string, seconds: number) => Solved;
