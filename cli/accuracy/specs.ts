import { CLOTHS } from '@marvet/core/simulate/cloth';
import { onsetsOf, withGaps } from '@marvet/core/simulate/dryVoice';
import { microphoneIn, type Point } from '@marvet/core/simulate/imageRoom';
import type { LabelledSpec } from '@marvet/core/simulate/labelledTake';
import { type RandomSource, randomSource, seedOf } from '@marvet/core/simulate/random';

/** What a group of takes is for: one fault at a time, or none, or a trait of the sound. */
export const GROUPS = ['clean', 'dropout', 'click', 'clip', 'plosive', 'wind', 'handling', 'rustle', 'room', 'gain', 'mixed'] as const;
export type Group = (typeof GROUPS)[number];

const RATE_HZ = 48_000;

/** Outdoors, a carpeted parlour, a bare loft, a metal cabin; the numbers are the absorption from 125 Hz to 4 kHz. */
const ROOMS: { size: [number, number, number]; absorption: number[] }[] = [
  { size: [5.2, 4.1, 2.7], absorption: [0.18, 0.24, 0.3, 0.34, 0.36, 0.38] },
  { size: [7.4, 5.3, 3.2], absorption: [0.22, 0.25, 0.28, 0.3, 0.32, 0.34] },
  { size: [3.1, 2.6, 2.2], absorption: [0.16, 0.17, 0.18, 0.19, 0.21, 0.24] },
];

/**
 * The recipe of one labelled take. Everything is drawn from the seed: talker, words, place, microphone,
 * distance, noise, and for its group the faults.
 * @param voices dry clips at 48 kHz, by talker
 */
export function specOf(seed: string, group: Group, voices: readonly (readonly Float64Array[])[]): LabelledSpec {
  const random = randomSource(seedOf(seed, group));
  const among = <T>(values: readonly T[]) => values[Math.floor(random.uniform() * values.length)] as T;
  const between = (from: number, to: number) => from + (to - from) * random.uniform();
  const clips = among(voices);
  // A room shows in how words end, of which it takes some.
  const parts = Array.from({ length: group === 'room' ? 5 : 2 }, () => among(clips));
  const voice = withGaps(
    parts,
    parts.slice(1).map(() => between(0.5, 1.1)),
    RATE_HZ,
  );
  const roomy = group === 'room' || (group !== 'wind' && group !== 'gain' && random.uniform() < 0.4);
  const room = roomy ? among(ROOMS) : null;
  const worn = random.uniform() < 0.5 && group !== 'room';
  const distanceM = worn ? 0.2 : room ? between(0.6, 1.4) : between(0.4, 1.2);
  const voiceDbSpl = between(60, 68);
  // Wind would cover the rest, so the mixed takes have none.
  const wants = (fault: Group) => group === fault || (group === 'mixed' && fault !== 'wind' && random.uniform() < 0.4);
  const spec: LabelledSpec = {
    seed: `${seed} ${group}`,
    rateHz: RATE_HZ,
    voice,
    onsetsS: onsetsOf(voice, RATE_HZ),
    beginningsS: onsetsOf(voice, RATE_HZ, 8, 0.03),
    leadS: between(0.6, 1.2),
    tailS: between(0.8, 1.4),
    voiceDbSpl,
    room: room && placed(room.size, room.absorption, distanceM, random),
    distanceM,
    pattern: worn
      ? { pressureShare: 1, tubeM: 0 }
      : among([
          { pressureShare: 0.5, tubeM: 0 },
          { pressureShare: 0.3, tubeM: 0 },
          { pressureShare: 0.3, tubeM: 0.18 },
        ]),
    placement: worn ? among(['breastbone', 'collar', 'lapel', 'hairline'] as const) : 'open',
    clothLayers: worn ? among([0, 1, 2]) : 0,
    cloth: among(CLOTHS),
    noiseDba: between(22, 36),
    noiseSlopeDb: among([0, -3, -5]),
    wind: wants('wind') ? { speedMs: between(4, 8), screen: among(['bare', 'foam']) } : null,
    gainDbfs: 0,
    overDb: wants('clip') ? between(13, 18) : 0,
    plosives: wants('plosive') ? 4 : 0,
    thumps: wants('handling') ? 4 : 0,
    rustles: wants('rustle') ? 3 : 0,
    clicks: wants('click') ? 5 : 0,
    link: wants('dropout') ? { marginDb: between(10, 15), bodyLossDb: 0, fadesPerS: between(3, 8), kind: 'digital' } : null,
    automaticLevel: group === 'gain' ? { targetDbfs: -20, recoveryDbPerS: between(4, 25), mostGainDb: 18 } : null,
    reductionDb: 0,
    limiterDbfs: null,
    word: among([16, 24, 24, 'float'] as const),
  };
  // The gain brings the words to about -20 dBFS; to clip it is set far too high.
  const voiceAtMicrophone = voiceDbSpl - 20 * Math.log10(distanceM);
  spec.gainDbfs = 94 - voiceAtMicrophone - between(19, 24) + spec.overDb;
  if (group === 'clip' && spec.word === 'float') spec.word = 24;
  return spec;
}

function placed(sizeM: Point, absorption: number[], distanceM: number, random: RandomSource): NonNullable<LabelledSpec['room']> {
  const [x, y, z] = sizeM;
  const talkerM: Point = [x * (0.3 + 0.2 * random.uniform()), y * (0.3 + 0.3 * random.uniform()), Math.min(1.6, z * 0.7)];
  return { sizeM, absorption, talkerM, microphoneM: microphoneIn(sizeM, talkerM, distanceM, 2 * Math.PI * random.uniform(), 0.2) };
}
