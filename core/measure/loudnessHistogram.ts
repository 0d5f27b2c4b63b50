const BINS_A_DB = 100;
const BINS = 100 * BINS_A_DB;

/**
 * Powers of blocks over an absolute gate, counted in steps of 0.01 dB with the exact sum of each step,
 * so that a file of any length takes the same memory. Only where a gate falls inside a step is the mean
 * not exact: blocks of that step count if their mean passes the gate.
 */
export class LoudnessHistogram {
  private readonly counts = new Float64Array(BINS);
  private readonly sums = new Float64Array(BINS);

  constructor(private readonly gate: number) {}

  add(power: number): void {
    if (power <= this.gate) return;
    const bin = Math.min(BINS - 1, Math.floor(10 * BINS_A_DB * Math.log10(power / this.gate)));
    this.counts[bin] = (this.counts[bin] as number) + 1;
    this.sums[bin] = (this.sums[bin] as number) + power;
  }

  /** Mean power of the blocks above a gate; null when there is none. */
  meanAbove(gate: number): number | null {
    let sum = 0;
    let count = 0;
    for (let bin = this.firstBin(gate); bin < BINS; bin++) {
      sum += this.sums[bin] as number;
      count += this.counts[bin] as number;
    }
    return count > 0 ? sum / count : null;
  }

  /** Mean power over both gates of ITU-R BS.1770-5: the absolute one, and 10 LU under what passes it. */
  gatedMean(): number | null {
    const ungated = this.meanAbove(0);
    return ungated === null ? null : this.meanAbove(ungated * 10 ** -1);
  }

  /** The power that a share of the blocks above a gate stays under, by nearest rank. */
  quantileAbove(gate: number, share: number): number | null {
    const first = this.firstBin(gate);
    let total = 0;
    for (let bin = first; bin < BINS; bin++) total += this.counts[bin] as number;
    let rank = Math.round((total - 1) * share);
    for (let bin = first; bin < BINS; bin++) {
      const count = this.counts[bin] as number;
      if (count > 0 && rank < count) return (this.sums[bin] as number) / count;
      rank -= count;
    }
    return null;
  }

  private firstBin(gate: number): number {
    if (gate <= this.gate) return 0;
    const bin = Math.floor(10 * BINS_A_DB * Math.log10(gate / this.gate));
    const count = this.counts[bin] ?? 0;
    return count > 0 && (this.sums[bin] as number) / count > gate ? bin : bin + 1;
  }
}
