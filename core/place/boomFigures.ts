import type { FrameBoom, FrameDraft, FrameTalker } from '../domain/frame.ts';
import { diffusePower, type MicrophonePattern, patternGain, proximityDb } from '../simulate/microphone.ts';
import { axisOf, clearOfFrame, looksTo, mouthOf, tailOf, tipOf } from './boomPlace.ts';
import type { FrameEdge } from './frameView.ts';
import { mouthDb } from './mouth.ts';
import { angleBetween, between, degrees, distanceBetween, lengthOf, type Place } from './point.ts';

/** Where a voice has its chest, its words and its sibilants. */
export const CHEST_HZ = [160, 200, 250] as const;
export const WORDS_HZ = [500, 1000, 2000] as const;
export const SIBILANTS_HZ = [5000, 6300, 8000] as const;
/** Nearer than this no microphone comes to a mouth. */
const LEAST_M = 0.01;
const GRAVITY = 9.81;
/** Arms hold a pole this far out of the hands' own place. */
const ARMS_M = 0.2;

/** One talker as a microphone hears it; levels against the same voice 1 m straight ahead of the mouth. */
export interface HeardTalker {
  distanceM: number;
  /** Off the microphone's axis, and off the mouth's. */
  microphoneOffDeg: number;
  mouthOffDeg: number;
  chestDb: number;
  wordsDb: number;
  sibilantsDb: number;
}

/** What a boom costs and gives. */
export interface BoomFigures {
  talkers: HeardTalker[];
  /** How far out of the picture all of it is, negative within, and by which edge. */
  clearM: number;
  edge: FrameEdge;
  /** What its rear looks at, and how far away that is; null where nothing is known to be there. */
  rear: { at: 'ceiling' | 'ground'; distanceM: number } | null;
  /** How much less it takes in from behind than from ahead, in dB; null where it takes in nothing at all from there. */
  rearDb: number | null;
  /** The pole, where somebody holds it. */
  pole: { neededM: number; reaches: boolean; momentNm: number; heldKg: number } | null;
  /** What the talker it looks at costs by leaning and turning: words against those of the resting head, in the middle and at the worst. */
  moves: { medianDb: number; worstDb: number };
  /** To the other talkers: how far it must swing, and what is lost where nobody does. */
  cues: { talker: number; swingDeg: number; lostDb: number }[];
}

const mean = (levels: readonly number[]) => 10 * Math.log10(levels.reduce((sum, db) => sum + 10 ** (db / 10), 0) / levels.length);

/** Level of a voice at one frequency, in dB against 1 m straight ahead, all in the open: distance, the mouth's own directions, the microphone's. */
function levelDb(mouth: Place, looks: Place, tip: Place, axis: Place, pattern: MicrophonePattern, hz: number): number {
  const toMouth = between(tip, mouth);
  const distanceM = Math.max(LEAST_M, lengthOf(toMouth));
  const gain = Math.abs(patternGain(pattern, angleBetween(axis, toMouth), hz));
  const nearness = pattern.pressureShare < 1 ? proximityDb(pattern, distanceM, hz) : 0;
  return -20 * Math.log10(distanceM) + mouthDb(angleBetween(looks, between(mouth, tip)), hz) + 20 * Math.log10(Math.max(gain, 1e-4)) + nearness;
}

/** All figures of one boom of a frame, each of geometry and of formulas that can be worked out by hand. */
export function boomFigures(frame: Pick<FrameDraft, 'camera' | 'talkers' | 'ceilingM' | 'operator'>, boom: FrameBoom): BoomFigures {
  const { talkers } = frame;
  const tip = tipOf(boom);
  const axis = axisOf(boom, talkers);
  const pattern: MicrophonePattern = { pressureShare: boom.pressureShare, tubeM: boom.tubeM };
  const band = (mouth: Place, looks: Place, all: readonly number[]) => mean(all.map((hz) => levelDb(mouth, looks, tip, axis, pattern, hz)));
  const heard = talkers.map((talker): HeardTalker => {
    const mouth = mouthOf(talker);
    const looks = looksTo(talker);
    return {
      distanceM: distanceBetween(tip, mouth),
      microphoneOffDeg: degrees(angleBetween(axis, between(tip, mouth))),
      mouthOffDeg: degrees(angleBetween(looks, between(mouth, tip))),
      chestDb: band(mouth, looks, CHEST_HZ),
      wordsDb: band(mouth, looks, WORDS_HZ),
      sibilantsDb: band(mouth, looks, SIBILANTS_HZ),
    };
  });
  const aimed = talkers[boom.aimsAt] as FrameTalker;
  const resting = (heard[boom.aimsAt] as HeardTalker).wordsDb;
  const moved = positionsOf(aimed)
    .map(({ mouth, looks }) => band(mouth, looks, WORDS_HZ) - resting)
    .sort((a, b) => a - b);
  const behind = Math.abs(patternGain(pattern, Math.PI, 1000));
  return {
    talkers: heard,
    ...clearOfFrame(frame, boom),
    rear: rearOf(boom, frame),
    rearDb: behind < 1e-3 ? null : 20 * Math.log10(behind),
    pole: boom.from === 'planted' ? null : poleOf(boom, frame),
    moves: { medianDb: moved[Math.floor(moved.length / 2)] as number, worstDb: moved[0] as number },
    cues: talkers.flatMap((talker, index) => {
      if (index === boom.aimsAt) return [];
      const mouth = mouthOf(talker);
      const looks = looksTo(talker);
      const toMouth = between(tip, mouth);
      const cued = mean(WORDS_HZ.map((hz) => levelDb(mouth, looks, tip, toMouth, pattern, hz)));
      return [{ talker: index, swingDeg: degrees(angleBetween(axis, toMouth)), lostDb: cued - (heard[index] as HeardTalker).wordsDb }];
    }),
  };
}

/** Where a head may be and look: leaning every way or not at all, turned to either side or not. */
function positionsOf(talker: FrameTalker): { mouth: Place; looks: Place }[] {
  const steps = [-1, 0, 1];
  const rest = mouthOf(talker);
  return steps.flatMap((away) =>
    steps.flatMap((across) =>
      steps.flatMap((up) =>
        steps.map((turn) => ({
          mouth: { awayM: rest.awayM + away * talker.leanM, acrossM: rest.acrossM + across * talker.leanM, heightM: rest.heightM + (up * talker.leanM) / 2 },
          looks: looksTo({ looksDeg: talker.looksDeg + turn * talker.turnDeg }),
        })),
      ),
    ),
  );
}

/** What lies behind it on its axis. */
function rearOf(boom: FrameBoom, { talkers, ceilingM }: Pick<FrameDraft, 'talkers' | 'ceilingM'>): BoomFigures['rear'] {
  const tail = tailOf(boom, talkers);
  const back = between(tipOf(boom), tail);
  const steep = back.heightM / Math.max(LEAST_M, lengthOf(back));
  if (steep > 0.05 && ceilingM !== null && ceilingM > tail.heightM) return { at: 'ceiling', distanceM: (ceilingM - tail.heightM) / steep };
  if (steep < -0.05) return { at: 'ground', distanceM: tail.heightM / -steep };
  return null;
}

/** Whether the pole reaches, and what it weighs in the hands: the microphone at its end, its own weight at half its length. */
function poleOf(boom: FrameBoom, { talkers, operator }: Pick<FrameDraft, 'talkers' | 'operator'>): BoomFigures['pole'] {
  const hands: Place = { awayM: operator.awayM, acrossM: operator.acrossM, heightM: operator.handsM };
  const tail = tailOf(boom, talkers);
  const neededM = Math.max(0, distanceBetween(hands, tail) - ARMS_M);
  const outM = Math.hypot(tail.awayM - hands.awayM, tail.acrossM - hands.acrossM);
  const momentNm = GRAVITY * (boom.massKg * outM + operator.poleKg * (outM / 2));
  return { neededM, reaches: neededM <= operator.poleM, momentNm, heldKg: momentNm / GRAVITY };
}

/** A room as much of it as counts here. */
export interface PlaceAround {
  sizeM: readonly [number, number, number] | null;
  /** Share of energy that all surfaces take up, in octave bands from 125 Hz to 4 kHz. */
  absorption: readonly number[] | null;
  noiseDba: number | null;
}

/** A voice at normal effort is so loud at 1 m, in dB A (ISO 9921:2003, vocal effort). */
export const NORMAL_VOICE_DBA = 60;
const AT_1_KHZ = 3;

/**
 * How far the direct voice stands over the room's own sound at a microphone, in dB at 1 kHz: direct sound Q / 4πr²
 * against a diffuse field of 4 / R, R = Sα / (1 - α), which the microphone takes in by its pattern (H. Kuttruff, Room
 * Acoustics, chapter 5). Null where the room is not known.
 */
export function directOverRoomDb(frame: Pick<FrameDraft, 'talkers'>, boom: FrameBoom, place: Pick<PlaceAround, 'sizeM' | 'absorption'>): number | null {
  if (!place.sizeM || !place.absorption) return null;
  const [x, y, z] = place.sizeM;
  const share = place.absorption[AT_1_KHZ] as number;
  const constant = (2 * (x * y + y * z + x * z) * share) / (1 - share);
  const pattern: MicrophonePattern = { pressureShare: boom.pressureShare, tubeM: boom.tubeM };
  const talker = frame.talkers[boom.aimsAt] as FrameTalker;
  const [tip, mouth] = [tipOf(boom), mouthOf(talker)];
  const distanceM = Math.max(LEAST_M, distanceBetween(tip, mouth));
  const towards = 10 ** (mouthDb(angleBetween(looksTo(talker), between(mouth, tip)), 1000) / 10) * mouthFactor();
  return 10 * Math.log10((towards * constant) / (16 * Math.PI * distanceM ** 2 * diffusePower(pattern, 1000)));
}

/** How much more a mouth sends straight ahead than it would, were it the same all around, at 1 kHz. */
function mouthFactor(): number {
  const steps = 90;
  let mean = 0;
  for (let step = 0; step < steps; step++) mean += 10 ** (mouthDb(Math.acos(1 - (2 * step + 1) / steps), 1000) / 10) / steps;
  return 1 / mean;
}

/** How far a voice at normal effort stands over noise from all around, in dB A; null where the noise is not known. */
export function voiceOverNoiseDb(heard: Pick<HeardTalker, 'wordsDb'>, boom: Pick<FrameBoom, 'pressureShare' | 'tubeM'>, noiseDba: number | null): number | null {
  return noiseDba === null ? null : NORMAL_VOICE_DBA + heard.wordsDb - (noiseDba + 10 * Math.log10(diffusePower(boom, 1000)));
}

/** Widths of a finger, of a spread hand, of a foot and of a step. */
const FINGER_M = 0.02;
const SPAN_M = 0.22;
const FOOT_M = 0.3;
const PACE_M = 0.75;

/** Lengths as hands, feet and steps have them. */
export function handMeasures(metres: number): string {
  if (metres < 0.15) return counted(Math.max(1, Math.round(metres / FINGER_M)), 'finger', 'fingers');
  if (metres < 0.7) return counted(Math.round((2 * metres) / SPAN_M) / 2, 'span', 'spans');
  return metres < 3 ? `${Math.round(metres / FOOT_M)} feet` : `${Math.round((2 * metres) / PACE_M) / 2} paces`;
}

/** What so many paces are in metres. */
export const metresOfPaces = (paces: number) => paces * PACE_M;

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;
