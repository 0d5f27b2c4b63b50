import { THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import { aWeightingDb } from '../audio/weighting.ts';
import type { PlacementDraft } from '../domain/placement.ts';
import type { RigRecordDraft } from '../domain/rigRecord.ts';
import { type BodyPlace, type SpotCarrier, spotOf } from '../domain/spot.ts';
import { NORMAL_SPEECH_DB } from '../measure/intelligibility.ts';
import { SPEED_OF_SOUND_MS } from '../simulate/microphone.ts';
import { screenOf } from '../simulate/windNoise.ts';
import { clothLossDb } from './clothLoss.ts';
import { HEAD_RADIUS_M, mouthDb, sphereGain } from './mouth.ts';
import { fromHead, nearMouthGain, placeOnBody, withHeadTurned } from './nearMouth.ts';

/** Bands in which the colour of a worn microphone is told: 100 Hz to 12.5 kHz. */
export const WORN_BANDS_HZ = THIRD_OCTAVE_HZ.slice(7, 29);

/** A trunk stands for a sphere of so much; the flat of a chest is about as wide. */
const TRUNK_RADIUS_M = 0.15;
/** What a cap or a foam lifts or takes begins about here, over an octave or so. */
const CAP_FROM_HZ = 6000;
const TOP_FROM_HZ = 5000;

/** What is known of a worn microphone, as far as its sound goes. */
export interface Worn {
  placement: Pick<PlacementDraft, 'at' | 'spot' | 'on'>;
  rig: Pick<RigRecordDraft, 'layers' | 'clothLayers' | 'clothLossDb' | 'capLiftDb' | 'cover' | 'faces'> | null;
}

/** Where it is, and what it is fixed to; null where that is not known. */
function standsAt({ placement }: Worn): { at: BodyPlace; carrier: SpotCarrier; outward: BodyPlace } | null {
  const at = placeOnBody(placement);
  if (!at) return null;
  const spot = placement.spot ? spotOf(placement.spot) : null;
  return { at, carrier: spot?.carrier ?? 'trunk', outward: spot?.outward ?? { forwardM: 1, leftM: 0, upM: 0 } };
}

/** What the trunk under a microphone adds to sound that comes from the mouth, in dB: a rigid sphere, hit at an angle. */
function trunkDb({ at, outward, carrier }: NonNullable<ReturnType<typeof standsAt>>, hz: number): number {
  if (carrier !== 'trunk') return 0;
  const lengths = Math.hypot(at.forwardM, at.leftM, at.upM) * Math.hypot(outward.forwardM, outward.leftM, outward.upM);
  const cosine = lengths === 0 ? 1 : -(at.forwardM * outward.forwardM + at.leftM * outward.leftM + at.upM * outward.upM) / lengths;
  return 20 * Math.log10(sphereGain(Math.acos(Math.max(-1, Math.min(1, cosine))), (2 * Math.PI * hz * TRUNK_RADIUS_M) / SPEED_OF_SOUND_MS));
}

/** From nothing an octave under a corner to all of it an octave over it. */
const shelf = (allDb: number, fromHz: number, hz: number) => allDb * Math.max(0, Math.min(1, (Math.log2(hz / fromHz) + 1) / 2));

/** What lies over the capsule takes or lifts, in dB: cloth by its weight and flow resistance where they are known, else by its noted loss. */
export function coverDb(rig: Worn['rig'], hz: number): number {
  if (!rig) return 0;
  const cloth = rig.layers.length > 0 ? clothLossDb(rig.layers, hz) : shelf(rig.clothLayers * (rig.clothLossDb ?? 0), 3000, hz);
  const screen = rig.cover === 'foam' || rig.cover === 'fur' ? screenOf(rig.cover).topLossDb : 0;
  return shelf(rig.capLiftDb ?? 0, CAP_FROM_HZ, hz) - cloth - shelf(screen, TOP_FROM_HZ, hz);
}

/** Sound of a mouth at a worn microphone, against the same mouth heard straight ahead at 1 m in the open, in dB a band; null where its spot is not known. */
export function wornDb(worn: Worn, hz: readonly number[] = WORN_BANDS_HZ, headTurnRad = 0): number[] | null {
  const stands = standsAt(worn);
  if (!stands) return null;
  const at = withHeadTurned(stands.at, stands.carrier, headTurnRad);
  const { radiusM, angleRad } = fromHead(at);
  return hz.map((band) => {
    const ahead = 20 * Math.log10(nearMouthGain(0, 1 + HEAD_RADIUS_M, band));
    return 20 * Math.log10(nearMouthGain(angleRad, radiusM, band)) - ahead + trunkDb({ ...stands, at }, band) + coverDb(worn.rig, band);
  });
}

/** A boom at a distance and an angle off the mouth's axis, against straight ahead at 1 m, in dB a band. */
export const boomDb = (distanceM: number, offAxisRad: number, hz: readonly number[] = WORN_BANDS_HZ): number[] =>
  hz.map((band) => mouthDb(offAxisRad, band) - 20 * Math.log10(distanceM));

const SPEECH_FROM = 2;
/** A standard voice in the bands of {@link WORN_BANDS_HZ}, weighted as it is heard, as powers; under 160 Hz and over 8 kHz it hardly counts. */
const VOICE_POWERS = WORN_BANDS_HZ.map((hz, band) => {
  const level = NORMAL_SPEECH_DB[band - SPEECH_FROM];
  return level === undefined ? 0 : 10 ** ((level + aWeightingDb(hz) + 10 * Math.log10(0.23 * hz)) / 10);
});

/** How much louder or softer a standard voice is by gains in the bands of {@link WORN_BANDS_HZ}, in dB A. */
export function voiceGainDb(gainsDb: readonly number[]): number {
  const all = VOICE_POWERS.reduce((sum, power) => sum + power, 0);
  return 10 * Math.log10(VOICE_POWERS.reduce((sum, power, band) => sum + power * 10 ** ((gainsDb[band] as number) / 10), 0) / all);
}

/** Gains without what they do to the loudness of a voice: the colour alone. */
export function colourOf(gainsDb: readonly number[]): number[] {
  const level = voiceGainDb(gainsDb);
  return gainsDb.map((gain) => gain - level);
}

/** What is to be expected of a worn microphone beside a boom. */
export interface WornFigures {
  distanceM: number;
  /** Voice against the boom's, in dB A; positive is louder. */
  levelDb: number;
  /** Colour against the boom's, without its level, in the bands of {@link WORN_BANDS_HZ}. */
  colourDb: number[];
  /** Change of the voice's level, and of its top (3 to 8 kHz) beyond it, when the head turns 60 degrees to the left and to the right. */
  turned: { side: 'left' | 'right'; levelDb: number; topDb: number }[];
}

const TURN_RAD = Math.PI / 3;
const TOP_HZ = [3000, 8000] as const;

/** All of it, computed; null where the spot is not known. */
export function wornFigures(worn: Worn, boom: { distanceM: number; offAxisRad: number }): WornFigures | null {
  const here = wornDb(worn);
  const at = placeOnBody(worn.placement);
  if (!here || !at) return null;
  const against = boomDb(boom.distanceM, boom.offAxisRad);
  return {
    distanceM: Math.hypot(at.forwardM, at.leftM, at.upM),
    levelDb: voiceGainDb(here) - voiceGainDb(against),
    colourDb: colourOf(here).map((db, band) => db - (colourOf(against)[band] as number)),
    turned: (['left', 'right'] as const).map((side) => {
      const gone = wornDb(worn, WORN_BANDS_HZ, side === 'left' ? TURN_RAD : -TURN_RAD) as number[];
      const change = gone.map((db, band) => db - (here[band] as number));
      const levelDb = voiceGainDb(gone) - voiceGainDb(here);
      const top = change.filter((_, band) => (WORN_BANDS_HZ[band] as number) >= TOP_HZ[0] && (WORN_BANDS_HZ[band] as number) <= TOP_HZ[1]);
      return { side, levelDb, topDb: top.reduce((sum, db) => sum + db, 0) / top.length - levelDb };
    }),
  };
}
