import { Cascade, highPass, highShelf, lowPass } from '@marvet/core/audio/biquad';
import { frameFeatures } from '@marvet/core/measure/events/frameFeatures';
import { LIKELY_TARGETS } from '@marvet/core/measure/events/standoutKinds';
import { ChannelTracks } from '@marvet/core/measure/tracks/channelTracks';
import { labelledTake } from '@marvet/core/simulate/labelledTake';
import { randomSource, seedOf } from '@marvet/core/simulate/random';
import { RATE_HZ } from '../accuracy/real/decoded.ts';
import { meanOfLoud } from '../accuracy/real/pops.ts';
import { REAL_GROUPS, type RealGroup, realTake } from '../accuracy/real/realTake.ts';
import { GROUPS, type Group, specOf } from '../accuracy/specs.ts';
import { dryVoices } from '../accuracy/voices.ts';

/** One take to grow trees from: rows of features, and for each row and target 0, 1, or 2 for what nobody can tell. */
export interface TrainingTake {
  values: Float32Array;
  answers: Uint8Array;
}

export type TrainingJob = { seed: string; folder: string } & ({ of: 'real'; group: RealGroup; anybodySpeaks: boolean } | { of: 'simulated'; group: Group });

export const TRAINING_GROUPS = { real: REAL_GROUPS, simulated: GROUPS };

/** Moments this near to the edge of an event are neither in it nor out of it. */
const EDGE_S = 0.05;
/** A voice this far under its own mean is not there; between the two it may be. */
const SPOKEN_DB = -28;
const UNSPOKEN_DB = -42;
/** Nor is it where the recording has little more than its own noise. */
const OVER_OWN_NOISE_DB = [4, 10] as const;
const NOBODY_DB = -120;
const BLOCK = 4096;

interface Heard {
  samples: Float64Array;
  voice: Float64Array;
  /** Noise that is recorded with the voice; null where there is none. */
  ownNoiseDbfs: number | null;
  events: { kind: string; startS: number; endS: number }[];
  /** Pops of the talker's own, where they are known by physics alone. */
  pops: { startS: number; endS: number }[] | null;
}

export function trainingTake(job: TrainingJob): TrainingTake {
  const heard = job.of === 'real' ? realHeard(job) : simulatedHeard(job);
  const samples = job.of === 'real' ? throughChain(heard.samples, job.seed, job.group) : heard.samples;
  const tracks = new ChannelTracks(RATE_HZ);
  for (let start = 0; start < samples.length; start += BLOCK) {
    const block = samples.subarray(start, Math.min(samples.length, start + BLOCK));
    tracks.push(block, block.length);
  }
  tracks.flush();
  const { timesS, values } = frameFeatures(tracks, 0);
  const spoken = levelsAt(heard.voice, timesS);
  const mean = 10 * Math.log10(meanOfLoud(spoken));
  const own = (heard.ownNoiseDbfs ?? NOBODY_DB) - mean;
  const answers = new Uint8Array(timesS.length * LIKELY_TARGETS.length);
  timesS.forEach((time, frame) => {
    const inside = (kind: string, reachS: number) => heard.events.some((event) => event.kind === kind && time > event.startS - reachS && time < event.endS + reachS);
    LIKELY_TARGETS.forEach((target, index) => {
      const at = frame * LIKELY_TARGETS.length + index;
      if (target === 'voice') {
        const level = 10 * Math.log10((spoken[frame] as number) + 1e-15) - mean;
        answers[at] = mean < NOBODY_DB ? 0 : level > Math.max(SPOKEN_DB, own + OVER_OWN_NOISE_DB[1]) ? 1 : level < Math.max(UNSPOKEN_DB, own + OVER_OWN_NOISE_DB[0]) ? 0 : 2;
      } else if (target === 'plosive' && heard.pops) answers[at] = heard.pops.some((pop) => time > pop.startS && time < pop.endS) ? 1 : 0;
      else answers[at] = inside(target, 0) ? 1 : inside(target, EDGE_S) ? 2 : 0;
    });
  });
  return { values: shared(values, Float32Array), answers: shared(answers, Uint8Array) };
}

/** Copied to where all workers see it, so that no worker gets a copy of its own. */
function shared<T extends Float32Array | Uint8Array>(values: T, kind: { new (buffer: SharedArrayBuffer): unknown }): T {
  const out = new kind(new SharedArrayBuffer(values.byteLength)) as T;
  out.set(values);
  return out;
}

function realHeard({ seed, group, folder, anybodySpeaks }: Extract<TrainingJob, { of: 'real' }>): Heard {
  const { samples, voice, ownNoiseDbfs, events, pops } = realTake(seed, group, 'tuning', folder, anybodySpeaks);
  return { samples, voice, ownNoiseDbfs, events, pops };
}

let voices: Float64Array[][] | null = null;

function simulatedHeard({ seed, group }: Extract<TrainingJob, { of: 'simulated' }>): Heard {
  voices ??= dryVoices();
  const { samples, truth } = labelledTake(specOf(seed, group, voices));
  return { samples, voice: truth.cleanVoice, ownNoiseDbfs: null, events: truth.events, pops: null };
}

/** Half of the takes go through what a chain may do to a sound: another tilt, a low-cut, another level. */
function throughChain(samples: Float64Array, seed: string, group: string): Float64Array {
  const random = randomSource(seedOf(seed, group, 'chain'));
  if (random.uniform() < 0.5) return samples;
  const out = Float64Array.from(samples);
  const filters = [highShelf(1500 + 3000 * random.uniform(), -9 + 15 * random.uniform(), RATE_HZ)];
  if (random.uniform() < 0.4) filters.push(highPass(60 + 60 * random.uniform(), Math.SQRT1_2, RATE_HZ));
  if (random.uniform() < 0.2) filters.push(lowPass(7000 + 8000 * random.uniform(), Math.SQRT1_2, RATE_HZ));
  new Cascade(filters).process(out, out, out.length);
  const gain = 10 ** ((-20 + 24 * random.uniform()) / 20);
  return out.map((x) => x * gain);
}

/** Mean squares of 24 ms around some times. */
function levelsAt(samples: Float64Array, timesS: Float64Array): Float64Array {
  const reach = 0.012 * RATE_HZ;
  return timesS.map((time) => {
    const from = Math.max(0, Math.round(time * RATE_HZ - reach));
    const to = Math.min(samples.length, Math.round(time * RATE_HZ + reach));
    let sum = 0;
    for (let index = from; index < to; index++) sum += (samples[index] as number) ** 2;
    return to > from ? sum / (to - from) : 0;
  });
}
