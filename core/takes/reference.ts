import { CONDITION_KINDS, type ConditionKind } from '../domain/factor.ts';
import type { PairMeasureId } from '../domain/measureId.ts';
import { setupCondition, type Take, type TakeSetup } from '../domain/take.ts';
import type { Reference } from '../domain/trial.ts';
import { worstBand } from '../measure/pair/denoiseWords.ts';
import type { PairGroup } from '../measure/report.types.ts';

/** A recording that is tied to one setup of a take. */
export interface PlacedRecording {
  id: string;
  setupId: string;
}

/**
 * Against which recording of the same take each is measured: of those at the level of the reference, the one that
 * is most alike in all else, so that a microphone without fur is measured against the boom without fur.
 * @param recordings those of the take, in a lasting order: of two that are equally near the first one counts
 * @returns the reference by recording: its own id where it is the reference itself, none where the take holds none
 * @example referencesOf(take, [{ id: 'a', setupId: boom }, { id: 'b', setupId: lavalier }], { kind: 'candidate', levelId: boomChain }).get('b') // 'a'
 */
export function referencesOf(take: Pick<Take, 'condition' | 'setups'>, recordings: readonly PlacedRecording[], reference: Reference): Map<string, string> {
  const placed = recordings.flatMap((recording) => {
    const setup = take.setups.find((each) => each.id === recording.setupId);
    return setup ? [{ id: recording.id, levels: levelsOf(take, setup) }] : [];
  });
  const references = placed.filter(({ levels }) => levels[reference.kind] === reference.levelId);
  const result = new Map<string, string>();
  if (references.length === 0) return result;
  for (const own of placed) {
    const least = references.reduce((best, each) => (differing(own.levels, each.levels) < differing(own.levels, best.levels) ? each : best));
    result.set(own.id, references.includes(own) ? own.id : least.id);
  }
  return result;
}

type Levels = Partial<Record<ConditionKind | 'candidate', string>>;

function levelsOf(take: Pick<Take, 'condition'>, setup: TakeSetup): Levels {
  return { ...setupCondition(take, setup), candidate: setup.candidateId };
}

const differing = (a: Levels, b: Levels) => [...CONDITION_KINDS, 'candidate' as const].filter((kind) => a[kind] !== b[kind]).length;

/** Figures against a reference, without those that could not be measured. */
export type PairFiguresById = Partial<Record<PairMeasureId, number>>;

/** What differs between a recording and itself: nothing. */
export const OF_ITSELF: PairFiguresById = {
  'pair.latencyMs': 0,
  'pair.levelDiffDb': 0,
  'pair.spectralDistanceDb': 0,
  'pair.matchedDistanceDb': 0,
  'pair.denoise.noiseReductionDb': 0,
  'pair.denoise.voiceLossDb': 0,
  'pair.denoise.wordEdgeLossDb': 0,
  'pair.denoise.musicalNoise': 0,
};

/** Where noise was left as it was, nothing was taken of noise, voice or words. */
const LEFT_ALONE: PairFiguresById = {
  'pair.denoise.noiseReductionDb': 0,
  'pair.denoise.voiceLossDb': 0,
  'pair.denoise.wordEdgeLossDb': 0,
  'pair.denoise.musicalNoise': 0,
};

/** Figures of a pair by measure id. */
export function pairFigures({ latencyMs, levelDiffDb, spectralDistanceDb, matchedDistanceDb, denoise, sameNoise }: PairGroup): PairFiguresById {
  const known: Record<PairMeasureId, number | null | undefined> = {
    'pair.latencyMs': latencyMs,
    'pair.levelDiffDb': levelDiffDb,
    'pair.spectralDistanceDb': spectralDistanceDb,
    'pair.matchedDistanceDb': matchedDistanceDb,
    'pair.denoise.noiseReductionDb': denoise?.noiseReductionDb,
    'pair.denoise.voiceLossDb': denoise && (worstBand(denoise.voiceLossDb)?.db ?? null),
    'pair.denoise.wordEdgeLossDb': denoise?.wordEdgeLossDb,
    'pair.denoise.musicalNoise': denoise?.musicalNoise,
  };
  const measured = Object.fromEntries(Object.entries(known).flatMap(([id, value]) => (typeof value === 'number' ? [[id, Number(value.toFixed(4))]] : []))) as PairFiguresById;
  return sameNoise ? { ...LEFT_ALONE, ...measured } : measured;
}
