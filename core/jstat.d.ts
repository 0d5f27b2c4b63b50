/** As much of the statistics package as is used; it ships no types of its own. */
declare module 'jstat' {
  export const jStat: {
    beta: { inv(p: number, alpha: number, beta: number): number };
    /** Logarithm of the number of ways to choose r of n. */
    combinationln(n: number, r: number): number;
  };
}
