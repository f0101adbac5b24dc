/** Lanczos' coefficients for g = 7 (as tabulated by Godfrey, 2001; from memory, checked against SciPy). */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** Natural logarithm of the gamma function for x > 0 (Lanczos, 1964). */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const z = x - 1;
  const t = z + 7.5;
  let sum = LANCZOS[0] ?? 1;
  for (let i = 1; i < LANCZOS.length; i += 1) sum += (LANCZOS[i] ?? 0) / (z + i);
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const TINY = 1e-300;
const ENOUGH = 1e-16;

/** A continued fraction by the modified method of Lentz (Thompson and Barnett, 1986). */
function lentz(first: number, term: (i: number) => [number, number]): number {
  let f = first === 0 ? TINY : first;
  let c = f;
  let d = 0;
  for (let i = 1; i <= 500; i += 1) {
    const [a, b] = term(i);
    d = b + a * d;
    c = b + a / c;
    if (d === 0) d = TINY;
    if (c === 0) c = TINY;
    d = 1 / d;
    const step = c * d;
    f *= step;
    if (Math.abs(step - 1) < ENOUGH) break;
  }
  return f;
}

/** Regularised incomplete beta function I_x(a, b), 0 ≤ x ≤ 1 (DLMF §8.17). */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  // DLMF 8.17.22: odd and even terms of its fraction.
  const fraction = lentz(0, (i) => {
    if (i === 1) return [1, 1];
    const j = i - 1;
    const m = Math.floor(j / 2);
    const d =
      j % 2 === 0
        ? (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
        : (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    return [d, 1];
  });
  return (front / a) * fraction;
}

/** Upper tail of the regularised incomplete gamma function, Q(a, x) (DLMF §8.9, §8.11). */
export function gammaTail(a: number, x: number): number {
  if (x <= 0) return 1;
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < 1000 && term > sum * ENOUGH; n += 1) {
      term *= x / (a + n);
      sum += term;
    }
    return 1 - front * sum;
  }
  return front * lentz(0, (i) => (i === 1 ? [1, x + 1 - a] : [-(i - 1) * (i - 1 - a), x + 2 * i - 1 - a]));
}
