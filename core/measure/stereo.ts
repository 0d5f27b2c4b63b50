import { RECORDING_MEASURE_IDS } from '../domain/measureId.ts';
import type { Figures } from '../domain/recording.ts';
import type { FileReport } from './report.types.ts';

/** Of these the channel that has more is the one that is heard. */
const THE_HIGHER = /^(levels\.(samplePeakDbfs|truePeakDbtp|clippedRuns|clippedSamples|flattenedShare|dcOffset)|events\.|character\.(windShare|pumpingDb)|noise\.(humDbfs|gatedDb))/;
/** Levels of what both channels hold, as mean power. */
const POWERS = /^(levels\.rmsDbfs|activity\.activeLevelDbfs|noise\.(floorDbfs|floorDbfsA|floorDbfs468|practicalFloorDbfs|practicalFloorDbfsA|noiseDbfsA))$/;

/**
 * Figures of a stereo recording from those of its two channels: loudness and true peak as those of a programme (ITU-R BS.1770-5); of
 * peaks, clipping and faults those of the channel that has more; levels as mean power; all else the mean of both. What one channel
 * cannot say is not known of the pair.
 * @param programme of the stretch that it is
 */
export function stereoFigures(left: Figures, right: Figures, programme: FileReport['programme']): Figures {
  return Object.fromEntries(
    RECORDING_MEASURE_IDS.flatMap((id) => {
      const value = id.startsWith('loudness.') ? (programme[id.slice('loudness.'.length) as keyof FileReport['programme']] ?? null) : combined(id, left[id], right[id]);
      return value === null ? [] : [[id, Number(value.toFixed(4))]];
    }),
  );
}

function combined(id: string, left: number | undefined, right: number | undefined): number | null {
  if (left === undefined || right === undefined) return null;
  if (THE_HIGHER.test(id)) return Math.max(left, right);
  if (POWERS.test(id)) return 10 * Math.log10((10 ** (left / 10) + 10 ** (right / 10)) / 2);
  return (left + right) / 2;
}
