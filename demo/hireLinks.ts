import { Cascade, lowPass } from '@marvet/core/audio/biquad';
import { burst, fade, mute, repeat } from '@marvet/core/simulate/linkFaults';
import { type RandomSource, randomSource, seedOf } from '@marvet/core/simulate/random';
import { automaticLevel, flattened, gated, spectrallyGated } from '@marvet/core/simulate/recorderStages';

/** A take as the links get it: one lavalier, split. */
export interface SplitTake {
  seed: string;
  rateHz: number;
  /** What the capsule gave, and the same without anybody speaking. */
  wire: Float64Array;
  noise: Float64Array;
  spoken: boolean;
  /** So far out that old radio breaks up. */
  far: boolean;
}

type Link = (take: SplitTake, random: RandomSource) => Float64Array;

const hissed = (samples: Float64Array, dbfs: number, random: RandomSource) => {
  const level = 10 ** (dbfs / 20);
  return samples.map((x) => x + level * random.normal());
};

/** Lays a fault here and there over a take, about so often. */
function every(samples: Float64Array, rateHz: number, everyS: number, random: RandomSource, lay: (atS: number) => void): void {
  for (let atS = 0.9; atS < samples.length / rateHz - 0.5; atS += everyS * (0.6 + 0.8 * random.uniform())) lay(atS);
}

/** Mains that come in through the loudspeaker cable beside the cart: 50 Hz and its odd harmonics. */
function hummed(samples: Float64Array, rateHz: number, dbfs: number): Float64Array {
  const level = 10 ** (dbfs / 20) * Math.SQRT2;
  return samples.map((x, index) => {
    const turn = (2 * Math.PI * 50 * index) / rateHz;
    return x + level * (Math.sin(turn) + 0.5 * Math.sin(3 * turn) + 0.3 * Math.sin(5 * turn));
  });
}

const delayed = (samples: Float64Array, count: number) => {
  const out = new Float64Array(samples.length);
  out.set(samples.subarray(0, samples.length - count), count);
  return out;
};

/** What each link makes of the same wire, by the letters of its tape. */
export const LINKS: Readonly<Record<string, Link>> = {
  CA: ({ wire }) => wire.slice(),
  OX: ({ wire, rateHz, far }, random) => {
    const out = hissed(wire, -66, random);
    if (far) every(out, rateHz, 1.3, random, (atS) => (random.uniform() < 0.7 ? burst(out, rateHz, atS, random) : fade(out, rateHz, atS, random)));
    return hummed(out, rateHz, -62);
  },
  TA: ({ wire, rateHz, far }, random) => {
    const out = delayed(hissed(wire, -80, random), Math.round(0.0187 * rateHz));
    if (far) every(out, rateHz, 1.1, random, (atS) => (random.uniform() < 0.7 ? repeat(out, rateHz, atS, random) : mute(out, rateHz, atS, random)));
    return out;
  },
  HO: ({ wire, noise, rateHz }, random) => delayed(spectrallyGated(hissed(wire, -82, random), noise, 18), Math.round(0.0056 * rateHz)),
  GA: ({ wire, rateHz }, random) => gated(hissed(wire, -70, random), wire, rateHz, { opensAtDbfs: -40, depthDb: 16, holdS: 0.14, releaseS: 0.02 }),
  AL: ({ wire, rateHz }, random) => automaticLevel(hissed(wire, -82, random), rateHz, { targetDbfs: -18, recoveryDbPerS: 14, mostGainDb: 22 }).samples,
  HT: ({ wire, rateHz, spoken }, random) => {
    const out = spoken ? flattened(wire, 0.05) : wire.slice();
    new Cascade([lowPass(14_000, Math.SQRT1_2, rateHz)]).process(out, out, out.length);
    return hissed(out, -82, random);
  },
};

/** The same wire through one link. The same take gives the same samples. */
export function throughLink(letters: string, take: SplitTake): Float64Array {
  return (LINKS[letters] as Link)(take, randomSource(seedOf(take.seed, letters)));
}
