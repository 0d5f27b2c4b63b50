/** Which candidate was recorded under which condition, by their places. */
export interface CellPlace {
  candidate: number;
  condition: number;
}

/** Of a candidate's own size, less than this is left of it once those before it are taken out. */
const NONE = 1e-9;

/**
 * Least squares of a part of each candidate and a part of each condition, of which there may be thousands: conditions are taken out of
 * the normal equations first, each by itself, so that only candidates are left to be solved for. With room for its work, so that nothing
 * is made anew in thousands of fits.
 */
export class ConditionFit {
  private readonly normal: Float64Array;
  private readonly right: Float64Array;
  private readonly part: Float64Array;
  private readonly ofCondition: Float64Array;
  private readonly weightOf: Float64Array;
  private readonly meanOf: Float64Array;
  /** By candidate the first of those that it can be held against, itself among them; by condition the same of whoever was there, or -1. */
  private readonly group: Int32Array;
  private readonly groupOf: Int32Array;
  /** Cells by condition. */
  private readonly inCondition: Int32Array[];

  constructor(
    private readonly cells: readonly CellPlace[],
    private readonly candidates: number,
    conditions: number,
  ) {
    this.normal = new Float64Array(candidates * candidates);
    this.right = new Float64Array(candidates);
    this.part = new Float64Array(candidates);
    this.ofCondition = new Float64Array(conditions);
    this.weightOf = new Float64Array(conditions);
    this.meanOf = new Float64Array(conditions);
    this.group = new Int32Array(candidates);
    this.groupOf = new Int32Array(conditions);
    const lists = Array.from({ length: conditions }, (): number[] => []);
    for (const [at, { condition }] of cells.entries()) lists[condition]?.push(at);
    this.inCondition = lists.map((list) => Int32Array.from(list));
  }

  /**
   * Fits anew.
   * @param values one a cell; of a cell without weight it may be anything
   */
  fit(values: Float64Array, weights: Float64Array): void {
    this.tie(weights);
    this.gather(values, weights);
    this.solve();
    for (let condition = 0; condition < this.inCondition.length; condition++) {
      let below = 0;
      for (const at of this.inCondition[condition] as Int32Array) below += (weights[at] as number) * (this.part[(this.cells[at] as CellPlace).candidate] as number);
      const weight = this.weightOf[condition] as number;
      this.ofCondition[condition] = weight === 0 ? 0 : (this.meanOf[condition] as number) - below / weight;
    }
  }

  /** What a candidate comes to under a condition; NaN where nobody leads from the one to the other. */
  at(candidate: number, condition: number): number {
    const there = this.groupOf[condition] as number;
    if (there < 0 || this.first(candidate) !== there) return Number.NaN;
    return (this.part[candidate] as number) + (this.ofCondition[condition] as number);
  }

  /** Whether two candidates met, by themselves or by way of others. */
  areTied = (a: number, b: number): boolean => this.first(a) === this.first(b);

  private first(candidate: number): number {
    let at = candidate;
    while (this.group[at] !== at) at = this.group[at] as number;
    return at;
  }

  private tie(weights: Float64Array): void {
    for (let candidate = 0; candidate < this.candidates; candidate++) this.group[candidate] = candidate;
    for (const own of this.inCondition) {
      let before = -1;
      for (const at of own) {
        if (weights[at] === 0) continue;
        const now = this.first((this.cells[at] as CellPlace).candidate);
        if (before >= 0 && before !== now) this.group[Math.max(before, now)] = Math.min(before, now);
        before = before < 0 ? now : Math.min(before, now);
      }
    }
    for (let condition = 0; condition < this.inCondition.length; condition++) {
      const there = (this.inCondition[condition] as Int32Array).find((at) => weights[at] !== 0);
      this.groupOf[condition] = there === undefined ? -1 : this.first((this.cells[there] as CellPlace).candidate);
    }
  }

  private gather(values: Float64Array, weights: Float64Array): void {
    const { normal, right, cells, candidates } = this;
    normal.fill(0);
    right.fill(0);
    for (let condition = 0; condition < this.inCondition.length; condition++) {
      const own = this.inCondition[condition] as Int32Array;
      let [whole, sum] = [0, 0];
      for (const at of own) {
        if (weights[at] === 0) continue;
        whole += weights[at] as number;
        sum += (weights[at] as number) * (values[at] as number);
      }
      this.weightOf[condition] = whole;
      this.meanOf[condition] = whole === 0 ? 0 : sum / whole;
      for (const at of own) {
        const weight = weights[at] as number;
        if (weight === 0) continue;
        const { candidate } = cells[at] as CellPlace;
        normal[candidate * candidates + candidate]! += weight;
        right[candidate]! += weight * ((values[at] as number) - sum / whole);
        for (const other of own) normal[candidate * candidates + (cells[other] as CellPlace).candidate]! -= (weight * (weights[other] as number)) / whole;
      }
    }
  }

  /** By Gauss and Jordan; of each group the last candidate follows from the others, and is the nought of them. */
  private solve(): void {
    const { normal, right, part, candidates } = this;
    for (let at = 0; at < candidates; at++) part[at] = normal[at * candidates + at] as number;
    for (let at = 0; at < candidates; at++) {
      const left = normal[at * candidates + at] as number;
      if (left <= NONE * (part[at] as number)) {
        part[at] = -1;
        continue;
      }
      for (let row = 0; row < candidates; row++) {
        const share = (normal[row * candidates + at] as number) / left;
        if (row === at || share === 0) continue;
        for (let column = at + 1; column < candidates; column++) normal[row * candidates + column]! -= share * (normal[at * candidates + column] as number);
        right[row]! -= share * (right[at] as number);
      }
    }
    for (let at = 0; at < candidates; at++) part[at] = part[at] === -1 ? 0 : (right[at] as number) / (normal[at * candidates + at] as number);
  }
}
