import { HALVING_WASM } from './halving.wasm.ts';
import { type KernelExports, openKernel } from './kernel.ts';

/** Zeros of a stage at half of its rate. */
export const ORDER = 6;
const HISTORY = 8;
/** The most samples that come at once. */
export const MOST_AT_ONCE = 8192;

/** Every second sample of a stream behind the weights 1 6 15 20 15 6 1. */
export interface Halving {
  /** Writes every second sample and returns how many that were; input and output may be the same array. */
  halve(input: Float64Array, frames: number, output: Float64Array): number;
}

interface HalvingExports extends KernelExports {
  open(): void;
  historyPlace(): number;
  keptPlace(): number;
  halve(first: number, count: number): number;
}

/** A stream that begins, in the fastest form that runs here. */
export const openHalving = (): Halving => kernelHalving() ?? new PlainHalving();

/** In WebAssembly with SIMD; null where there is none. */
export function kernelHalving(): Halving | null {
  const kernel = openKernel<HalvingExports>(HALVING_WASM);
  if (!kernel) return null;
  kernel.open();
  const all = new Float64Array(kernel.memory.buffer, kernel.historyPlace(), HISTORY + MOST_AT_ONCE);
  const kept = new Float64Array(kernel.memory.buffer, kernel.keptPlace(), MOST_AT_ONCE / 2);
  let before = 0;
  let first = 0;
  return {
    halve(input, frames, output) {
      all.copyWithin(0, before, before + HISTORY);
      all.set(frames === input.length ? input : input.subarray(0, frames), HISTORY);
      before = frames;
      const count = kernel.halve(first, frames);
      first = (first + frames) % 2;
      output.set(kept.subarray(0, count));
      return count;
    },
  };
}

/** The same in plain TypeScript. */
export class PlainHalving implements Halving {
  private readonly even = new Float64Array(3);
  private readonly odd = new Float64Array(3);
  /** An odd sample comes next. */
  private half = false;

  halve(input: Float64Array, frames: number, output: Float64Array): number {
    let e1 = this.even[0] as number;
    let e2 = this.even[1] as number;
    let e3 = this.even[2] as number;
    let o1 = this.odd[0] as number;
    let o2 = this.odd[1] as number;
    let o3 = this.odd[2] as number;
    let kept = 0;
    let at = 0;
    if (this.half && frames > 0) {
      o3 = o2;
      o2 = o1;
      o1 = input[at++] as number;
      this.half = false;
    }
    for (const last = frames - 1; at < last; at += 2) {
      const e = input[at] as number;
      const o = input[at + 1] as number;
      output[kept++] = (e + e3 + 15 * (e1 + e2) + 6 * (o1 + o3) + 20 * o2) * 0.015625;
      e3 = e2;
      e2 = e1;
      e1 = e;
      o3 = o2;
      o2 = o1;
      o1 = o;
    }
    if (at < frames) {
      const e = input[at] as number;
      output[kept++] = (e + e3 + 15 * (e1 + e2) + 6 * (o1 + o3) + 20 * o2) * 0.015625;
      e3 = e2;
      e2 = e1;
      e1 = e;
      this.half = true;
    }
    this.even[0] = e1;
    this.even[1] = e2;
    this.even[2] = e3;
    this.odd[0] = o1;
    this.odd[1] = o2;
    this.odd[2] = o3;
    return kept;
  }
}
