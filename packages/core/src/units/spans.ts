/** Whole numbers as ranges, both ends within, in rising order and with a gap between any two. */
export type Spans = readonly (readonly [bigint, bigint])[];

/** Ranges in any order, touching or overlapping, as spans. */
export function spansOf(ranges: Iterable<readonly [bigint, bigint]>): Spans {
  const sorted = [...ranges].filter(([a, b]) => a <= b).sort((x, y) => (x[0] < y[0] ? -1 : 1));
  const out: [bigint, bigint][] = [];
  for (const [from, to] of sorted) {
    const last = out.at(-1);
    if (last && from <= last[1] + 1n) last[1] = to > last[1] ? to : last[1];
    else out.push([from, to]);
  }
  return out;
}

/** One number as spans. */
export const point = (n: bigint | number): Spans => [[BigInt(n), BigInt(n)]];
/** One range of small numbers as spans. */
export const range = (from: number, to: number): Spans => [[BigInt(from), BigInt(to)]];

/** What is in any of them. */
export const joinSpans = (...all: readonly Spans[]): Spans => spansOf(all.flat());

/** What is in both. */
export function sharedSpans(a: Spans, b: Spans): Spans {
  const out: [bigint, bigint][] = [];
  let i = 0;
  let j = 0;
  for (;;) {
    const x = a[i];
    const y = b[j];
    if (!x || !y) return out;
    const from = x[0] > y[0] ? x[0] : y[0];
    const to = x[1] < y[1] ? x[1] : y[1];
    if (from <= to) out.push([from, to]);
    if (x[1] < y[1]) i += 1;
    else j += 1;
  }
}

/** What is in the first and not in the second. */
export function lessSpans(a: Spans, b: Spans): Spans {
  const out: [bigint, bigint][] = [];
  for (const [start, end] of a) {
    let from = start;
    for (const [low, high] of b) {
      if (high < from) continue;
      if (low > end) break;
      if (low > from) out.push([from, low - 1n]);
      from = high + 1n;
      if (from > end) break;
    }
    if (from <= end) out.push([from, end]);
  }
  return out;
}

/** Whether a number is in them. */
export function inSpans(spans: Spans, n: bigint): boolean {
  let low = 0;
  let high = spans.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    const at = spans[middle];
    if (!at) return false;
    if (n < at[0]) high = middle;
    else if (n > at[1]) low = middle + 1;
    else return true;
  }
  return false;
}

/** Whether everything of the first is in the second. */
export const withinSpans = (a: Spans, b: Spans): boolean => lessSpans(a, b).length === 0;
