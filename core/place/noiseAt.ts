import type { FrameBoom, FrameDraft, FrameTalker } from '../domain/frame.ts';
import type { Acoustics, NoiseSource } from '../domain/station.ts';
import { NORMAL_SPEECH_DB } from '../measure/intelligibility.ts';
import { diffusePower, type MicrophonePattern, patternGain } from '../simulate/microphone.ts';
import { NORMAL_VOICE_DBA } from './boomFigures.ts';
import { looksTo, mouthOf, nearestOut, tipOf } from './boomPlace.ts';
import { mouthDb } from './mouth.ts';
import { bedOctaves, NOISE_OCTAVES_HZ, octavesDba, octavesOf, sourceOctaves } from './noiseKinds.ts';
import { angleBetween, between, lengthOf, type Place } from './point.ts';

/** Where a microphone is and where it looks. */
export interface Listening {
  at: Place;
  axis: Place;
  pattern: MicrophonePattern;
}

/** Noise at a microphone through its pattern, in dB A. */
export interface NoiseAt {
  totalDba: number | null;
  /** From all around. */
  aroundDba: number | null;
  sources: { id: string; levelDba: number; distanceM: number }[];
}

/** Nearer than this a source is no point any more. */
const LEAST_M = 0.3;

/** Absorption is known from 125 Hz to 4 kHz; the octaves at the ends have that of their neighbours. */
const absorptionAt = (absorption: readonly number[], octave: number) => absorption[Math.max(0, Math.min(5, octave - 1))] as number;

/** Diffuse energy of a source over its direct sound at 1 m, by octave: 16π / R with R = Sα / (1 - α) (H. Kuttruff, Room Acoustics, chapter 5); 0 in the open. */
export function roomShare({ sizeM, absorption }: Pick<Acoustics, 'sizeM' | 'absorption'>, octave: number): number {
  if (!sizeM || !absorption) return 0;
  const [x, y, z] = sizeM;
  const share = absorptionAt(absorption, octave);
  return (16 * Math.PI * (1 - share)) / (2 * (x * y + y * z + x * z) * share);
}

/** Where a source stands in a frame: sources are told from the mark of the first talker. */
export const sourcePlace = (mark: Pick<FrameTalker, 'awayM' | 'acrossM'>, source: { awayM: number; acrossM: number; heightM: number }): Place => ({
  awayM: mark.awayM + source.awayM,
  acrossM: mark.acrossM + source.acrossM,
  heightM: source.heightM,
});

/** One source at a microphone by octave: inverse square and the pattern towards it, and in a room its diffuse sound as well. */
function sourceAt(
  { at, axis, pattern }: Listening,
  place: Acoustics,
  mark: Pick<FrameTalker, 'awayM' | 'acrossM'>,
  source: NoiseSource,
): { distanceM: number; octavesDb: number[] } {
  const towards = between(at, sourcePlace(mark, source));
  const distanceM = Math.max(LEAST_M, lengthOf(towards));
  const angle = angleBetween(axis, towards);
  const octavesDb = sourceOctaves(source).map((db, octave) => {
    const hz = NOISE_OCTAVES_HZ[octave] as number;
    const direct = patternGain(pattern, angle, hz) ** 2 / distanceM ** 2;
    const diffuse = roomShare(place, octave);
    return db + 10 * Math.log10(Math.max(1e-9, direct + (diffuse > 0 ? diffuse * diffusePower(pattern, hz) : 0)));
  });
  return { distanceM, octavesDb };
}

const sumDb = (levels: readonly number[]) => 10 * Math.log10(levels.reduce((sum, db) => sum + 10 ** (db / 10), 0));

/** All sources of a station at a microphone together, by octave; null where there is none. */
export function sourcesOctaves(listening: Listening, place: Acoustics, mark: Pick<FrameTalker, 'awayM' | 'acrossM'>): number[] | null {
  const each = place.sources.map((source) => sourceAt(listening, place, mark, source).octavesDb);
  return each.length === 0 ? null : NOISE_OCTAVES_HZ.map((_, octave) => sumDb(each.map((octaves) => octaves[octave] as number)));
}

/**
 * Noise of a station at a microphone: each source by inverse square and by the pattern towards it, and in a room by its
 * diffuse sound as well; what comes from all around by the pattern's mean. Powers add.
 */
export function noiseAt(listening: Listening, place: Acoustics, mark: Pick<FrameTalker, 'awayM' | 'acrossM'>): NoiseAt {
  const { pattern } = listening;
  const sources = place.sources.map((source) => {
    const { distanceM, octavesDb } = sourceAt(listening, place, mark, source);
    return { id: source.id, levelDba: octavesDba(octavesDb), distanceM };
  });
  const around = bedOctaves(place);
  const aroundDba = around && octavesDba(around.map((db, octave) => db + 10 * Math.log10(diffusePower(pattern, NOISE_OCTAVES_HZ[octave] as number))));
  const all = [...sources.map(({ levelDba }) => levelDba), ...(aroundDba === null ? [] : [aroundDba])];
  return { sources, aroundDba, totalDba: all.length === 0 ? null : sumDb(all) };
}

/** A standard voice by octave 1 m ahead, at normal effort. The octave of 63 Hz has none. */
const VOICE_OCTAVES = (() => {
  const shape = NOISE_OCTAVES_HZ.map((_, octave) => {
    // Third octaves from 160 Hz to 8 kHz; 125 Hz has one of its three, 8 kHz two of three.
    const thirds = [0, 1, 2].map((third) => 3 * (octave - 1) - 2 + third).filter((band) => band >= 0 && band < NORMAL_SPEECH_DB.length);
    const power = thirds.reduce((sum, band) => sum + 10 ** ((NORMAL_SPEECH_DB[band] as number) / 10) * 0.23 * 160 * 10 ** (band / 10), 0);
    return power > 0 ? 10 * Math.log10(power) : -60;
  });
  return octavesOf(NORMAL_VOICE_DBA, shape);
})();

/** A voice at normal effort at a place, its direct sound by octave, before any pattern. */
export function voiceOctavesAt(at: Place, talker: FrameTalker): number[] {
  const mouth = mouthOf(talker);
  const distanceM = Math.max(0.05, lengthOf(between(at, mouth)));
  const off = angleBetween(looksTo(talker), between(mouth, at));
  return VOICE_OCTAVES.map((db, octave) => db + mouthDb(off, NOISE_OCTAVES_HZ[octave] as number) - 20 * Math.log10(distanceM));
}

/** The same at a microphone, in dB A. */
export function voiceAtDba({ at, axis, pattern }: Listening, talker: FrameTalker): number {
  const angle = angleBetween(axis, between(at, mouthOf(talker)));
  return octavesDba(
    voiceOctavesAt(at, talker).map((db, octave) => db + 20 * Math.log10(Math.max(1e-4, Math.abs(patternGain(pattern, angle, NOISE_OCTAVES_HZ[octave] as number))))),
  );
}

const listeningOf = (boom: FrameBoom, talker: FrameTalker): Listening => ({
  at: tipOf(boom),
  axis: between(tipOf(boom), mouthOf(talker)),
  pattern: { pressureShare: boom.pressureShare, tubeM: boom.tubeM },
});

/** Voice over noise of a boom that looks at its talker, in dB A; null where no noise is known. */
export function boomOverNoise(frame: Pick<FrameDraft, 'talkers'>, boom: FrameBoom, place: Acoustics, axis?: Place): { overDb: number; voiceDba: number; noise: NoiseAt } | null {
  const talker = frame.talkers[boom.aimsAt] as FrameTalker;
  const listening = { ...listeningOf(boom, talker), ...(axis ? { axis } : {}) };
  const noise = noiseAt(listening, place, frame.talkers[0] as FrameTalker);
  if (noise.totalDba === null) return null;
  const voiceDba = voiceAtDba(listening, talker);
  return { overDb: voiceDba - noise.totalDba, voiceDba, noise };
}

/** Voice over noise from each side, just out of the frame, the best first. */
export function spotsOverNoise(frame: Pick<FrameDraft, 'camera' | 'talkers' | 'marginM' | 'operator'>, boom: FrameBoom, place: Acoustics): { boom: FrameBoom; overDb: number }[] {
  return (['above', 'below', 'side'] as const)
    .flatMap((from) => {
      const there = nearestOut(frame, from, boom);
      const over = there && boomOverNoise(frame, there, place);
      return there && over ? [{ boom: there, overDb: over.overDb }] : [];
    })
    .sort((a, b) => b.overDb - a.overDb);
}

const DIRECTIONS = 8;

/** What moving talker and microphone together by a metre wins, in every direction along the ground, the best first. Directions from away, to the right. */
export function movedByAMetre(frame: Pick<FrameDraft, 'talkers'>, boom: FrameBoom, place: Acoustics): { directionDeg: number; gainDb: number }[] {
  const now = boomOverNoise(frame, boom, place);
  if (!now) return [];
  const moved = Array.from({ length: DIRECTIONS }, (_, step) => {
    const angle = (2 * Math.PI * step) / DIRECTIONS;
    // Moving the talker one way is moving all that is heard the other way.
    const sources = place.sources.map((source) => ({ ...source, awayM: source.awayM - Math.cos(angle), acrossM: source.acrossM - Math.sin(angle) }));
    return { directionDeg: (360 * step) / DIRECTIONS, gainDb: (boomOverNoise(frame, boom, { ...place, sources })?.overDb ?? now.overDb) - now.overDb };
  });
  return moved.sort((a, b) => b.gainDb - a.gainDb);
}
