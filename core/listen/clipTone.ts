import { type BiquadCoefficients, lowPass } from '../audio/biquad.ts';
import { matchSection } from '../measure/pair/eqMatch.ts';
import type { PairTrack } from '../measure/pair/track.ts';
import type { MatchFilter } from '../measure/report.types.ts';
import { type ClipSource, type ClipTone, clipPiece } from './blindClip.ts';
import { CLIP_RATE_HZ, clipFrames, pieceCount } from './clipForm.ts';
import { meanLoudnessLufs, VoiceLoudness } from './voiceLoudness.ts';

/** What is left of a voice on a narrow telephone line: the low anchor of ITU-R BS.1534-3, 5.1. */
const CORNER_HZ = 3500;
/** Butterworth of the sixth order: 36 dB an octave. */
const QUALITIES = [0.5176, 0.7071, 1.9319];

/** Filters that take the top of a clip away, so that it is worse on purpose. */
export const worseSections = (): BiquadCoefficients[] => QUALITIES.map((quality) => lowPass(CORNER_HZ, quality, CLIP_RATE_HZ));

/** Filters that bring a clip nearest to a reference. */
export const matchSections = (filters: readonly MatchFilter[]): BiquadCoefficients[] => filters.map((filter) => matchSection(filter, CLIP_RATE_HZ));

/**
 * Filters for a clip with the gain that makes it as loud as it was, since what filters change in level is no difference of tone.
 * Its channels get the same, so that a stereo picture stays where it is. Read piece by piece.
 */
export function toneOf(track: PairTrack, source: Omit<ClipSource, 'tone'>, wide: boolean, sections: BiquadCoefficients[]): ClipTone {
  const before = lufsOf(track, source, wide);
  const after = lufsOf(track, { ...source, tone: { sections, gainDb: 0 } }, wide);
  return { sections, gainDb: before === null || after === null ? 0 : before - after };
}

function lufsOf(track: PairTrack, source: ClipSource, wide: boolean): number | null {
  const pieces = pieceCount(clipFrames(source.lengthS));
  const meters: VoiceLoudness[] = [];
  for (let piece = 0; piece < pieces; piece++) {
    for (const [channel, samples] of clipPiece(track, source, wide, piece).entries()) {
      meters[channel] ??= new VoiceLoudness(CLIP_RATE_HZ);
      meters[channel].push(samples);
    }
  }
  return meanLoudnessLufs(meters.map((meter) => meter.lufs([])));
}
