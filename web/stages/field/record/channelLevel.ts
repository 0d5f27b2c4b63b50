/** How long a peak is held, in milliseconds. */
const HOLD_MS = 1500;
/** How fast the bar falls back, in decibels a second. */
const FALL_DB_S = 20;
/** Zeros for so long are told. */
const DEAD_MS = 2000;
export const LOWEST_DBFS = -60;

const db = (amplitude: number) => Math.max(LOWEST_DBFS, 20 * Math.log10(Math.max(amplitude, 1e-9)));

/**
 * A meter of one channel: a bar that rises at once and falls slowly, a peak that is held, the highest since it
 * was reset, and a light that stays on once the converter was at its end.
 */
export class ChannelLevel {
  constructor(
    readonly peakDbfs = LOWEST_DBFS,
    readonly heldDbfs = LOWEST_DBFS,
    private readonly heldMs = 0,
    private readonly atMs = 0,
    readonly highestDbfs = LOWEST_DBFS,
    readonly rmsDbfs = LOWEST_DBFS,
    readonly clipped = false,
    /** Since when nothing but zeros came; null where something did. */
    private readonly zeroSinceMs: number | null = null,
  ) {}

  /** Whether nothing at all comes: no microphone is as quiet, so something is not connected, or was turned off. */
  get dead(): boolean {
    return this.zeroSinceMs !== null && this.atMs - this.zeroSinceMs >= DEAD_MS;
  }

  heard(peak: number, meanSquare: number, clipped: boolean, nowMs = Date.now()): ChannelLevel {
    const fallen = this.peakDbfs - (FALL_DB_S * (nowMs - this.atMs)) / 1000;
    const peakDbfs = Math.max(db(peak), fallen, LOWEST_DBFS);
    const risen = db(peak) >= this.heldDbfs;
    const heldDbfs = risen || nowMs - this.heldMs > HOLD_MS ? peakDbfs : this.heldDbfs;
    const zeroSinceMs = peak > 0 ? null : (this.zeroSinceMs ?? nowMs);
    const heldMs = risen || nowMs - this.heldMs > HOLD_MS ? nowMs : this.heldMs;
    return new ChannelLevel(peakDbfs, heldDbfs, heldMs, nowMs, Math.max(this.highestDbfs, db(peak)), db(Math.sqrt(meanSquare)), this.clipped || clipped, zeroSinceMs);
  }

  /** The highest peak and the light start anew. */
  released(): ChannelLevel {
    return new ChannelLevel(this.peakDbfs, this.peakDbfs, this.heldMs, this.atMs, LOWEST_DBFS, this.rmsDbfs, false, this.zeroSinceMs);
  }
}
