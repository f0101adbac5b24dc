/** The lower triangle L with L·Lᵀ = A of a symmetric positive definite matrix (Golub and Van Loan, Matrix Computations, 4.2). */
export function cholesky(a: readonly (readonly number[])[]): Float64Array[] {
  const n = a.length;
  const out = Array.from({ length: n }, () => new Float64Array(n));
  for (let i = 0; i < n; i += 1) {
    const row = out[i] as Float64Array;
    for (let j = 0; j <= i; j += 1) {
      const other = out[j] as Float64Array;
      let sum = a[i]?.[j] ?? 0;
      for (let k = 0; k < j; k += 1) sum -= (row[k] as number) * (other[k] as number);
      row[j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / (other[j] as number);
    }
  }
  return out;
}

/** L·x = b, solved from the first line on. */
export function forward(l: readonly Float64Array[], b: readonly number[]): number[] {
  const x: number[] = [];
  l.forEach((row, i) => {
    let sum = b[i] ?? 0;
    for (let k = 0; k < i; k += 1) sum -= (row[k] as number) * (x[k] as number);
    x.push(sum / (row[i] as number));
  });
  return x;
}
