/** As much of the statistics package as is used; it ships no types of its own. */
declare module 'jstat' {
  // One value for all: named exports of it are found by bundlers only, not by Node itself.
  const jstat: {
    beta: { inv(p: number, alpha: number, beta: number): number };
    /** Incomplete beta function, regularised. */
    ibeta(x: number, a: number, b: number): number;
    studentt: { inv(p: number, df: number): number; cdf(t: number, df: number): number };
    noncentralt: { cdf(t: number, df: number, noncentrality: number): number };
    /** Logarithm of the number of ways to choose r of n. */
    combinationln(n: number, r: number): number;
  };
  export default jstat;
}
