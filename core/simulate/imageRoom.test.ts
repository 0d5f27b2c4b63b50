import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Cascade, highPass, lowPass } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';
import { sine, whiteNoise } from '../testing/signals.ts';
import { convolved } from './convolve.ts';
import { decayTimeOfResponseS } from './decayTime.ts';
import { eyringS, type ImageRoom, microphoneIn, roomResponse } from './imageRoom.ts';
import { ROOM_BANDS_HZ, sumOfBands, withBandGains } from './octaveBands.ts';
import { randomSource } from './random.ts';

const RATE_HZ = 48_000;
const room: ImageRoom = {
  sizeM: [5, 4, 2.7],
  absorption: [0.3, 0.3, 0.3, 0.3, 0.3, 0.3],
  talkerM: [2, 2, 1.5],
  microphoneM: [3, 2, 1.5],
  pattern: { pressureShare: 1, tubeM: 0 },
};
const energy = (samples: Float64Array) => samples.reduce((sum, x) => sum + x * x, 0);

/** A third of an octave about a band's middle, by 120 dB an octave on both sides: another filter than the simulator's. */
function inBand(samples: Float64Array, hz: number): Float64Array {
  const out = Float64Array.from(samples);
  const sections = [highPass(hz / 2 ** (1 / 6), Math.SQRT1_2, RATE_HZ), lowPass(hz * 2 ** (1 / 6), Math.SQRT1_2, RATE_HZ)];
  for (let time = 0; time < 10; time++) new Cascade(sections).process(out, out, out.length);
  return out;
}

describe('a room', () => {
  it('sends the direct sound first, after its way, at one over the distance', () => {
    const response = roomResponse(room, RATE_HZ, randomSource(1));
    const first = response.findIndex((x) => Math.abs(x) > 0.5);
    expect(Math.abs(first - (1 / 343) * RATE_HZ)).toBeLessThanOrEqual(1);
    expect(response[first]).toBeCloseTo(1, 2);
  });

  // What Eyring's formula gives for V = 54 m3, S = 88.6 m2.
  it.each([
    [0.1, 0.931],
    [0.3, 0.275],
    [0.5, 0.142],
  ])('an absorption of %f rings for %f s by the formula', (share, seconds) => {
    expect(eyringS({ ...room, absorption: [share] })[0]).toBeCloseTo(seconds, 3);
  });

  it.each([
    ['a parlour', [5.2, 4.1, 2.7], [0.18, 0.24, 0.3, 0.34, 0.36, 0.38]],
    ['a loft', [9, 6, 3.5], [0.1, 0.1, 0.11, 0.12, 0.13, 0.15]],
    ['bands that ring twice as long as their neighbours', [7, 5, 3], [0.1, 0.2, 0.1, 0.2, 0.1, 0.2]],
    ['a hall of 2.5 s', [20, 12, 6], [0.14, 0.13, 0.12, 0.12, 0.12, 0.12]],
  ] as const)('decays at every band as is told: %s', (_name, sizeM, absorption) => {
    const talkerM = [0.4 * sizeM[0], 0.4 * sizeM[1], 1.5] as const;
    const rooms = Array.from({ length: 8 }, (_, seed) =>
      roomResponse({ ...room, sizeM, absorption, talkerM, microphoneM: microphoneIn(sizeM, talkerM, 1, seed, 0) }, RATE_HZ, randomSource(seed)),
    );
    const told = eyringS({ sizeM, absorption });
    ROOM_BANDS_HZ.forEach((hz, band) => {
      const toldS = told[band] as number;
      // From after the single reflections on, which are the shape of the room and not its decay.
      const heardS = rooms.map((response) => decayTimeOfResponseS(inBand(response, hz).subarray(Math.round(0.06 * RATE_HZ)), RATE_HZ));
      const mean = heardS.reduce((sum, each) => sum + each, 0) / heardS.length;
      // What a reading of one response of this bandwidth wavers by, ISO 3382-2 clause 7.1.
      const waversBy = 0.88 * Math.sqrt(1.19 / (0.15 * hz * toldS));
      expect(Math.abs(mean / toldS - 1)).toBeLessThan(0.03 + (2.5 * waversBy) / Math.sqrt(rooms.length));
    });
  });

  it.each([
    [[7, 5, 3.1], 0.2],
    [[4, 3.2, 2.5], 0.12],
    [[11, 8, 4], 0.3],
  ] as const)('in %j at %f is as loud against the direct sound as a diffuse field is: 16 pi / R, R being the room constant', (sizeM, share) => {
    const lived = { ...room, sizeM, absorption: Array(6).fill(share) };
    const [x, y, z] = sizeM;
    const surface = 2 * (x * y + y * z + x * z);
    const constant = (surface * share) / (1 - share);
    const talkerM = [0.36 * x, 0.44 * y, 1.6] as const;
    const levels = Array.from({ length: 12 }, (_, seed) => {
      const response = roomResponse({ ...lived, talkerM, microphoneM: microphoneIn(sizeM, talkerM, 1.2, seed, 0) }, RATE_HZ, randomSource(seed));
      return energy(response) - 1 / 1.2 ** 2;
    });
    const mean = levels.reduce((sum, each) => sum + each, 0) / levels.length;
    expect(Math.abs(10 * Math.log10(mean / ((16 * Math.PI) / constant)))).toBeLessThan(1);
  });

  it('reaches a cardioid 4.8 dB weaker than a pressure capsule', () => {
    const late = (pressureShare: number) => energy(roomResponse({ ...room, pattern: { pressureShare, tubeM: 0 } }, RATE_HZ, randomSource(5)).subarray(Math.round(0.05 * RATE_HZ)));
    expect(10 * Math.log10(late(0.5) / late(1))).toBeCloseTo(-4.77, 1);
  });

  it('gives a gradient capsule its proximity effect on the direct sound', () => {
    const near = { ...room, absorption: Array(6).fill(0.9), microphoneM: [2.1, 2, 1.5] as const };
    const at = (pressureShare: number) => energy(inBand(roomResponse({ ...near, pattern: { pressureShare, tubeM: 0 } }, RATE_HZ, randomSource(5)), 125));
    // |1 + 0.5 * 343 / (j 2 pi 125 * 0.1)| = 7.6 dB.
    expect(Math.abs(10 * Math.log10(at(0.5) / at(1)) - 7.6)).toBeLessThan(0.6);
  });
});

describe('octave bands', () => {
  it('add up to what they were made of', () => {
    const noise = whiteNoise(-20, 0.3);
    const sum = sumOfBands(
      ROOM_BANDS_HZ.map(() => noise),
      RATE_HZ,
    );
    expect(Math.max(...sum.map((x, index) => Math.abs(x - (noise[index] as number))))).toBeLessThan(1e-9);
  });

  it.each([
    [1000, 0],
    [850, 0],
    [1300, -3],
    [1415, -6],
  ])('pass a tone of %i Hz in the band of 1 kHz at %f dB or a little more', (hz, db) => {
    const only = withBandGains(sine(hz, -6, 1), [0, 0, 0, 1, 0, 0], RATE_HZ).subarray(RATE_HZ / 4, (3 * RATE_HZ) / 4);
    const levelDb = 10 * Math.log10(energy(only) / energy(sine(hz, -6, 0.5)));
    expect(levelDb).toBeLessThan(0.1);
    expect(levelDb).toBeGreaterThan(db - 0.1);
  });

  it.each([500, 2000])('leave nothing of a tone in the middle of the next band, %i Hz', (hz) => {
    const only = withBandGains(sine(hz, -6, 1), [0, 0, 0, 1, 0, 0], RATE_HZ).subarray(RATE_HZ / 4, (3 * RATE_HZ) / 4);
    expect(10 * Math.log10(energy(only) / energy(sine(hz, -6, 0.5)))).toBeLessThan(-60);
  });
});

describe('convolution', () => {
  it('is the sum of products that it is defined as, whatever the lengths', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 1, max: 700 }), fc.integer(), (frames, taps, seed) => {
        const random = randomSource(seed);
        const signal = filled(frames, () => random.normal());
        const response = filled(taps, () => random.normal());
        const out = convolved(signal, response);
        for (const index of [0, Math.floor(frames / 2), frames - 1]) {
          let sum = 0;
          for (let tap = 0; tap < taps && tap <= index; tap++) sum += (response[tap] as number) * (signal[index - tap] as number);
          expect(out[index]).toBeCloseTo(sum, 6);
        }
      }),
      { numRuns: 20 },
    );
  });
});
