/** Sums of all values before each place, so that the mean of any stretch is one subtraction. One longer than the values. */
export function runningSums(values: Float64Array): Float64Array {
  const sums = new Float64Array(values.length + 1);
  for (let index = 0; index < values.length; index++) sums[index + 1] = (sums[index] as number) + (values[index] as number);
  return sums;
}

/** Mean of what lies within the values between two places; of the first or the last one where nothing does. */
export function meanBetween(sums: Float64Array, from: number, to: number): number {
  const count = sums.length - 1;
  const first = Math.min(count - 1, Math.max(0, from));
  const end = Math.max(first + 1, Math.min(count, to));
  return ((sums[end] as number) - (sums[first] as number)) / (end - first);
}
