import { type Cloth, LAYER_LOSS_DB } from './cloth.ts';
import { type Hearing, noiseHeard, type Standing, voiceHeard, voiceInTake } from './hearing.ts';
import type { MicrophonePattern } from './microphone.ts';
import { placeNoise } from './noiseBed.ts';
import type { Placement } from './placement.ts';
import { type FadingLink, throughFading } from './radioFading.ts';
import { type RandomSource, randomSource, seedOf } from './random.ts';
import { automaticLevel, converted, limited, spectrallyGated } from './recorderStages.ts';
import { layClick, layPlosive, layRustle, layThump } from './touches.ts';
import { type Gust, windNoise } from './windNoise.ts';

export type LabelledKind = 'dropout' | 'click' | 'clip' | 'plosive' | 'wind' | 'handling' | 'rustle';

/** One microphone on one performance, with everything that goes wrong stated beforehand. */
export interface LabelledSpec {
  seed: string;
  rateHz: number;
  /** Dry words at the sample rate; any level. */
  voice: Float64Array;
  /** Where vowels break out of a gap in the dry words, in seconds; plosives are laid there. */
  onsetsS: readonly number[];
  /** All moments of the dry words that come near to it. Knocks are not laid there: what comes with a sound's beginning is a plosive by definition. */
  beginningsS: readonly number[];
  leadS: number;
  tailS: number;
  voiceDbSpl: number;
  room: Standing | null;
  distanceM: number;
  pattern: MicrophonePattern;
  placement: Placement;
  clothLayers: number;
  /** What lies over the microphone, or moves beside it, and rubs. */
  cloth: Cloth;
  noiseDba: number;
  noiseSlopeDb: number;
  wind: { speedMs: number; screen: string } | null;
  /** Level of 94 dB SPL in the file, in dBFS. */
  gainDbfs: number;
  /** How much of that gain is too much; a bad contact before the converter is raised with the words. */
  overDb: number;
  plosives: number;
  thumps: number;
  rustles: number;
  clicks: number;
  link: FadingLink | null;
  automaticLevel: { targetDbfs: number; recoveryDbPerS: number; mostGainDb: number } | null;
  reductionDb: number;
  limiterDbfs: number | null;
  word: 16 | 24 | 'float';
}

export interface LabelledEvent {
  kind: LabelledKind;
  startS: number;
  endS: number;
}

/** What is known of a labelled take. Values are null where the spec leaves nothing to know. */
export interface LabelledTruth {
  events: LabelledEvent[];
  floorDbfs: number;
  reverberationS: number | null;
  /** The words alone as the microphone hears them, before noise and faults, at the level in the file. */
  cleanVoice: Float64Array;
  /** Gain over time that an automatic level set, in dB. */
  gainDb: Float64Array | null;
}

/** Reach of a beginning: the voice follows a blast within a tenth of a second. */
const BEFORE_BEGINNING_S = 0.12;
const AFTER_BEGINNING_S = 0.06;
const MOST_DRAWS = 30;
const AROUND_CLIPPING_S = 0.006;

/** Renders a take of known truth. The same spec gives the same samples. */
export function labelledTake(spec: LabelledSpec): { samples: Float64Array; truth: LabelledTruth } {
  const { rateHz } = spec;
  const random = randomSource(seedOf(spec.seed, 'touches'));
  const lead = Math.round(spec.leadS * rateHz);
  const length = lead + spec.voice.length + Math.round(spec.tailS * rateHz);
  const hearing: Hearing = { ...spec, clothLossDb: spec.clothLayers * LAYER_LOSS_DB, topLiftDb: 0, screen: spec.wind?.screen ?? 'bare' };
  const voice = voiceInTake(spec.voice, spec.voiceDbSpl, spec.leadS, length, rateHz);
  const { heard, reverberationS } = voiceHeard(voice, hearing, spec.room, rateHz, randomSource(seedOf(spec.seed, 'room')));
  const gain = 10 ** (spec.gainDbfs / 20);
  const bed = placeNoise({ ...spec, hum: null, swell: 0 }, length, rateHz, randomSource(seedOf(spec.seed, 'noise')));
  const noise = noiseHeard(bed, hearing, rateHz);
  const events: LabelledEvent[] = [];
  const extra = new Float64Array(length);
  const wind = spec.wind ? windNoise({ ...spec.wind, sensitivityDb: 0 }, length, rateHz, randomSource(seedOf(spec.seed, 'wind'))) : null;
  if (wind) for (let index = 0; index < length; index++) extra[index] = wind.signal[index] as number;
  for (const gust of wind?.gusts ?? []) events.push(gustEvent(gust));
  layTouches(spec, extra, length, random, events);
  let samples: Float64Array = heard.map((x, index) => (x + (noise[index] as number) + (extra[index] as number)) * gain);
  for (const at of moments(spec.clicks, length / rateHz, random, clippedSpans(samples, rateHz))) {
    const { startS, endS } = layClick(samples, rateHz, at, (0.05 + 0.25 * random.uniform()) * 10 ** (Math.max(0, spec.overDb) / 20), random);
    events.push({ kind: 'click', startS, endS });
  }
  if (spec.link) {
    const faded = throughFading(samples, rateHz, spec.link, randomSource(seedOf(spec.seed, 'link')));
    samples = faded.samples;
    if (spec.link.kind === 'digital') {
      const survivors = events.filter((event) => event.kind !== 'click' || faded.dropouts.every((each) => event.endS < each.startS || event.startS > each.endS));
      events.splice(0, events.length, ...survivors, ...faded.dropouts.map((each): LabelledEvent => ({ kind: 'dropout', ...each })));
    }
  }
  if (spec.reductionDb > 0) samples = spectrallyGated(samples, samples.subarray(0, lead), spec.reductionDb);
  const automatic = spec.automaticLevel ? automaticLevel(samples, rateHz, spec.automaticLevel) : null;
  if (automatic) samples = automatic.samples;
  if (spec.limiterDbfs !== null) samples = limited(samples, rateHz, spec.limiterDbfs);
  const stored = converted(samples, spec.word, random);
  if (stored.clippedSamples > 0) events.push(...clipEvents(stored.samples, rateHz));
  const noisePower = noise.reduce((sum, x) => sum + x * x, 0) / length;
  return {
    samples: stored.samples,
    truth: {
      events: events.sort((a, b) => a.startS - b.startS),
      floorDbfs: 10 * Math.log10(noisePower * gain * gain),
      reverberationS,
      cleanVoice: heard.map((x) => x * gain),
      gainDb: automatic?.gainDb ?? null,
    },
  };
}

/** A gust is heard from where its swell passes a third of its height. */
function gustEvent({ startS, endS }: Gust): LabelledEvent {
  const lengthS = endS - startS;
  return { kind: 'wind', startS: startS + 0.2 * lengthS, endS: endS - 0.2 * lengthS };
}

function layTouches(spec: LabelledSpec, into: Float64Array, length: number, random: RandomSource, events: LabelledEvent[]): void {
  const { rateHz } = spec;
  const lengthS = length / rateHz;
  const voiceSpl = spec.voiceDbSpl - 20 * Math.log10(spec.distanceM);
  for (let count = 0; count < Math.min(spec.plosives, spec.onsetsS.length); count++) {
    const onset = spec.onsetsS[Math.floor(((count + 0.5) * spec.onsetsS.length) / spec.plosives)] as number;
    const laid = layPlosive(into, rateHz, spec.leadS + onset - 0.01, voiceSpl + 6 + 10 * random.uniform(), random);
    events.push({ kind: 'plosive', ...laid });
  }
  const busy = () => events.map(({ startS, endS }) => [startS - 0.3, endS + 0.3] as const);
  const beginnings = spec.beginningsS.map((at) => [spec.leadS + at - BEFORE_BEGINNING_S, spec.leadS + at + AFTER_BEGINNING_S] as const);
  for (const at of moments(spec.thumps, lengthS, random, [...busy(), ...beginnings])) {
    events.push({ kind: 'handling', ...layThump(into, rateHz, at, voiceSpl + 8 + 10 * random.uniform(), random) });
  }
  for (const at of moments(spec.rustles, lengthS - 1.2, random, busy())) {
    events.push({ kind: 'rustle', ...layRustle(into, rateHz, at, 0.4 + 0.7 * random.uniform(), voiceSpl + 2 + 8 * random.uniform(), spec.cloth, random) });
  }
}

/** Moments spread over a take, at random within equal parts, not in busy stretches; a part without a free moment gets none. */
function moments(count: number, lengthS: number, random: RandomSource, busy: readonly (readonly [number, number])[] = []): number[] {
  return Array.from({ length: count }, (_, part) => {
    for (let draw = 0; draw < MOST_DRAWS; draw++) {
      const at = 0.25 + ((lengthS - 0.5) * (part + 0.15 + 0.7 * random.uniform())) / count;
      if (busy.every(([from, to]) => at < from || at > to)) return [at];
    }
    return [];
  }).flat();
}

/** Around full scale a click is a jump among the corners of flat tops: nobody could name it. */
function clippedSpans(samples: Float64Array, rateHz: number): [number, number][] {
  const spans: [number, number][] = [];
  samples.forEach((x, index) => {
    if (Math.abs(x) < 1) return;
    const last = spans.at(-1);
    const [from, to] = [index / rateHz - AROUND_CLIPPING_S, index / rateHz + AROUND_CLIPPING_S];
    if (last && from <= last[1]) last[1] = to;
    else spans.push([from, to]);
  });
  return spans;
}

/** Spells of full scale, as a listener of the file alone could name them. */
function clipEvents(samples: Float64Array, rateHz: number): LabelledEvent[] {
  const top = samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  const events: LabelledEvent[] = [];
  let run = 0;
  samples.forEach((x, index) => {
    run = Math.abs(x) >= top * 0.9999 ? run + 1 : 0;
    if (run < 3) return;
    const last = events.at(-1);
    if (last && index / rateHz - last.endS < 0.05) last.endS = index / rateHz;
    else events.push({ kind: 'clip', startS: (index - 2) / rateHz, endS: index / rateHz });
  });
  return events;
}
