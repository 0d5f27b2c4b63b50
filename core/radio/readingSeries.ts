import type { ChannelReadings } from '../contract/field.ts';
import type { DeviceChannel } from '../domain/device.ts';
import { channelSum, type ReadingSecond, type Thinned, thinnedTogether } from '../domain/reading.ts';

/** So many points are drawn of a channel at most. */
export const MOST_POINTS = 600;

/**
 * What each channel told over a time, along at most {@link MOST_POINTS} moments: several seconds become one with their least and their most,
 * so that no short break is lost in a long walk.
 * @param seconds in the order of time
 */
export function readingSeries(channels: readonly DeviceChannel[], seconds: readonly Pick<ReadingSecond, 'atS' | 'values'>[]): ChannelReadings[] {
  const first = seconds[0]?.atS ?? 0;
  const last = seconds.at(-1)?.atS ?? 0;
  const stepS = Math.max(1, Math.ceil((last - first + 1) / MOST_POINTS));
  return channels.flatMap((channel) => {
    const steps = new Map<number, Thinned>();
    let all: Thinned | undefined;
    for (const { atS, values } of seconds) {
      const own = values[channel.id];
      if (!own) continue;
      const step = Math.floor((atS - first) / stepS);
      steps.set(step, thinnedTogether(steps.get(step), own));
      all = thinnedTogether(all, own);
    }
    if (!all) return [];
    const series = [...steps].map(([step, thinned]): ChannelReadings['series'][number] => {
      const { least, mean, most } = channelSum(thinned);
      return [(first + (step + 0.5) * stepS) * 1000, least, mean, most];
    });
    return [{ channel, sum: channelSum(all), series }];
  });
}
