import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';

/** 0 dBu in volts. */
const DBU_V = 0.7746;
const PASCAL_DB_SPL = 94;

/** A link as the voice passes it. Levels of a link are null where its data does not tell them. */
export interface Stage {
  name: string;
  /** Gain less pad, in dB; 0 where none is noted. */
  gainDb: number;
  /** Average voice at its input, in dBu; behind a radio in dB re full scale. */
  inputDbu: number | null;
  /** Average and peak of the voice against the level at which this link clips, in dB; 0 is clipping. */
  averageUnderClipDb: number | null;
  peakHeadroomDb: number | null;
  /** Headroom of its second, lower track over the peaks; null where it has none. */
  safetyHeadroomDb: number | null;
  /** Stores float, so its gain cannot clip; its converter and what comes before it can. */
  float: boolean;
  /** Noise that this link adds, as if it came from a sound at the microphone, in dB SPL A. */
  ownNoiseDbSpl: number | null;
  /** Noise of all links so far, in dB SPL A at the microphone. */
  noiseDbSpl: number | null;
  /** Sound at the microphone at which this link or one before it clips, in dB SPL. */
  clipDbSpl: number | null;
}

/** A voice on its way through a chain. */
export interface LevelRun {
  stages: Stage[];
  voiceDbSpl: number;
  peakDbSpl: number;
  /** At the last link that has a full scale. */
  averageDbfs: number | null;
  peakDbfs: number | null;
  noiseDbfsA: number | null;
  /** Noise once the average voice has been brought to the target, in dB A; the predicted practical floor. */
  practicalFloorDb: number | null;
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

/**
 * Follows a voice through the links of a chain. Every link may have a pad and a gain before its full
 * scale, noise at its input, and an output that carries a stated level at full scale. Noises add by
 * powers. To compare links, their noise and their clipping point are told as the sound at the
 * microphone that would make as much.
 * @param voiceDbSpl average A-weighted level of the voice at the microphone
 * @param peakOverAverageDb how far peaks lie over it
 * @param targetDb level to which the voice is brought for the practical floor, on the same scale
 */
export function runLevels(
  chain: Pick<Chain, 'links'>,
  items: ReadonlyMap<string, Item>,
  { voiceDbSpl, peakOverAverageDb, targetDb }: { voiceDbSpl: number; peakOverAverageDb: number; targetDb: number },
): LevelRun {
  const stages: Stage[] = [];
  const gaps: string[] = [];
  /** Level in dBu that a sound of 0 dB SPL has here; null before the microphone and where a link broke the thread. */
  let atZeroSplDbu: number | null = null;
  let noiseDbSpl: number | null = null;
  let clipDbSpl: number | null = null;
  let averageDbfs: number | null = null;
  let lost = false;
  const lose = (why: string) => {
    if (!lost) gaps.push(`${why}, so nothing after it can be told`);
    lost = true;
    atZeroSplDbu = null;
    averageDbfs = null;
  };
  for (const { itemId, settings } of chain.links) {
    const item = items.get(itemId);
    const gainDb = (settings.gainDb ?? 0) - (settings.padDb ?? 0);
    const float = settings.wordLength === '32-bit float';
    let ownNoiseDbSpl: number | null = null;
    let ownClipDbSpl: number | null = null;
    const arrivingDbu: number | null = atZeroSplDbu;
    if (!item) lose('a link is no longer in the library');
    else if (item.kind === 'microphone') {
      ownNoiseDbSpl = item.selfNoiseDba;
      ownClipDbSpl = item.maxSplDb;
      if (item.selfNoiseDba === null) gaps.push(`self-noise of ${item.name} is not known`);
      if (item.maxSplDb === null) gaps.push(`maximum SPL of ${item.name} is not known`);
      if (item.sensitivityMvPerPa === null) lose(`sensitivity of ${item.name} is not known`);
      else atZeroSplDbu = sensitivityDbu(item.sensitivityMvPerPa) - PASCAL_DB_SPL;
    } else if (isActive(item)) {
      if (arrivingDbu === null) lose(`what arrives at ${item.name} is not known`);
      else {
        if (item.inputNoiseDbuA !== null) ownNoiseDbSpl = item.inputNoiseDbuA + (settings.padDb ?? 0) - arrivingDbu;
        else gaps.push(`input noise of ${item.name} is not known`);
        // What comes by radio is told against full scale, which the receiver shares with the transmitter.
        const inputMaxDbu = item.kind === 'receiver' ? 0 : item.inputMaxDbu;
        if (inputMaxDbu === null) lose(`largest input level of ${item.name} is not known`);
        else {
          const fullScaleDbSpl: number = inputMaxDbu - gainDb - arrivingDbu;
          // Float keeps what gain lifts over full scale; only the input itself still clips.
          ownClipDbSpl = float ? inputMaxDbu + (settings.padDb ?? 0) - arrivingDbu : fullScaleDbSpl;
          averageDbfs = voiceDbSpl - fullScaleDbSpl;
          const outputMaxDbu = item.kind === 'transmitter' ? 0 : item.outputMaxDbu;
          atZeroSplDbu = outputMaxDbu === null ? null : outputMaxDbu - fullScaleDbSpl;
        }
      }
    }
    if (ownNoiseDbSpl !== null) noiseDbSpl = noiseDbSpl === null ? ownNoiseDbSpl : sumDb(noiseDbSpl, ownNoiseDbSpl);
    if (ownClipDbSpl !== null) clipDbSpl = Math.min(clipDbSpl ?? Number.POSITIVE_INFINITY, ownClipDbSpl);
    stages.push({
      name: item?.name ?? 'no longer in the library',
      gainDb,
      inputDbu: arrivingDbu === null ? null : voiceDbSpl + arrivingDbu,
      averageUnderClipDb: ownClipDbSpl === null ? null : voiceDbSpl - ownClipDbSpl,
      peakHeadroomDb: ownClipDbSpl === null ? null : ownClipDbSpl - voiceDbSpl - peakOverAverageDb,
      safetyHeadroomDb: ownClipDbSpl === null || !settings.safetyTrackDb ? null : ownClipDbSpl - settings.safetyTrackDb - voiceDbSpl - peakOverAverageDb,
      float,
      ownNoiseDbSpl,
      noiseDbSpl,
      clipDbSpl,
    });
  }
  return {
    stages,
    voiceDbSpl,
    peakDbSpl: voiceDbSpl + peakOverAverageDb,
    averageDbfs,
    peakDbfs: averageDbfs === null ? null : stages.at(-1)?.float ? averageDbfs + peakOverAverageDb : Math.min(0, averageDbfs + peakOverAverageDb),
    noiseDbfsA: averageDbfs === null || noiseDbSpl === null ? null : averageDbfs + noiseDbSpl - voiceDbSpl,
    practicalFloorDb: noiseDbSpl === null ? null : targetDb + noiseDbSpl - voiceDbSpl,
    noisiest: indexOfLargest(stages.map((stage) => stage.ownNoiseDbSpl)),
    clipsFirst: indexOfLargest(stages.map((stage) => (stage.peakHeadroomDb === null ? null : -stage.peakHeadroomDb))),
    gaps,
  };
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
