import type { EventKind } from '../domain/measureId.ts';
import type { Chapter, Heard } from './chapter.types.ts';
import type { DecayFinder } from './decay.ts';
import { markedEvents, withoutCorrected } from './events/corrected.ts';
import { findEvents } from './events/findEvents.ts';
import { frameFeatures } from './events/frameFeatures.ts';
import { likely } from './events/namer.ts';
import { findWords, SHORTEST_PAUSE_S, withoutNoises } from './findWords.ts';
import type { AudioEvent, MarkedByHand, Span } from './report.types.ts';
import { ringingAfter, wordlessSpans } from './ringing.ts';
import { shiftSpans, spansAbove, withoutSpans } from './spans.ts';
import type { ChannelTracks } from './tracks/channelTracks.ts';
import { coarser, FRAME_S, NOTHING_DB } from './tracks/frames.ts';

/** Longest stretch that is kept before words and events are told, in seconds; times the channels. */
const LONGEST_CHAPTER_S = 300;
const CHAPTER_CHANNEL_S = 2400;

/** Events that swell and die down by themselves, which is no room's ringing. */
const DIE_DOWN: readonly EventKind[] = ['wind', 'handling', 'rustle'];

/** A file that is no longer is one chapter, in seconds. */
export const longestChapterS = (channels: number): number => Math.min(LONGEST_CHAPTER_S, CHAPTER_CHANNEL_S / channels);

/** How many 10 ms frames a chapter has: a file is parted evenly, so that no chapter is very short. */
export function chapterFrames(totalFrames: number, channels: number): number {
  const longest = longestChapterS(channels) / FRAME_S;
  return Math.max(1, Math.ceil(totalFrames / Math.max(1, Math.ceil(totalFrames / longest))));
}

/** Tells words, pauses and events of what the tracks hold. */
export function understand(tracks: ChannelTracks, startS: number, { roomTone, corrections }: MarkedByHand, decays: DecayFinder): Chapter {
  tracks.flush();
  const weighted = coarser(tracks.weighted.fine(), 5);
  const endS = startS + weighted.length * FRAME_S;
  const words = findWords(weighted);
  const features = frameFeatures(tracks, startS);
  const moments = { timesS: features.timesS, hopS: features.hopS, likely: likely(features) };
  const { speech, voiceSure } = withoutNoises(shiftSpans(words.speech, startS), moments, weighted, startS);
  const quiet = withoutSpans([[startS, endS]], speech, SHORTEST_PAUSE_S);
  const heard: Heard = { startS, endS, tracks, weighted, speech, voiceSure, quiet, contrastDb: words.contrastDb };
  const events = [...withoutCorrected(findEvents(heard, moments), corrections), ...markedEvents(heard, corrections)].sort((a, b) => a.startS - b.startS);
  decays.settle(weighted, shiftSpans(spansOf(events.filter(({ kind }) => DIE_DOWN.includes(kind))), -startS));
  const decayS = decays.reverberationS();
  const rings = ringingAfter({ weighted, startS, decayS });
  return {
    ...heard,
    events,
    decayS,
    directToRoom: decays.directToRoom(),
    rings,
    wordless: wordlessSpans(quiet, heard, rings),
    pause: roomTone ? within(roomTone, startS, endS) : roomToneOf(quiet, [...silences(weighted, startS), ...spansOf(events)]),
  };
}

const spansOf = (events: readonly AudioEvent[]) => events.map((event): Span => [event.startS, event.endS]);

function within([from, to]: Span, startS: number, endS: number): Span[] {
  const span: Span = [Math.max(from, startS), Math.min(to, endS)];
  return span[1] > span[0] ? [span] : [];
}

/** Quiet without events and without digital silence, which is no room's tone. */
function roomToneOf(quiet: readonly Span[], holes: readonly Span[]): Span[] {
  return withoutSpans(quiet, holes, SHORTEST_PAUSE_S);
}

function silences(weighted: Float64Array, startS: number): Span[] {
  const silent = weighted.map((power) => (power < 10 ** (NOTHING_DB / 10) ? 1 : 0));
  return shiftSpans(spansAbove(silent, 1, 1, FRAME_S), startS);
}
