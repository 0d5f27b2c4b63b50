/**
 * Time in which the energy still to come of a response falls by 60 dB, read from -5 to -25 dB of
 * Schroeder's backward sum (ISO 3382-2, T20).
 */
export function decayTimeOfResponseS(response: Float64Array, rateHz: number): number {
  let remaining = 0;
  const energies = new Float64Array(response.length);
  for (let index = response.length - 1; index >= 0; index--) {
    remaining += (response[index] as number) ** 2;
    energies[index] = remaining;
  }
  const levelAt = (index: number) => 10 * Math.log10((energies[index] as number) / remaining);
  let first = 0;
  while (levelAt(first) > -5) first++;
  let last = first;
  while (last < response.length - 1 && levelAt(last) > -25) last++;
  return (60 * (last - first)) / rateHz / (levelAt(first) - levelAt(last));
}
