import type { ConditionKind } from '../../domain/factor.ts';
import type { Item } from '../../domain/item.ts';
import type { Gains } from '../../domain/take.ts';

/** One recording of a candidate, with what matters for what it can be used for. */
export interface LimitSample {
  takeId: string;
  /** Levels that it was recorded at, by kind. */
  levels: Partial<Record<ConditionKind, string>>;
  /** Of the take, or where nobody noted it what its station is known for. */
  windMs: number | null;
  noiseDba: number | null;
  /** Which of the two are the station's. */
  ofStation: { wind: boolean; noise: boolean };
  indoors: boolean;
  gains: Gains;
  /** Share of the time with wind in it. */
  windShare: number | null;
  /** Speech intelligibility index, and speech transmission index. */
  sii: number | null;
  sti: number | null;
  /** Something in it clipped. */
  clipped: boolean | null;
  truePeakDbtp: number | null;
  activeLevelDbfs: number | null;
}

/** How a windscreen did in wind. */
export interface WindLimit {
  windscreen: string;
  takes: number;
  /** Takes with wind in the sound. */
  windy: number;
  /** Fastest wind without any in the sound, and slowest with some, m/s. */
  freeToMs: number | null;
  heardFromMs: number | null;
  /** Takes whose wind is what the station is known for. */
  byStation: number;
}

/** Whether words were clear at a level of something. */
export interface ClearLimit {
  kind: ConditionKind;
  levelId: string;
  takes: number;
  clear: number;
  /** Least and most of the index. */
  low: number;
  high: number;
  /** Loudest surroundings among the clear ones, dB A; null where none was noted. */
  clearToDba: number | null;
  /** That loudness is what a station is known for, and not a reading of the take. */
  byStation: boolean;
}

/** What level and which gains it took. */
export interface LevelLimit {
  takes: number;
  clipped: number;
  /** Highest true peak among those that did not clip. */
  loudestDbtp: number | null;
  /** Active level of speech, least and most. */
  speechDbfs: [number, number] | null;
  /** Of each stage whose gain was noted: the least gain with which something clipped, and the most with which nothing did. */
  gains: { stage: keyof Gains; takes: number; clippedFromDb: number | null; cleanToDb: number | null }[];
}

/** What a candidate can be used for, as far as it was tried; null or nothing where it was not. */
export interface Limits {
  candidateId: string;
  wind: WindLimit[];
  /** Words in noise, by what was varied: kinds of noise, or stations. */
  words: ClearLimit[];
  /** Words in a room, by distance: indoors only, since what is lost outside is lost to noise. */
  room: ClearLimit[];
  level: LevelLimit | null;
  /** What feeds its microphone, and what stops first; null where nobody knows. */
  feed: Item['powerNeeds'];
  hours: { hours: number; name: string } | null;
}

/** From such a share of the time on there is wind in a recording: less is a gust beside the words. */
const WINDY = 0.02;
/** Index from which speech is clear: "good" of ANSI S3.5-1997, and of IEC 60268-16 for transmission. */
const CLEAR_SII = 0.75;
const CLEAR_STI = 0.6;

/**
 * What a candidate can be used for.
 * @param distanceM of a level of distance that has a number
 * @param links of its chain, in signal order
 */
export function limitsOf(candidateId: string, samples: readonly LimitSample[], links: readonly Item[], distanceM: (levelId: string) => number | null): Limits {
  const timed = links.filter(({ runningTimeH }) => runningTimeH !== null);
  const first = timed.reduce<Item | null>((least, link) => ((link.runningTimeH as number) < (least?.runningTimeH ?? Number.POSITIVE_INFINITY) ? link : least), null);
  const noiseKind = samples.some(({ levels }) => levels.noise !== undefined) ? 'noise' : 'station';
  return {
    candidateId,
    wind: windLimits(samples),
    words: clearLimits(samples, noiseKind, ({ sii }) => sii, CLEAR_SII),
    room: clearLimits(
      samples.filter(({ indoors }) => indoors),
      'distance',
      ({ sti }) => sti,
      CLEAR_STI,
    )
      .filter(({ levelId }) => distanceM(levelId) !== null)
      .sort((a, b) => (distanceM(a.levelId) as number) - (distanceM(b.levelId) as number)),
    level: levelLimit(samples),
    feed: links.find(({ kind }) => kind === 'microphone')?.powerNeeds ?? null,
    hours: first ? { hours: first.runningTimeH as number, name: first.name } : null,
  };
}

const most = (values: readonly number[]) => (values.length > 0 ? Math.max(...values) : null);
const least = (values: readonly number[]) => (values.length > 0 ? Math.min(...values) : null);

function windLimits(samples: readonly LimitSample[]): WindLimit[] {
  const told = samples.flatMap(({ levels, windMs, windShare, ofStation }) =>
    levels.windscreen !== undefined && windMs !== null && windMs > 0 && windShare !== null
      ? [{ windscreen: levels.windscreen, windMs, windy: windShare >= WINDY, byStation: ofStation.wind }]
      : [],
  );
  return [...new Set(told.map(({ windscreen }) => windscreen))].map((windscreen) => {
    const own = told.filter((each) => each.windscreen === windscreen);
    const speeds = (windy: boolean) => own.flatMap((each) => (each.windy === windy ? [each.windMs] : []));
    return {
      windscreen,
      takes: own.length,
      windy: speeds(true).length,
      freeToMs: most(speeds(false)),
      heardFromMs: least(speeds(true)),
      byStation: own.filter(({ byStation }) => byStation).length,
    };
  });
}

function clearLimits(samples: readonly LimitSample[], kind: ConditionKind, indexOf: (sample: LimitSample) => number | null, clearFrom: number): ClearLimit[] {
  const told = samples.flatMap((sample) => {
    const [levelId, index] = [sample.levels[kind], indexOf(sample)];
    return levelId !== undefined && index !== null ? [{ levelId, index, noiseDba: sample.noiseDba, byStation: sample.ofStation.noise }] : [];
  });
  return [...new Set(told.map(({ levelId }) => levelId))].map((levelId) => {
    const own = told.filter((each) => each.levelId === levelId);
    const clear = own.filter(({ index }) => index >= clearFrom);
    const indices = own.map(({ index }) => index);
    const clearToDba = most(clear.flatMap(({ noiseDba }) => noiseDba ?? []));
    return {
      kind,
      levelId,
      takes: own.length,
      clear: clear.length,
      low: Math.min(...indices),
      high: Math.max(...indices),
      clearToDba,
      byStation: clearToDba !== null && clear.filter(({ noiseDba }) => noiseDba === clearToDba).every(({ byStation }) => byStation),
    };
  });
}

function levelLimit(samples: readonly LimitSample[]): LevelLimit | null {
  const told = samples.filter(({ clipped }) => clipped !== null);
  if (told.length === 0) return null;
  const speech = told.flatMap(({ activeLevelDbfs }) => activeLevelDbfs ?? []);
  const stages = [...new Set(told.flatMap(({ gains }) => Object.keys(gains) as (keyof Gains)[]))];
  return {
    takes: told.length,
    clipped: told.filter(({ clipped }) => clipped).length,
    loudestDbtp: most(told.flatMap(({ clipped, truePeakDbtp }) => (clipped ? [] : (truePeakDbtp ?? [])))),
    speechDbfs: speech.length > 0 ? [Math.min(...speech), Math.max(...speech)] : null,
    gains: stages.map((stage) => {
      const at = (clipped: boolean) => told.flatMap((each) => (each.clipped === clipped ? (each.gains[stage] ?? []) : []));
      return { stage, takes: at(true).length + at(false).length, clippedFromDb: least(at(true)), cleanToDb: most(at(false)) };
    }),
  };
}
