import { amplitudeDb, powerDb } from '../audio/decibel.ts';

/** How two channels of a file, heard as they lie, go together. */
export interface ChannelPair {
  /** Channels of the file, counted from 0; `a` is the one that comes first. */
  a: number;
  b: number;
  /** Correlation of their samples, -1 to 1. */
  correlation: number;
  /** How much louder the second is where it holds the same sound as the first, in dB: the slope of one over the other. */
  bOverADb: number;
  /** How much their sum to mono, (a + b) / 2, loses against the power that both have on average, in dB: 0 for equal channels, 3 for unrelated ones. */
  monoLossDb: number;
}

/** More channels are several sources, not one: the number of pairs would grow with their square. */
export const MOST_PAIRED_CHANNELS = 8;
/** Every so many frames say enough of how channels go together. */
const EVERY_FRAMES = 4;
/** What lies so near to full scale may be clipped, and is no longer the same sound. */
const NEAR_FULL_SCALE = 0.98;
/** Less power is silence. */
const SILENCE_POWER = 1e-13;
const HIGHEST_LOSS_DB = 120;
/** Sums of a pair: a, b, a squared, b squared, a times b. */
const SUMS = 5;

/** Collects, while a file is read, how its channels go together. */
export class ChannelPairs {
  private readonly pairs: (readonly [a: number, b: number])[];
  private readonly sums: Float64Array;
  private readonly counts: Float64Array;
  private skipped = 0;

  constructor(channels: number) {
    const paired = channels <= MOST_PAIRED_CHANNELS ? channels : 0;
    this.pairs = Array.from({ length: paired }, (_, a) => Array.from({ length: paired - a - 1 }, (_each, after) => [a, a + after + 1] as const)).flat();
    this.sums = new Float64Array(this.pairs.length * SUMS);
    this.counts = new Float64Array(this.pairs.length);
  }

  push(channels: readonly Float64Array[], count: number): void {
    if (this.pairs.length === 0) return;
    const { sums, counts } = this;
    const first = (EVERY_FRAMES - this.skipped) % EVERY_FRAMES;
    for (let pair = 0; pair < this.pairs.length; pair++) {
      const [one, other] = this.pairs[pair] as readonly [number, number];
      const [left, right] = [channels[one] as Float64Array, channels[other] as Float64Array];
      let [sumA, sumB, squareA, squareB, product, used] = [0, 0, 0, 0, 0, 0];
      for (let frame = first; frame < count; frame += EVERY_FRAMES) {
        const a = left[frame] as number;
        const b = right[frame] as number;
        if (a > NEAR_FULL_SCALE || a < -NEAR_FULL_SCALE || b > NEAR_FULL_SCALE || b < -NEAR_FULL_SCALE) continue;
        sumA += a;
        sumB += b;
        squareA += a * a;
        squareB += b * b;
        product += a * b;
        used++;
      }
      const at = pair * SUMS;
      sums[at] = (sums[at] as number) + sumA;
      sums[at + 1] = (sums[at + 1] as number) + sumB;
      sums[at + 2] = (sums[at + 2] as number) + squareA;
      sums[at + 3] = (sums[at + 3] as number) + squareB;
      sums[at + 4] = (sums[at + 4] as number) + product;
      counts[pair] = (counts[pair] as number) + used;
    }
    this.skipped = (this.skipped + count) % EVERY_FRAMES;
  }

  /** Pairs of which both have a sound; what a steady offset adds is left out. */
  finish(): ChannelPair[] {
    return this.pairs.flatMap(([a, b], pair): ChannelPair[] => {
      const count = this.counts[pair] as number;
      if (count === 0) return [];
      const [meanA, meanB, squareA, squareB, product] = Array.from(this.sums.subarray(pair * SUMS, (pair + 1) * SUMS), (sum) => sum / count) as [
        number,
        number,
        number,
        number,
        number,
      ];
      const [powerA, powerB, shared] = [squareA - meanA ** 2, squareB - meanB ** 2, product - meanA * meanB];
      if (powerA < SILENCE_POWER || powerB < SILENCE_POWER) return [];
      const sum = (powerA + powerB + 2 * shared) / 4;
      const mean = (powerA + powerB) / 2;
      const slopeDb = amplitudeDb(Math.abs(shared) / powerA) ?? -HIGHEST_LOSS_DB;
      const loss = sum > 0 ? (powerDb(mean) as number) - (powerDb(sum) ?? -HIGHEST_LOSS_DB) : HIGHEST_LOSS_DB;
      return [{ a, b, correlation: shared / Math.sqrt(powerA * powerB), bOverADb: slopeDb, monoLossDb: Math.min(HIGHEST_LOSS_DB, Math.max(0, loss)) }];
    });
  }
}

/** A channel that holds the same sound as another one of its file, lower: a safety track, and no microphone of its own. */
export interface BackupChannel {
  channel: number;
  of: number;
  lowerByDb: number;
}

/** What differs from the same sound at another level lies 30 dB under it at most: other microphones, even side by side, differ by more. */
const LEAST_CORRELATION = 0.9995;
/** Recorders offer backups from 6 to 20 dB lower. */
const [LEAST_LOWER_DB, MOST_LOWER_DB] = [5.5, 20.5];

/**
 * Backup tracks among the channels of a file: the same sound 6 to 20 dB lower. Of several lower ones each is the backup of the loudest.
 * @example backupsAmong([{ a: 0, b: 1, correlation: 1, bOverADb: -12, monoLossDb: 1 }]) // [{ channel: 1, of: 0, lowerByDb: 12 }]
 */
export function backupsAmong(pairs: readonly ChannelPair[]): BackupChannel[] {
  const found = pairs.flatMap(({ a, b, correlation, bOverADb }): BackupChannel[] => {
    if (correlation < LEAST_CORRELATION || Math.abs(bOverADb) < LEAST_LOWER_DB || Math.abs(bOverADb) > MOST_LOWER_DB) return [];
    return [bOverADb < 0 ? { channel: b, of: a, lowerByDb: -bOverADb } : { channel: a, of: b, lowerByDb: bOverADb }];
  });
  const lower = new Set(found.map(({ channel }) => channel));
  return found.filter(({ of }) => !lower.has(of));
}
