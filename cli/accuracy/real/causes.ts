import { Cascade, lowPass } from '@marvet/core/audio/biquad';
import { resample } from '@marvet/core/audio/resample';
import { type Claim, claimsOf } from '@marvet/core/measure/eventWords';
import { randomSource, seedOf } from '@marvet/core/simulate/random';
import { automaticLevel, flattened, gated } from '@marvet/core/simulate/recorderStages';
import { reportOf } from '../judge.ts';
import { RATE_HZ } from './decoded.ts';
import { realTake } from './realTake.ts';
import type { Half } from './talkers.ts';

/** What is done to a whole take, and what is then to be said of it. */
export const CAUSES = ['overload', 'gate', 'automatic level'] as const satisfies readonly Claim[];
export type Cause = (typeof CAUSES)[number];

/** A take with a cause, and what was said of it. */
export interface JudgedCause {
  cause: Cause;
  half: Half;
  claims: Claim[];
}

const GATE = { holdS: 0.12, depthDb: 15, releaseS: 0.02 } as const;
const GATE_OVER_NOISE_DB = 12;

/** Renders a calm take, does something to it, and measures what comes of it. */
export function judgeCause(seed: string, cause: Cause, half: Half, folder: string): JudgedCause {
  const random = randomSource(seedOf(seed, cause, half));
  const between = (from: number, to: number) => from + (to - from) * random.uniform();
  const { samples, voice, floorDbfs } = realTake(seed, 'calm', half, folder);
  let out = samples;
  if (cause === 'overload') {
    out = flattened(samples, between(0.03, 0.06));
    const what = Math.floor(3 * random.uniform());
    if (what === 0) out = out.map((x) => x + 10 ** (-70 / 20) * random.normal());
    else if (what === 1) new Cascade([lowPass(12_000, Math.SQRT1_2, RATE_HZ)]).process(out, out, out.length);
    else out = resample(resample(out, RATE_HZ, 44_100), 44_100, RATE_HZ);
  }
  if (cause === 'gate') out = gated(samples, voice, RATE_HZ, { ...GATE, opensAtDbfs: floorDbfs + GATE_OVER_NOISE_DB });
  if (cause === 'automatic level') out = automaticLevel(samples, RATE_HZ, { targetDbfs: -20, recoveryDbPerS: between(6, 20), mostGainDb: 20 }).samples;
  return { cause, half, claims: claimsOf(reportOf(out, RATE_HZ)).map(({ claim }) => claim) };
}
