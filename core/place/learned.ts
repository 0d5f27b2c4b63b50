import { quantileSorted } from 'simple-statistics';
import { THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import type { SpotId } from '../domain/spot.ts';
import type { SpectrumGroup } from '../measure/report.types.ts';
import { voiceGainDb, WORN_BANDS_HZ } from './wornColour.ts';

/** Spectra of the voice and of the pauses of one recording, in the third octaves of a report. */
export type TwoSpectra = Pick<SpectrumGroup, 'speechDb' | 'pauseDb'>;

/** A lavalier and a boom on the same words. */
export interface Beside {
  spot: SpotId;
  /** Under cloth. */
  under: boolean;
  trialId: string;
  takeId: string;
  lavalier: TwoSpectra;
  boom: TwoSpectra;
}

/** What takes say of a spot: colour against a boom, without level, in the bands of {@link WORN_BANDS_HZ}; null in a band that noise hid. */
export interface LearnedSpot {
  spot: SpotId;
  under: boolean;
  takes: number;
  trials: number;
  colourDb: (number | null)[];
  /** Half of the way from the lowest tenth to the highest. */
  spreadDb: (number | null)[];
}

/** Where the voice stands less than this over its own noise, a band tells of the noise. */
const LEAST_OVER_DB = 6;
/** A spot is learned from no fewer takes. */
export const LEAST_TAKES = 3;
const FIRST = THIRD_OCTAVE_HZ.indexOf(WORN_BANDS_HZ[0] as number);

/** Colour of one recording against another of the same words, without level; null in a band where either is not heard over its noise, and as a whole where too little is. */
export function colourBeside(lavalier: TwoSpectra, boom: TwoSpectra): (number | null)[] | null {
  const heard = ({ speechDb, pauseDb }: TwoSpectra, band: number) => {
    const speech = speechDb[FIRST + band];
    const pause = pauseDb[FIRST + band];
    return speech === null || speech === undefined || (pause !== null && pause !== undefined && speech - pause < LEAST_OVER_DB) ? null : speech;
  };
  const differences = WORN_BANDS_HZ.map((_, band) => {
    const [ours, theirs] = [heard(lavalier, band), heard(boom, band)];
    return ours === null || theirs === null ? null : ours - theirs;
  });
  const known = differences.filter((db) => db !== null);
  if (known.length < WORN_BANDS_HZ.length / 2) return null;
  // Bands that are not known stand at the middle of the others for the level, which they hardly move.
  const middle = quantileSorted(
    [...known].sort((a, b) => a - b),
    0.5,
  );
  const level = voiceGainDb(differences.map((db) => db ?? middle));
  return differences.map((db) => (db === null ? null : db - level));
}

/** What all takes say, by spot and whether it is under cloth: the median of takes in each band, with its spread; a take that holds several pairs counts once. */
export function learnedSpots(besides: readonly Beside[]): LearnedSpot[] {
  const groups = new Map<string, { spot: SpotId; under: boolean; trials: Set<string>; byTake: Map<string, (number | null)[][]> }>();
  for (const { spot, under, trialId, takeId, lavalier, boom } of besides) {
    const colour = colourBeside(lavalier, boom);
    if (!colour) continue;
    const key = `${spot}/${under}`;
    const group = groups.get(key) ?? { spot, under, trials: new Set(), byTake: new Map() };
    groups.set(key, group);
    group.trials.add(trialId);
    group.byTake.set(takeId, [...(group.byTake.get(takeId) ?? []), colour]);
  }
  return [...groups.values()].map(({ spot, under, trials, byTake }) => {
    const takes = [...byTake.values()].map((colours) => WORN_BANDS_HZ.map((_, band) => middleOf(colours.map((colour) => colour[band] ?? null))));
    const inBand = (band: number) => takes.map((colour) => colour[band] ?? null).filter((db) => db !== null);
    return {
      spot,
      under,
      takes: takes.length,
      trials: trials.size,
      colourDb: WORN_BANDS_HZ.map((_, band) => (inBand(band).length >= LEAST_TAKES ? middleOf(inBand(band)) : null)),
      spreadDb: WORN_BANDS_HZ.map((_, band) => {
        const sorted = inBand(band).sort((a, b) => a - b);
        return sorted.length >= LEAST_TAKES ? (quantileSorted(sorted, 0.9) - quantileSorted(sorted, 0.1)) / 2 : null;
      }),
    };
  });
}

function middleOf(values: readonly (number | null)[]): number | null {
  const known = values.filter((value) => value !== null).sort((a, b) => a - b);
  return known.length === 0 ? null : quantileSorted(known, 0.5);
}
