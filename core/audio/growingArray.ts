/** A list of numbers that grows without boxing; used where one value comes every few milliseconds. */
export class GrowingArray {
  private values: Float64Array;
  length = 0;

  constructor(capacity = 1024) {
    this.values = new Float64Array(capacity);
  }

  push(value: number): void {
    if (this.length === this.values.length) {
      const larger = new Float64Array(this.values.length * 2);
      larger.set(this.values);
      this.values = larger;
    }
    this.values[this.length++] = value;
  }

  /** The values so far, without copying. */
  view(): Float64Array {
    return this.values.subarray(0, this.length);
  }

  /** Forgets the values and keeps the room for new ones. */
  clear(): void {
    this.length = 0;
  }
}
