import { describe, expect, it } from 'vitest';
import { resample } from '../../audio/resample.ts';
import { onMicrophone } from '../../testing/onMicrophone.ts';
import { mixed, silence, whiteNoise } from '../../testing/signals.ts';
import { voiced } from '../../testing/voiced.ts';
import { backupOf } from './backupFile.ts';
import { sampleTrack } from './track.ts';

const RATE_HZ = 48_000;
const scaled = (samples: Float64Array, db: number) => samples.map((value) => value * 10 ** (db / 20));
const track = (samples: Float64Array, rateHz = RATE_HZ) => sampleTrack(samples, rateHz);
const later = (samples: Float64Array, frames: number) => samples.map((_, at) => samples[at - frames] ?? 0);

describe('a backup in a file of its own', () => {
  const voice = mixed(scaled(voiced(8), 8), whiteNoise(-70, 8, 3));
  const lower = mixed(scaled(voice, -12), whiteNoise(-110, 8, 5));

  it.each([0, 1, -240, 2000])('is the same sound lower, %i samples apart, whichever of the two is asked for', (frames) => {
    const own = backupOf(track(later(lower, frames)), track(voice))!;
    expect(own.lower).toBe('own');
    expect(own.lowerByDb).toBeCloseTo(12, 1);
    expect(backupOf(track(voice), track(later(lower, frames)))).toMatchObject({ lower: 'other' });
  });

  it('is found though the main file clips through half of its words', () => {
    const hot = scaled(voice, 14);
    expect(backupOf(track(hot.map((value) => Math.max(-1, Math.min(1, value)))), track(scaled(hot, -18)))!.lowerByDb).toBeCloseTo(18, 1);
  });

  it('is none where another microphone, another clock or another performance was recorded, or nothing', () => {
    const near = { beforeS: 0, afterS: 0, snrDb: 40, shelfDb: 0, room: { share: 0.02, decayS: 0.2 }, driftPpm: 0 };
    expect(backupOf(track(onMicrophone(voice, { ...near, gainDb: -12, seed: 2 }, RATE_HZ)), track(voice))).toBeNull();
    // The same wire into another recorder: its clock is 2 ppm off.
    expect(backupOf(track(resample(lower, RATE_HZ * (1 + 2e-6), RATE_HZ)), track(voice))).toBeNull();
    expect(backupOf(track(scaled(voiced(8, 44), -12)), track(voice))).toBeNull();
    expect(backupOf(track(silence(8)), track(voice))).toBeNull();
    expect(backupOf(track(scaled(voice, -3)), track(voice))).toBeNull();
    expect(backupOf(track(lower, 44_100), track(voice))).toBeNull();
    expect(backupOf(track(scaled(voice, -12).map((value) => -value)), track(voice))).toBeNull();
  });
});
