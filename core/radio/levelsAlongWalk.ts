import type { DeviceReadings } from '../contract/field.ts';
import { type Device, tieOf } from '../domain/device.ts';
import type { WalkEntry, WalkHeading, WalkSide } from '../domain/walk.ts';
import { distanceAt, type WalkTrack } from './walkTrack.ts';
import { legAt } from './walkWindows.ts';

/** What a receiver heard of a candidate, along a walk. */
export interface WalkLevel {
  atMs: number;
  distanceM: number;
  /** Of the stronger aerial: a receiver takes that one. */
  levelDbm: number;
  side: WalkSide;
  heading: WalkHeading;
}

/** Radio levels of each candidate over the distance; a moment whose distance is not known is left out. */
export function levelsAlongWalk(
  readings: readonly DeviceReadings[],
  devices: readonly Pick<Device, 'id' | 'ties'>[],
  walk: readonly WalkEntry[],
  track: WalkTrack | null,
): Map<string, WalkLevel[]> {
  const levels = new Map<string, Map<number, number>>();
  for (const { deviceId, channels } of readings) {
    const device = devices.find(({ id }) => id === deviceId);
    for (const { channel, series } of channels) {
      const candidateId = channel.quantity === 'radioLevelDbm' && device ? tieOf(device, channel.group)?.candidateId : null;
      if (!candidateId) continue;
      const own = levels.get(candidateId) ?? new Map<number, number>();
      for (const [atMs, , mean] of series) own.set(atMs, Math.max(own.get(atMs) ?? Number.NEGATIVE_INFINITY, mean));
      levels.set(candidateId, own);
    }
  }
  return new Map(
    [...levels].map(([candidateId, own]) => [
      candidateId,
      [...own]
        .sort(([a], [b]) => a - b)
        .flatMap(([atMs, levelDbm]): WalkLevel[] => {
          const distanceM = distanceAt(atMs, walk, track);
          return distanceM === null ? [] : [{ atMs, distanceM, levelDbm, ...legAt(walk, atMs) }];
        }),
    ]),
  );
}
