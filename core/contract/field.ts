import type { DeviceChannel } from '../domain/device.ts';
import type { ChannelSum } from '../domain/reading.ts';
import type { RangeRow, StationTroubles } from '../radio/rangeWindows.ts';
import type { WalkTrack } from '../radio/walkTrack.ts';

/** How far the links of a trial held, and what the spots where they broke up speak for. */
export interface RangeAnswer {
  rows: RangeRow[];
  troubles: StationTroubles[];
}

/** What a channel of a device told over a time: in all, and along it. */
export interface ChannelReadings {
  channel: DeviceChannel;
  sum: ChannelSum;
  /** Moments in milliseconds since 1970 with the least, the mean and the most around each. */
  series: [atMs: number, least: number, mean: number, most: number][];
}

/** What a device told while a take ran. */
export interface DeviceReadings {
  deviceId: string;
  name: string;
  channels: ChannelReadings[];
}

/** All that devices told of a take, and the way of whoever walked. */
export interface TakeReadings {
  devices: DeviceReadings[];
  track: WalkTrack | null;
}
