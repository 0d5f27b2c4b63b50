import { slateLabel } from '@marvet/core/domain/take';
import { useMemo } from 'react';
import { useChainsQuery } from '../../data/records.ts';
import { useRecordingsQuery, useTakesQuery } from '../../data/work.ts';

/** Measured recordings that were made at a station, each with its slate and its candidate. */
export function useStationRecordings(trialId: string, stationId: string): { id: string; name: string }[] {
  const { data: recordings } = useRecordingsQuery(trialId);
  const { data: takes } = useTakesQuery(trialId);
  const { data: chains } = useChainsQuery(trialId);
  return useMemo(() => {
    const here = new Map((takes ?? []).filter(({ condition }) => condition.station === stationId).map((take) => [take.id, take]));
    return (recordings ?? []).flatMap((recording) => {
      const take = here.get(recording.takeId ?? '');
      if (!take || recording.table === null) return [];
      const candidateId = take.setups.find(({ id }) => id === recording.setupId)?.candidateId;
      return [{ id: recording.id, name: `${slateLabel(take)} ${chains?.find(({ id }) => id === candidateId)?.tape.letters ?? recording.fileName}` }];
    });
  }, [recordings, takes, chains, stationId]);
}
