import type { EventKind } from '../../domain/measureId.ts';
import type { Heard } from '../chapter.types.ts';
import { insideSpans } from '../spans.ts';
import { FRAME_S, frameTimesS, meanOf, quantile, smoothedDb } from '../tracks/frames.ts';
import type { StandoutKind } from './standoutKinds.ts';

/** Kinds whose sound lies low. */
const LOW: readonly EventKind[] = ['wind', 'plosive', 'handling'];
/** What a break or a click stands against: so much to either side. */
const BESIDE_S = 0.1;

/** Mean A-weighted level of the words; of the loudest moments where there are none. */
export function voiceLevelDb({ weighted, speech, startS }: Heard): number {
  const times = frameTimesS(weighted.length, startS);
  const spoken = insideSpans(times, speech, 0);
  const heard = weighted.filter((_, frame) => spoken[frame]);
  if (heard.length === 0) return quantile(smoothedDb(weighted, 3).sort(), 0.95);
  return 10 * Math.log10(Math.max(1e-15, meanOf(heard, 0, heard.length)));
}

/** How loud something is against the voice: what lies low for knocks and air, all that is heard for the rest. */
export function againstVoiceDb({ tracks, weighted, startS }: Heard, kind: StandoutKind, fromS: number, toS: number, voiceDb: number): number {
  const powers = LOW.includes(kind) ? tracks.low.view() : weighted;
  return loudestDb(powers, fromS - startS, toS - startS) - voiceDb;
}

/**
 * How bad an event is that somebody marked, as nearly as it can be told from levels of 10 ms: a break by how
 * far it falls under what lies beside it, a click by how far it stands out of that, what lies over the voice
 * against the voice. Of clipping nobody can say how far it would have gone: 0.
 */
export function markedSeverityDb(heard: Heard, kind: EventKind, fromS: number, toS: number): number {
  if (kind === 'clip') return 0;
  if (kind !== 'dropout' && kind !== 'click') return againstVoiceDb(heard, kind, fromS, toS, voiceLevelDb(heard));
  const { weighted, startS } = heard;
  const [from, to] = [fromS - startS, toS - startS];
  const besideDb = Math.max(loudestDb(weighted, from - BESIDE_S, from - FRAME_S), loudestDb(weighted, to + FRAME_S, to + BESIDE_S));
  if (kind === 'click') return Math.max(0, loudestDb(weighted, from, to) - besideDb);
  const within = smoothedDb(weighted.subarray(Math.max(0, Math.round(from / FRAME_S)), Math.max(1, Math.round(to / FRAME_S))), 1);
  return Math.max(0, besideDb - within.reduce((least, level) => Math.min(least, level), besideDb));
}

/** Loudest of a stretch in seconds from the first frame, one frame to either side. */
function loudestDb(powers: Float64Array, fromS: number, toS: number): number {
  const levels = smoothedDb(powers.subarray(Math.max(0, Math.round(fromS / FRAME_S) - 1), Math.max(0, Math.round(toS / FRAME_S) + 1)), 3);
  return levels.reduce((most, level) => Math.max(most, level), -150);
}
