import { describe, expect, it } from 'vitest';
import { CLOTHS } from '../domain/clothLayer.ts';
import { frameBoomSchema, frameDraftSchema } from '../domain/frame.ts';
import { placementDraftSchema } from '../domain/placement.ts';
import { rigRecordDraftSchema } from '../domain/rigRecord.ts';
import { acousticsSchema } from '../domain/station.ts';
import { whiteNoise } from '../testing/signals.ts';
import { clothLossDb } from './clothLoss.ts';
import { hearSetups, type SetupsToHear, type SetupToHear } from './hearSetups.ts';

const RATE_HZ = 48_000;
const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const voice = whiteNoise(-20, 1.5, 3).map((x, index) => x * (Math.sin(index / 4000) > -0.3 ? 1 : 0.001));
const { talkers } = frameDraftSchema.parse({ name: 'Quay', talkers: [{ id: id(9), name: 'Ferrier', awayM: 3, mouthHeightM: 1.5 }] });
const asked = (setups: SetupToHear[], place: object = {}): SetupsToHear => ({ setups, talkers, place: acousticsSchema.parse(place), voice, rateHz: RATE_HZ, seed: 'quay' });
const given = (booms: object[], place: object = {}): SetupsToHear =>
  asked(
    booms.map((boom, index) => ({
      kind: 'boom',
      id: id(index + 1),
      boom: frameBoomSchema.parse({ id: id(index + 1), from: 'above', heightM: 1.5, awayM: 2, pressureShare: 1, screenM: 0, ...boom }),
    })),
    place,
  );
const rmsDb = (samples: Float32Array, fromS: number, toS: number) => {
  const part = samples.subarray(fromS * RATE_HZ, toS * RATE_HZ);
  return 10 * Math.log10(part.reduce((sum, x) => sum + x * x, 0) / part.length);
};

describe('hearing a frame', () => {
  it('twice as far is 6 dB more to be turned up, so that both are equally loud', () => {
    const [near, far] = hearSetups(given([{ awayM: 2.5 }, { awayM: 2 }]));
    expect(far!.gainDb - near!.gainDb).toBeCloseTo(20 * Math.log10(2), 1);
    expect(Math.abs(rmsDb(near!.samples, 0.4, 1.9) - rmsDb(far!.samples, 0.4, 1.9))).toBeLessThan(0.1);
  });

  it('brings the noise up with it: twice as far the place is 6 dB louder under the same voice, a cardioid keeps 4.8 dB of it away', () => {
    const [near, far, cardioid] = hearSetups(given([{ awayM: 2.5 }, { awayM: 2 }, { awayM: 2, pressureShare: 0.5 }], { noiseDba: 40 }));
    const noiseOf = (boom: { samples: Float32Array } | undefined) => rmsDb(boom!.samples, 0.05, 0.35);
    expect(noiseOf(far) - noiseOf(near)).toBeCloseTo(20 * Math.log10(2), 0);
    // Proximity lifts a cardioid's voice a little at a metre, and its noise goes down with it.
    expect(noiseOf(far) - noiseOf(cardioid)).toBeGreaterThan(4);
    expect(noiseOf(far) - noiseOf(cardioid)).toBeLessThan(6.5);
  });

  it('in a room what comes after the words is the louder the farther the microphone is', () => {
    const room = { sizeM: [6, 5, 3], absorption: [0.1, 0.1, 0.1, 0.1, 0.1, 0.1] };
    const [near, far] = hearSetups(given([{ awayM: 2.6 }, { awayM: 1.2 }], room));
    const tail = (boom: { samples: Float32Array } | undefined) => rmsDb(boom!.samples, 1.95, 2.2) - rmsDb(boom!.samples, 0.4, 1.9);
    expect(tail(far) - tail(near)).toBeGreaterThan(4);
  });

  it('the same seed gives the same samples, another gives others', () => {
    const one = given([{}], { noiseDba: 45, windMs: 3 });
    expect(hearSetups(one)[0]!.samples).toEqual(hearSetups(one)[0]!.samples);
    expect(hearSetups({ ...one, seed: 'another' })[0]!.samples).not.toEqual(hearSetups(one)[0]!.samples);
  });

  it('tells how far it is, boom by boom', () => {
    const told: number[] = [];
    hearSetups(given([{}, {}]), (share) => told.push(share));
    expect(told).toEqual([0.5, 1]);
  });

  it('a refrigerator beside the talker is heard under the words, and less by a microphone that does not look at it', () => {
    const sources = [{ id: id(7), name: 'fridge', kind: 'refrigerator', awayM: -2, acrossM: 0, heightM: 1.5, levelDba: 60 }];
    // It stands 1 m before the talker, behind the microphone.
    const [omni, cardioid] = hearSetups(given([{ awayM: 2 }, { awayM: 2, pressureShare: 0.5 }], { sources }));
    const noiseOf = (boom: { samples: Float32Array } | undefined) => rmsDb(boom!.samples, 0.05, 0.35);
    const [without] = hearSetups(given([{ awayM: 2 }]));
    expect(noiseOf(omni) - noiseOf(without)).toBeGreaterThan(20);
    expect(noiseOf(omni) - noiseOf(cardioid)).toBeGreaterThan(15);
  });
});

describe('hearing what is worn', () => {
  const worn = (spot: string | null, rig: object | null, more: object = {}): SetupToHear => ({
    kind: 'worn',
    id: id(1),
    talker: 0,
    worn: { placement: placementDraftSchema.parse({ name: 'worn', spot }), rig: rig && rigRecordDraftSchema.parse({ name: 'rig', ...rig }) },
    ...more,
  });
  const highs = (samples: Float32Array) => {
    // First differences lift the top by 6 dB an octave: enough to weigh it.
    let sum = 0;
    for (let index = 1; index < samples.length; index++) sum += ((samples[index] as number) - (samples[index - 1] as number)) ** 2;
    return 10 * Math.log10(sum / samples.length);
  };

  it('under denim is duller than open, by what the cloth takes at the top', () => {
    const denim = CLOTHS.filter(({ name }) => name === 'denim');
    const [open, under] = hearSetups(asked([worn('lapel', {}), worn('lapel', { layers: denim })]));
    const level = (heard: { samples: Float32Array; gainDb: number }) => highs(heard.samples) - heard.gainDb;
    expect(level(open!) - level(under!)).toBeCloseTo(clothLossDb(denim, 12_000), 0);
  });

  it('near the mouth needs less gain than far from it', () => {
    const [near, far] = hearSetups(asked([worn('corner of the mouth', null), worn('bra or binder', null)]));
    expect(far!.gainDb - near!.gainDb).toBeGreaterThan(12);
  });

  it('over a link beyond its reach is broken up, within it is not', () => {
    // Single samples may well be 0, rounded as they are to 24 bits; a mute is a row of them.
    const longestMute = (samples: Float32Array) => {
      let [row, longest] = [0, 0];
      for (const x of samples.subarray(0.5 * RATE_HZ, 1.8 * RATE_HZ)) {
        row = x === 0 ? row + 1 : 0;
        longest = Math.max(longest, row);
      }
      return longest / RATE_HZ;
    };
    const [within, beyond] = hearSetups(
      asked([worn('lapel', null, { link: { distanceM: 20, reliableToM: 60 } }), worn('lapel', null, { link: { distanceM: 400, reliableToM: 60 } })]),
    );
    expect(longestMute(within!.samples)).toBeLessThan(0.0005);
    expect(longestMute(beyond!.samples)).toBeGreaterThan(0.015);
  });

  it('of which nobody knows where it sits is not rendered as if it were known', () => {
    expect(() => hearSetups(asked([worn(null, null)]))).toThrow('draw its spot on the body first');
  });
});
