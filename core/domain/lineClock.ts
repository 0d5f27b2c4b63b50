import type { LogLine } from './logLine.ts';

/** A clock that is off by no more than this from what is known of it stays as it is known: the way of a message takes as long. */
export const CLOCK_TOLERANCE_MS = 2000;

/**
 * By how much a device's clock is behind this computer's, in milliseconds; negative is ahead. What is known already
 * stands while it is within {@link CLOCK_TOLERANCE_MS}, which nobody can tell from the way of the message: so lines
 * that go in several messages are all moved by the same.
 * @param sentAtMs what the device's own clock said when it sent
 * @param knownMs what was known before; 0 is right
 */
export function clockBehindMs(sentAtMs: number, receivedAtMs: number, knownMs = 0): number {
  const behindMs = Math.round(receivedAtMs - sentAtMs);
  return Math.abs(behindMs - knownMs) <= CLOCK_TOLERANCE_MS ? knownMs : behindMs;
}

/** A line with its moments moved onto this computer's clock. */
export function lineOnClock(line: LogLine, behindMs: number): LogLine {
  if (behindMs === 0) return line;
  const moved = { ...line, atMs: Math.max(0, line.atMs + behindMs) };
  if (moved.kind !== 'positions') return moved;
  return { ...moved, points: moved.points.map((point) => ({ ...point, atMs: Math.max(0, point.atMs + behindMs) })) };
}
