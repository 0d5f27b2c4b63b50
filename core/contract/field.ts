import type { DeviceChannel, DeviceDraft } from '../domain/device.ts';
import type { ChannelSum } from '../domain/reading.ts';
import type { RangeRow, StationTroubles } from '../radio/rangeWindows.ts';
import type { WalkTrack } from '../radio/walkTrack.ts';

/** What became of lines that a device posted. */
export interface PostedAnswer {
  /** The number up to which all lines are on the disk; null where the device counts none. */
  ack: number | null;
  /** What was wrong with those that were not taken. */
  wrong: string[];
}

/** A simulated device of this computer, and where it listens. */
export interface StandIn extends Pick<DeviceDraft, 'name' | 'kind' | 'way'> {
  running: boolean;
}

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
  /** Whether the phone or a file said where the talker was: that can be taken back. */
  trackSaid: boolean;
}
