import { linearRegression, quantileSorted } from 'simple-statistics';
import type { Acoustics } from '../domain/station.ts';
import { eyringS } from '../simulate/imageRoom.ts';
import { diffusePower, type MicrophonePattern } from '../simulate/microphone.ts';
import { NORMAL_VOICE_DBA } from './boomFigures.ts';
import type { HeardAs } from './heardAs.ts';
import { colourBeside, type TwoSpectra } from './learned.ts';
import { placeOnBody } from './nearMouth.ts';
import { roomShare } from './noiseAt.ts';
import { bedOctaves, octavesDba } from './noiseKinds.ts';
import { windAgainstScreens } from './windFigures.ts';
import { voiceGainDb, WORN_BANDS_HZ, type WornFigures, wornDb, wornFigures } from './wornColour.ts';

export const FORESEEN_KINDS = ['voice over noise', 'level by distance', 'decay', 'top against the boom'] as const;
export type ForeseenKind = (typeof FORESEEN_KINDS)[number];

/** A recording with what is known of its setup, and what was measured of it. */
export interface FoundRecording {
  recordingId: string;
  takeId: string;
  candidateId: string;
  stationId: string;
  place: Acoustics;
  /** Of the take, as it was read; it goes before the station's. */
  noiseDba: number | null;
  as: HeardAs;
  /** Of the take as it was read, else of the station; null where neither is known. */
  windMs: number | null;
  /** What was over the capsule against wind; null where no such level is known. */
  screen: string | null;
  /** From the mouth to a boom, where the plan or the placement says so. */
  boomDistanceM: number | null;
  pattern: MicrophonePattern;
  /** Gain as it was set at every stage, as a text; two that differ cannot be compared by level. */
  gains: string;
  found: { snrDb: number | null; reverberationS: number | null; activeLevelDbfs: number | null; spectra: TwoSpectra | null };
}

/** One figure that was foreseen, and what was found. */
export interface ForeseenRow {
  kind: ForeseenKind;
  recordingId: string;
  takeId: string;
  candidateId: string;
  stationId: string;
  distanceM: number | null;
  foreseen: number;
  found: number;
  /** Found less foreseen; of a decay as a share of what was foreseen. */
  error: number;
}

const AT_1_KHZ = 4;
const MIDDLE_BANDS = [2, 3];
/** A boom beside a lavalier usually looks at the mouth from here, and hangs so far off where nobody said. */
const USUAL_OFF_RAD = Math.PI / 4;
const USUAL_BOOM_M = 0.6;
const TOP_FROM_HZ = 3000;
const TOP_TO_HZ = 8000;

/** What was foreseen of every recording of which enough is known, beside what was found. */
export function foreseenRows(recordings: readonly FoundRecording[]): ForeseenRow[] {
  const worn = new WornKept();
  return recordings.flatMap((recording) =>
    [overNoise(recording, worn), decay(recording), byDistance(recording, recordings), top(recording, recordings, worn)].filter((row) => row !== null),
  );
}

type HeardWorn = Extract<HeardAs, { kind: 'worn' }>;

/** Worn microphones that were reckoned already: thousands of recordings have a handful of spots and rigs, and each takes a millisecond. */
class WornKept {
  private readonly made = new Map<string, unknown>();

  /** How much louder its voice is than at 1 m ahead. */
  voiceDb(as: HeardWorn): number | null {
    return this.kept(['voice', as], () => {
      const gains = wornDb(wornOf(as));
      return gains && voiceGainDb(gains);
    });
  }

  figures(as: HeardWorn, boomDistanceM: number): WornFigures | null {
    return this.kept(['figures', as, boomDistanceM], () => wornFigures(wornOf(as), { distanceM: boomDistanceM, offAxisRad: USUAL_OFF_RAD }));
  }

  private kept<Value>(of: [what: string, as: HeardWorn, ...more: number[]], make: () => Value): Value {
    const [what, { spot, placement, rig }, ...more] = of;
    const key = JSON.stringify([what, spot, placement?.at, rig, more]);
    if (!this.made.has(key)) this.made.set(key, make());
    return this.made.get(key) as Value;
  }
}

const wornOf = ({ spot, placement, rig }: HeardWorn) => ({ placement: { at: placement?.at ?? null, spot, on: 'body' as const }, rig });

function rowOf(kind: ForeseenKind, recording: FoundRecording, foreseen: number | null, found: number | null): ForeseenRow | null {
  if (foreseen === null || found === null) return null;
  const { recordingId, takeId, candidateId, stationId } = recording;
  const error = kind === 'decay' ? found / foreseen - 1 : found - foreseen;
  return { kind, recordingId, takeId, candidateId, stationId, distanceM: distanceOf(recording), foreseen, found, error };
}

function distanceOf({ as, boomDistanceM }: FoundRecording): number | null {
  if (as.kind === 'boom') return boomDistanceM;
  const at = placeOnBody({ at: as.placement?.at ?? null, spot: as.spot, on: 'body' });
  return at && Math.hypot(at.forwardM, at.leftM, at.upM);
}

/** A normal voice by distance or spot, over the noise that was read, as far as the pattern lets it in. */
function overNoise(recording: FoundRecording, worn: WornKept): ForeseenRow | null {
  const bed = bedOctaves(recording.place);
  const noiseDba = recording.noiseDba ?? (bed && octavesDba(bed));
  if (noiseDba === null) return null;
  const { as, boomDistanceM } = recording;
  const gain = as.kind === 'worn' ? worn.voiceDb(as) : boomDistanceM === null ? null : -20 * Math.log10(boomDistanceM);
  if (gain === null) return null;
  const taken = recording.as.kind === 'boom' ? diffusePower(recording.pattern, 1000) : 1;
  const voiceDba = NORMAL_VOICE_DBA + gain;
  const wind = windDbaOf(recording, voiceDba);
  if (wind === null) return null;
  const noise = 10 * Math.log10(taken * 10 ** (noiseDba / 10) + 10 ** (wind / 10));
  return rowOf('voice over noise', recording, voiceDba - noise, recording.found.snrDb);
}

/** Wind at its capsule in dB A, next to nothing where none blows; null where it blows and nobody knows behind what. */
function windDbaOf({ windMs, screen, place }: FoundRecording, voiceDba: number): number | null {
  if (!windMs || (place.sizeM && place.absorption)) return Number.NEGATIVE_INFINITY;
  return windAgainstScreens(windMs, voiceDba).find((each) => each.screen === screen)?.windDba ?? null;
}

/** Eyring's decay in the middle bands. */
function decay(recording: FoundRecording): ForeseenRow | null {
  const { sizeM, absorption } = recording.place;
  if (!sizeM || !absorption) return null;
  const bands = eyringS({ sizeM, absorption });
  const middle = MIDDLE_BANDS.reduce((sum, band) => sum + (bands[band] as number), 0) / MIDDLE_BANDS.length;
  return rowOf('decay', recording, middle, recording.found.reverberationS);
}

/** How much softer a boom is than the nearest of the same candidate, station and gain: inverse square, and in a room its own sound that stays. */
function byDistance(recording: FoundRecording, all: readonly FoundRecording[]): ForeseenRow | null {
  const { boomDistanceM, found } = recording;
  if (recording.as.kind !== 'boom' || boomDistanceM === null || found.activeLevelDbfs === null) return null;
  const alike = all.filter(
    (each) =>
      each.as.kind === 'boom' &&
      each.candidateId === recording.candidateId &&
      each.stationId === recording.stationId &&
      each.gains === recording.gains &&
      each.boomDistanceM !== null &&
      each.found.activeLevelDbfs !== null,
  );
  const nearestM = Math.min(...alike.map((each) => each.boomDistanceM as number));
  if (boomDistanceM <= nearestM) return null;
  const near = alike.filter((each) => each.boomDistanceM === nearestM).map((each) => each.found.activeLevelDbfs as number);
  const powerAt = (metres: number) => 1 / metres ** 2 + roomShare(recording.place, AT_1_KHZ) * diffusePower(recording.pattern, 1000);
  const level = near.reduce((sum, db) => sum + db, 0) / near.length;
  return rowOf('level by distance', recording, 10 * Math.log10(powerAt(boomDistanceM) / powerAt(nearestM)), found.activeLevelDbfs - level);
}

/** What a worn microphone loses or wins at 3 to 8 kHz against the boom of the same take, without level. */
function top(recording: FoundRecording, all: readonly FoundRecording[], worn: WornKept): ForeseenRow | null {
  if (recording.as.kind !== 'worn' || !recording.found.spectra) return null;
  // Under a cloth that nobody noted its top cannot be foreseen.
  if (recording.as.under && !recording.as.rig) return null;
  const boom = all.find((each) => each.takeId === recording.takeId && each.as.kind === 'boom' && each.found.spectra);
  if (!boom?.found.spectra) return null;
  const figures = worn.figures(recording.as, boom.boomDistanceM ?? USUAL_BOOM_M);
  const found = colourBeside(recording.found.spectra, boom.found.spectra);
  return rowOf('top against the boom', recording, figures && topOf(figures.colourDb), found && topOf(found));
}

function topOf(colourDb: readonly (number | null)[]): number | null {
  const bands = colourDb.filter(
    (db, band): db is number => db !== null && (WORN_BANDS_HZ[band] as number) > 0.95 * TOP_FROM_HZ && (WORN_BANDS_HZ[band] as number) < 1.05 * TOP_TO_HZ,
  );
  return bands.length < 2 ? null : bands.reduce((sum, db) => sum + db, 0) / bands.length;
}

/** How right the model was for one kind of figure at one station. */
export interface ForeseenSum {
  kind: ForeseenKind;
  stationId: string;
  count: number;
  /** Median error, and half the way from the lowest tenth to the highest. */
  medianError: number;
  spread: number;
  /** How the error grows with each doubling of the distance; null where the distances are fewer than three. */
  perDoubling: number | null;
  /** The middle is right, but single figures are off by more than such a figure is worth. */
  scattered: boolean;
  /** Off by more than its spread and more than what such a figure is worth. */
  off: boolean;
}

/** Below these errors nobody would act otherwise: dB, dB, a quarter of the decay, dB. */
const WORTH: Record<ForeseenKind, number> = { 'voice over noise': 4, 'level by distance': 2, decay: 0.25, 'top against the boom': 4 };
const LEAST_COUNT = 3;

/** Rows summed up by kind and station, in the order of the kinds. */
export function foreseenSums(rows: readonly ForeseenRow[]): ForeseenSum[] {
  const stations = [...new Set(rows.map(({ stationId }) => stationId))];
  return FORESEEN_KINDS.flatMap((kind) =>
    stations.flatMap((stationId): ForeseenSum[] => {
      const own = rows.filter((row) => row.kind === kind && row.stationId === stationId);
      if (own.length === 0) return [];
      const sorted = own.map(({ error }) => error).sort((a, b) => a - b);
      const medianError = quantileSorted(sorted, 0.5);
      const spread = (quantileSorted(sorted, 0.9) - quantileSorted(sorted, 0.1)) / 2;
      const off = own.length >= LEAST_COUNT && Math.abs(medianError) > Math.max(WORTH[kind], spread);
      return [{ kind, stationId, count: own.length, medianError, spread, perDoubling: trendOf(own), scattered: !off && spread > 2 * WORTH[kind], off }];
    }),
  );
}

function trendOf(rows: readonly ForeseenRow[]): number | null {
  const points = rows.flatMap(({ distanceM, error }): [number, number][] => (distanceM === null ? [] : [[Math.log2(distanceM), error]]));
  return new Set(points.map(([octaves]) => octaves)).size < LEAST_COUNT ? null : linearRegression(points).m;
}

/** What an error that is too large may come from, and what to look at; the model cannot know. */
export function offWords({ kind, medianError }: Pick<ForeseenSum, 'kind' | 'medianError'>): string {
  const more = medianError > 0;
  if (kind === 'voice over noise')
    return more ? 'louder talkers or a quieter hour than the station has noted' : 'softer talkers, more noise than noted, or noise of the chain itself';
  if (kind === 'level by distance')
    return more
      ? 'it falls less with distance than foreseen: a harder room, or a gain that was changed without a note'
      : 'it falls more than foreseen: turned heads, or a gain that was changed without a note';
  if (kind === 'decay')
    return more ? 'surfaces harder than noted' : 'softer surfaces, furniture or people that are not noted, or microphones so near that they hardly hear the room';
  return more ? 'a cap, an open rig, or a boom that was off the axis' : 'cloth or a chin over it that nobody noted';
}
