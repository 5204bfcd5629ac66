/** Natural logarithm of the gamma function, by Lanczos' series (g = 7, nine terms; from memory, held to tables in the tests). */
function logGamma(x: number): number {
  const c = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  const t = x + 6.5;
  const sum = c.reduce((s, v, i) => (i === 0 ? v : s + v / (x - 1 + i)), 0);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/** Share of a chi-square of so many degrees of freedom that lies under x: the incomplete gamma function by its series. */
export function chiSquareShare(x: number, freedom: number): number {
  if (x <= 0) return 0;
  const [a, z] = [freedom / 2, x / 2];
  let term = 1 / a;
  let sum = term;
  for (let k = 1; k < 2000 && term > 1e-15 * sum; k++) {
    term *= z / (a + k);
    sum += term;
  }
  return Math.min(1, sum * Math.exp(a * Math.log(z) - z - logGamma(a)));
}

/** The x under which that share lies. */
export function chiSquareAt(share: number, freedom: number): number {
  let [low, high] = [0, freedom + 10 * Math.sqrt(2 * freedom) + 40];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (chiSquareShare(middle, freedom) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
