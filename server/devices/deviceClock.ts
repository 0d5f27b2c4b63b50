/** A step of the device's clock that is more than this off the time that went by is a jump. */
const JUMP_MS = 2000;

/**
 * Puts what a device says at its own times to the server's time. The device's clock may be wrong by hours: only how far it runs on
 * counts. How far it is off is what it says of itself in its hello, else the least delay with which a line ever came in.
 */
export class DeviceClock {
  private offsetMs: number | null = null;
  private before: { deviceMs: number; arrivedMs: number } | null = null;

  /** A connection began. Returns by how much the clock moved against the one before, where that is a jump; else 0. */
  hello(nowMs: number | undefined, arrivedMs: number): number {
    this.before = null;
    if (nowMs === undefined) return 0;
    const offsetMs = arrivedMs - nowMs;
    const moved = this.offsetMs === null ? 0 : this.offsetMs - offsetMs;
    this.offsetMs = offsetMs;
    return Math.abs(moved) > JUMP_MS ? moved : 0;
  }

  /** The server's time of a line, and by how much the clock jumped with it. */
  at(deviceMs: number | undefined, arrivedMs: number): { atMs: number; jumpedMs: number } {
    if (deviceMs === undefined) return { atMs: arrivedMs, jumpedMs: 0 };
    const { before } = this;
    this.before = { deviceMs, arrivedMs };
    const step = before ? deviceMs - before.deviceMs : 0;
    const went = before ? arrivedMs - before.arrivedMs : 0;
    const delayMs = arrivedMs - deviceMs;
    // Lines that were kept come faster than they were made, and still late; a clock that jumped ahead has them come early.
    const ahead = step > went + JUMP_MS && this.offsetMs !== null && delayMs < this.offsetMs - JUMP_MS;
    const jumped = before !== null && (step < -JUMP_MS || ahead);
    this.offsetMs = jumped || this.offsetMs === null ? delayMs : Math.min(this.offsetMs, delayMs);
    return { atMs: Math.min(arrivedMs, deviceMs + this.offsetMs), jumpedMs: jumped ? step - went : 0 };
  }
}
