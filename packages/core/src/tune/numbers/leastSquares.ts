/** A linear model fitted by least squares. */
export interface Fitted {
  /** One for each column. */
  coefficients: number[];
  /** Of the coefficients, without the spread of what is left: (XᵀX)⁻¹. */
  unscaled: number[][];
  residuals: number[];
  /** Sum of squares of what is left. */
  squares: number;
  /** Degrees of freedom left. */
  dof: number;
}

/** The inverse of a small symmetric matrix by elimination with pivots; undefined where it has none. */
export function inverse(matrix: readonly (readonly number[])[]): number[][] | undefined {
  const n = matrix.length;
  const a = matrix.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  const scale = Math.max(...matrix.map((row, i) => Math.abs(row[i] ?? 0)));
  for (let c = 0; c < n; c += 1) {
    let best = c;
    for (let r = c + 1; r < n; r += 1) if (Math.abs(a[r]?.[c] ?? 0) > Math.abs(a[best]?.[c] ?? 0)) best = r;
    const pivot = a[best];
    const there = a[c];
    if (!pivot || !there || Math.abs(pivot[c] ?? 0) <= scale * 1e-13) return undefined;
    a[best] = there;
    const by = pivot[c] ?? 1;
    const unit = pivot.map((v) => v / by);
    a[c] = unit;
    a.forEach((row, r) => {
      const factor = row[c] ?? 0;
      if (r !== c && factor !== 0) a[r] = row.map((v, j) => v - factor * (unit[j] ?? 0));
    });
  }
  return a.map((row) => row.slice(n));
}

/**
 * Fits y = Σ coefficient × column. `rows`: what each value of `y` has in each column. Undefined where the columns do not tell
 * the coefficients apart.
 */
export function leastSquares(rows: readonly (readonly number[])[], y: readonly number[]): Fitted | undefined {
  const k = rows[0]?.length ?? 0;
  const gram = Array.from({ length: k }, (_, i) =>
    Array.from({ length: k }, (_, j) => rows.reduce((s, r) => s + (r[i] ?? 0) * (r[j] ?? 0), 0)),
  );
  const unscaled = inverse(gram);
  if (!unscaled) return undefined;
  const right = Array.from({ length: k }, (_, i) =>
    rows.reduce((s, r, at) => s + (r[i] ?? 0) * (y[at] ?? 0), 0),
  );
  const coefficients = unscaled.map((row) => row.reduce((s, v, j) => s + v * (right[j] ?? 0), 0));
  const residuals = rows.map(
    (r, at) => (y[at] ?? 0) - r.reduce((s, v, j) => s + v * (coefficients[j] ?? 0), 0),
  );
  return {
    coefficients,
    unscaled,
    residuals,
    squares: residuals.reduce((s, r) => s + r * r, 0),
    dof: rows.length - k,
  };
}
