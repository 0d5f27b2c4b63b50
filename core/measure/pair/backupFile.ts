import { backupsAmong, ChannelPairs } from '../channelPairs.ts';
import { exact } from './align.ts';
import type { PairTrack } from './track.ts';

/** Which of two tracks is the same sound as the other, lower. */
export interface LowerTrack {
  lower: 'own' | 'other';
  lowerByDb: number;
}

/** Stretches that are looked at to see how one file lies to the other. */
const STRETCHES = 8;
/** One recorder has one clock: its files lie whole samples apart, and stay there. */
const OFF_FRAME_SAMPLES = 0.2;
const BLOCK_FRAMES = 65_536;

/**
 * Whether one track is the backup of another that the same recorder wrote into a file of its own: the same samples, whole frames apart
 * by 0.06 s at most, 6 to 20 dB lower (see `backupsAmong`). Another microphone, or another recorder's clock, is none.
 * @returns null where neither is the backup of the other
 */
export function backupOf(own: PairTrack, other: PairTrack): LowerTrack | null {
  if (own.sampleRateHz !== other.sampleRateHz) return null;
  const place = exact(own, other, 0, STRETCHES);
  if (!place || place.polarity < 0) return null;
  const lag = Math.round(place.latencyS * own.sampleRateHz);
  const endLag = (place.latencyS + (place.drift * other.frames) / own.sampleRateHz) * own.sampleRateHz;
  if (Math.max(Math.abs(place.latencyS * own.sampleRateHz - lag), Math.abs(endLag - lag)) > OFF_FRAME_SAMPLES) return null;
  const pairs = new ChannelPairs(2);
  const first = Math.max(0, -lag);
  const end = Math.min(other.frames, own.frames - lag);
  for (let at = first; at < end; at += BLOCK_FRAMES) {
    const count = Math.min(BLOCK_FRAMES, end - at);
    pairs.push([own.read(at + lag, count), other.read(at, count)], count);
  }
  const [backup] = backupsAmong(pairs.finish());
  return backup ? { lower: backup.channel === 0 ? 'own' : 'other', lowerByDb: backup.lowerByDb } : null;
}
