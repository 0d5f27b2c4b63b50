import { describe, expect, it } from 'vitest';
import { frameDraftSchema } from '../domain/frame.ts';
import { acousticsSchema } from '../domain/station.ts';
import { whiteNoise } from '../testing/signals.ts';
import { type FrameToHear, hearFrame } from './hearFrame.ts';

const RATE_HZ = 48_000;
const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const voice = whiteNoise(-20, 1.5, 3).map((x, index) => x * (Math.sin(index / 4000) > -0.3 ? 1 : 0.001));
const given = (booms: object[], place: object = {}): FrameToHear => ({
  frame: frameDraftSchema.parse({
    name: 'Quay',
    talkers: [{ id: id(9), name: 'Ferrier', awayM: 3, mouthHeightM: 1.5 }],
    booms: booms.map((boom, index) => ({ id: id(index + 1), from: 'above', heightM: 1.5, awayM: 2, pressureShare: 1, screenM: 0, ...boom })),
  }),
  place: acousticsSchema.parse(place),
  voice,
  rateHz: RATE_HZ,
  seed: 'quay',
});
const rmsDb = (samples: Float32Array, fromS: number, toS: number) => {
  const part = samples.subarray(fromS * RATE_HZ, toS * RATE_HZ);
  return 10 * Math.log10(part.reduce((sum, x) => sum + x * x, 0) / part.length);
};

describe('hearing a frame', () => {
  it('twice as far is 6 dB more to be turned up, so that both are equally loud', () => {
    const [near, far] = hearFrame(given([{ awayM: 2.5 }, { awayM: 2 }]));
    expect(far!.gainDb - near!.gainDb).toBeCloseTo(20 * Math.log10(2), 1);
    expect(Math.abs(rmsDb(near!.samples, 0.4, 1.9) - rmsDb(far!.samples, 0.4, 1.9))).toBeLessThan(0.1);
  });

  it('brings the noise up with it: twice as far the place is 6 dB louder under the same voice, a cardioid keeps 4.8 dB of it away', () => {
    const [near, far, cardioid] = hearFrame(given([{ awayM: 2.5 }, { awayM: 2 }, { awayM: 2, pressureShare: 0.5 }], { noiseDba: 40 }));
    const noiseOf = (boom: { samples: Float32Array } | undefined) => rmsDb(boom!.samples, 0.05, 0.35);
    expect(noiseOf(far) - noiseOf(near)).toBeCloseTo(20 * Math.log10(2), 0);
    // Proximity lifts a cardioid's voice a little at a metre, and its noise goes down with it.
    expect(noiseOf(far) - noiseOf(cardioid)).toBeGreaterThan(4);
    expect(noiseOf(far) - noiseOf(cardioid)).toBeLessThan(6.5);
  });

  it('in a room what comes after the words is the louder the farther the microphone is', () => {
    const room = { sizeM: [6, 5, 3], absorption: [0.1, 0.1, 0.1, 0.1, 0.1, 0.1] };
    const [near, far] = hearFrame(given([{ awayM: 2.6 }, { awayM: 1.2 }], room));
    const tail = (boom: { samples: Float32Array } | undefined) => rmsDb(boom!.samples, 1.95, 2.2) - rmsDb(boom!.samples, 0.4, 1.9);
    expect(tail(far) - tail(near)).toBeGreaterThan(4);
  });

  it('the same seed gives the same samples, another gives others', () => {
    const asked = given([{}], { noiseDba: 45, windMs: 3 });
    expect(hearFrame(asked)[0]!.samples).toEqual(hearFrame(asked)[0]!.samples);
    expect(hearFrame({ ...asked, seed: 'another' })[0]!.samples).not.toEqual(hearFrame(asked)[0]!.samples);
  });

  it('tells how far it is, boom by boom', () => {
    const told: number[] = [];
    hearFrame(given([{}, {}]), (share) => told.push(share));
    expect(told).toEqual([0.5, 1]);
  });
});
