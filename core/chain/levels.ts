import type { Chain, LinkSettings } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';

/** 0 dBu in volts. */
const DBU_V = 0.7746;
const PASCAL_DB_SPL = 94;

/** RMS of a full-scale sine on the scale of all levels here and in Takes; what clips a sine is stated as its RMS. */
export const FULL_SCALE_SINE_DBFS = -3.0103;
/** A crest factor is told against the RMS; a sine has this one. */
const SINE_CREST_DB = -FULL_SCALE_SINE_DBFS;
/**
 * K-weighted loudness of speech (ITU-R BS.1770-5) over its A-weighted level, both re one full scale: that of
 * the long-term average speech spectrum of Byrne et al., JASA 96 (1994), table II.
 */
export const SPEECH_K_OVER_A_DB = 3.6;
/** Noise of a word length re a full-scale sine: 6.02 dB a bit and 1.76 dB. */
const WORD_NOISE_DB: Record<string, number | undefined> = { '16 bit': -98.1, '24 bit': -146.3 };

/** A link as the voice passes it. Levels of a link are null where its data does not tell them. */
export interface Stage {
  name: string;
  /** Gain less pads and losses, in dB; 0 where none is noted. */
  gainDb: number;
  /** Average voice at its input, in dBu; behind a radio in dB re a full-scale sine. */
  inputDbu: number | null;
  /** Average and peak of the voice against the level at which this link clips, in dB; 0 is clipping. */
  averageUnderClipDb: number | null;
  peakHeadroomDb: number | null;
  /** Headroom of its second, lower track over the peaks; null where it has none. */
  safetyHeadroomDb: number | null;
  /** Stores float, so its gain cannot clip; its converter and what comes before it can. */
  float: boolean;
  /** A limiter holds what would clip here: it is heard at work instead. */
  limited: boolean;
  /** Noise that this link adds, as if it came from a sound at the microphone, in dB SPL A. */
  ownNoiseDbSpl: number | null;
  /** Noise of all links so far that is known, in dB SPL A at the microphone. */
  noiseDbSpl: number | null;
  /** Sound at the microphone at which this link or one before it clips, in dB SPL. */
  clipDbSpl: number | null;
}

/** A voice on its way through a chain. Levels re full scale are on the scale of Takes: a full-scale sine has -3.01 dBFS. */
export interface LevelRun {
  stages: Stage[];
  voiceDbSpl: number;
  /** Peaks of the voice as the level of a sine that reaches as far, which is what clipping is told in. */
  peakDbSpl: number;
  /** A-weighted level at the last link that has a full scale. */
  averageDbfs: number | null;
  peakDbfs: number | null;
  noiseDbfsA: number | null;
  /** Noise once the voice has been brought to the target loudness, in dB A; the predicted practical floor. */
  practicalFloorDb: number | null;
  /** Some noise is not known: the figures of noise are the least that there is. */
  noiseAtLeast: boolean;
  /** Index of the link that adds most noise, and of the one that clips first. */
  noisiest: number | null;
  clipsFirst: number | null;
  /** What is not known, in sentences. */
  gaps: string[];
}

const sumDb = (...levels: number[]) => 10 * Math.log10(levels.reduce((sum, level) => sum + 10 ** (level / 10), 0));

/** Output of a microphone at 94 dB SPL, in dBu. @example sensitivityDbu(7.746) // -40 */
export function sensitivityDbu(mvPerPa: number): number {
  return 20 * Math.log10(mvPerPa / 1000 / DBU_V);
}

/** A voice where it meets the microphone, and what it is brought to. */
export interface VoiceHere {
  /** Average A-weighted level. */
  voiceDbSpl: number;
  /** How far peaks lie over the RMS of the voice. */
  peakOverAverageDb: number;
  /** Loudness to which the voice is brought for the practical floor. */
  targetLufs: number;
}

/** What is carried from link to link. */
interface Thread {
  /** Level in dBu that a sound of 0 dB SPL has here; null before the microphone and where a link broke the thread. */
  atZeroSplDbu: number | null;
  averageDbfs: number | null;
  lost: boolean;
  noiseAtLeast: boolean;
  gaps: string[];
}

/** What one link does to the thread. */
type Passed = Pick<Stage, 'ownNoiseDbSpl'> & { ownClipDbSpl: number | null };
const NOTHING: Passed = { ownNoiseDbSpl: null, ownClipDbSpl: null };

/**
 * Follows a voice through the links of a chain. Every link may have a pad and a gain before its full
 * scale, noise at its input and of its converter, and an output that carries a stated level at full scale;
 * cables, adapters and pads of microphones take away what they are said to. Noises add by powers. To
 * compare links, their noise and their clipping point are told as the sound at the microphone that would
 * make as much. Gain lifts the voice over the noise of the converter, never over that of the input.
 */
export function runLevels(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>, { voiceDbSpl, peakOverAverageDb, targetLufs }: VoiceHere): LevelRun {
  const stages: Stage[] = [];
  const thread: Thread = { atZeroSplDbu: null, averageDbfs: null, lost: false, noiseAtLeast: false, gaps: [] };
  const peakOverSineDb = peakOverAverageDb - SINE_CREST_DB;
  let noiseDbSpl: number | null = null;
  let clipDbSpl: number | null = null;
  for (const { itemId, settings } of chain.links) {
    const item = items.get(itemId);
    const arrivingDbu = thread.atZeroSplDbu;
    const { ownNoiseDbSpl, ownClipDbSpl } = item ? pass(item, settings, thread, voiceDbSpl) : NOTHING;
    if (!item) lose(thread, 'a link is no longer in the library');
    const limited = settings.limiter === true && !!item && isActive(item);
    if (ownNoiseDbSpl !== null) noiseDbSpl = noiseDbSpl === null ? ownNoiseDbSpl : sumDb(noiseDbSpl, ownNoiseDbSpl);
    // What a limiter holds does not clip, here or later.
    if (ownClipDbSpl !== null && !limited) clipDbSpl = Math.min(clipDbSpl ?? Number.POSITIVE_INFINITY, ownClipDbSpl);
    const overPeakDb = ownClipDbSpl === null ? null : ownClipDbSpl - voiceDbSpl - peakOverSineDb;
    stages.push({
      name: item?.name ?? 'no longer in the library',
      gainDb: (settings.gainDb ?? 0) - (settings.padDb ?? 0) - (item?.lossDb ?? 0),
      inputDbu: arrivingDbu === null ? null : voiceDbSpl + arrivingDbu,
      averageUnderClipDb: ownClipDbSpl === null ? null : voiceDbSpl - ownClipDbSpl,
      peakHeadroomDb: overPeakDb,
      safetyHeadroomDb: overPeakDb === null || !settings.safetyTrackDb ? null : overPeakDb - settings.safetyTrackDb,
      float: settings.wordLength === '32-bit float',
      limited,
      ownNoiseDbSpl,
      noiseDbSpl,
      clipDbSpl,
    });
  }
  const { averageDbfs, noiseAtLeast, gaps } = thread;
  return {
    stages,
    voiceDbSpl,
    peakDbSpl: voiceDbSpl + peakOverSineDb,
    averageDbfs,
    peakDbfs: averageDbfs === null ? null : stages.at(-1)?.float ? averageDbfs + peakOverAverageDb : Math.min(0, averageDbfs + peakOverAverageDb),
    noiseDbfsA: averageDbfs === null || noiseDbSpl === null ? null : averageDbfs + noiseDbSpl - voiceDbSpl,
    practicalFloorDb: noiseDbSpl === null ? null : targetLufs - SPEECH_K_OVER_A_DB + noiseDbSpl - voiceDbSpl,
    noiseAtLeast,
    noisiest: indexOfLargest(stages.map((stage) => stage.ownNoiseDbSpl)),
    clipsFirst: indexOfLargest(stages.map((stage) => (stage.peakHeadroomDb === null || stage.limited ? null : -stage.peakHeadroomDb))),
    gaps,
  };
}

function lose(thread: Thread, why: string): void {
  if (!thread.lost) thread.gaps.push(`${why}, so nothing after it can be told`);
  thread.lost = true;
  thread.atZeroSplDbu = null;
  thread.averageDbfs = null;
}

function unknownNoise(thread: Thread, what: string): void {
  thread.gaps.push(`${what} is not known`);
  thread.noiseAtLeast = true;
}

function pass(item: Item, settings: LinkSettings, thread: Thread, voiceDbSpl: number): Passed {
  if (item.kind === 'microphone') return passMicrophone(item, settings, thread);
  if (isActive(item)) return passActive(item, settings, thread, voiceDbSpl);
  if (thread.atZeroSplDbu !== null) thread.atZeroSplDbu -= (item.lossDb ?? 0) + (settings.padDb ?? 0);
  return NOTHING;
}

/** A pad of its own moves all of a microphone up: what it bears, and what its amplifier hisses re the sound. */
function passMicrophone(item: Item, settings: LinkSettings, thread: Thread): Passed {
  const padDb = settings.padDb ?? 0;
  if (item.selfNoiseDba === null) unknownNoise(thread, `self-noise of ${item.name}`);
  if (item.maxSplDb === null) thread.gaps.push(`maximum SPL of ${item.name} is not known`);
  if (item.sensitivityMvPerPa === null) lose(thread, `sensitivity of ${item.name} is not known`);
  else thread.atZeroSplDbu = sensitivityDbu(item.sensitivityMvPerPa) - PASCAL_DB_SPL - padDb;
  return { ownNoiseDbSpl: item.selfNoiseDba === null ? null : item.selfNoiseDba + padDb, ownClipDbSpl: item.maxSplDb === null ? null : item.maxSplDb + padDb };
}

function passActive(item: Item, settings: LinkSettings, thread: Thread, voiceDbSpl: number): Passed {
  const arrivingDbu = thread.atZeroSplDbu;
  if (arrivingDbu === null) {
    lose(thread, `what arrives at ${item.name} is not known`);
    return NOTHING;
  }
  const padDb = settings.padDb ?? 0;
  const gainDb = (settings.gainDb ?? 0) - padDb;
  const noises: number[] = [];
  if (item.inputNoiseDbuA !== null) noises.push(item.inputNoiseDbuA + padDb - arrivingDbu);
  else unknownNoise(thread, `input noise of ${item.name}`);
  // What comes by radio is told against full scale, which the receiver shares with the transmitter.
  const inputMaxDbu = item.kind === 'receiver' ? 0 : inputOf(item, settings);
  if (inputMaxDbu === null) {
    lose(thread, `largest input level of ${item.name} is not known`);
    return { ownNoiseDbSpl: noises[0] ?? null, ownClipDbSpl: null };
  }
  const fullScaleDbSpl = inputMaxDbu - gainDb - arrivingDbu;
  const wordNoiseDb = settings.wordLength === null ? undefined : WORD_NOISE_DB[settings.wordLength];
  for (const noiseDbfs of [item.converterNoiseDbfsA ?? undefined, wordNoiseDb]) if (noiseDbfs !== undefined) noises.push(fullScaleDbSpl + noiseDbfs);
  if (item.converterNoiseDbfsA === null && (item.kind === 'recorder' || item.kind === 'camera')) unknownNoise(thread, `noise of the converter of ${item.name}`);
  thread.averageDbfs = voiceDbSpl - fullScaleDbSpl + FULL_SCALE_SINE_DBFS;
  const outputMaxDbu = item.kind === 'transmitter' ? 0 : item.outputMaxDbu;
  thread.atZeroSplDbu = outputMaxDbu === null ? null : outputMaxDbu - fullScaleDbSpl;
  // Float keeps what gain lifts over full scale; only the input itself still clips.
  const float = settings.wordLength === '32-bit float';
  return { ownNoiseDbSpl: noises.length === 0 ? null : sumDb(...noises), ownClipDbSpl: float ? inputMaxDbu + padDb - arrivingDbu : fullScaleDbSpl };
}

/** Largest level of the input that is used: one that is set to line has its own, where it is known. */
export function inputOf(item: Pick<Item, 'inputMaxDbu' | 'lineInputMaxDbu'>, settings: Pick<LinkSettings, 'lineLevel'>): number | null {
  return settings.lineLevel === 'line' ? (item.lineInputMaxDbu ?? item.inputMaxDbu) : item.inputMaxDbu;
}

/** Links that have electronics of their own; cables, windscreens and adapters pass what comes. */
export function isActive(item: Pick<Item, 'kind'>): boolean {
  return item.kind === 'transmitter' || item.kind === 'receiver' || item.kind === 'recorder' || item.kind === 'camera';
}

function indexOfLargest(values: readonly (number | null)[]): number | null {
  let best: number | null = null;
  values.forEach((value, index) => {
    if (value !== null && (best === null || value > (values[best] as number))) best = index;
  });
  return best;
}
