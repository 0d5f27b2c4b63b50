import { CONDITION_KINDS, NOT_KNOWN } from '../../domain/factor.ts';
import type { Station } from '../../domain/station.ts';
import { OVERLOAD_SHARE } from '../../measure/eventWords.ts';
import { usableRecordings, type VerdictInput } from '../usableRecordings.ts';
import type { LimitSample } from './limits.ts';

/** The recordings that a verdict counts, by candidate, as what limits are told from. */
export function limitSamples(input: VerdictInput, stations: readonly Pick<Station, 'id' | 'acoustics' | 'indoors'>[]): Map<string, LimitSample[]> {
  const byCandidate = new Map<string, LimitSample[]>();
  for (const { recording, take, setup, condition } of usableRecordings(input, [])) {
    const { figures } = recording;
    if (!figures) continue;
    const station = stations.find(({ id }) => id === condition.station);
    const around = station?.acoustics;
    const flattened = figures['levels.flattenedShare'];
    const sample: LimitSample = {
      takeId: take.id,
      levels: Object.fromEntries(
        CONDITION_KINDS.flatMap((kind) => {
          const level = condition[kind];
          return level === undefined || level === NOT_KNOWN ? [] : [[kind, level]];
        }),
      ),
      windMs: take.windMs ?? around?.windMs ?? null,
      noiseDba: take.noiseDba ?? around?.noiseDba ?? null,
      ofStation: { wind: take.windMs === null, noise: take.noiseDba === null },
      indoors: station?.indoors ?? false,
      gains: take.gains[setup.id] ?? {},
      windShare: figures['character.windShare'] ?? null,
      sii: figures['intelligibility.sii'] ?? null,
      sti: figures['intelligibility.sti'] ?? null,
      clipped: figures['levels.clippedRuns'] === undefined ? null : figures['levels.clippedRuns'] > 0 || (flattened ?? 0) >= OVERLOAD_SHARE,
      truePeakDbtp: figures['levels.truePeakDbtp'] ?? null,
      activeLevelDbfs: figures['activity.activeLevelDbfs'] ?? null,
    };
    const known = byCandidate.get(setup.candidateId);
    if (known) known.push(sample);
    else byCandidate.set(setup.candidateId, [sample]);
  }
  return byCandidate;
}
