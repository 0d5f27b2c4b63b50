import { useRangeQuery } from '../../data/placing.ts';
import { useChainsQuery, useStationsQuery } from '../../data/records.ts';
import { RangeTable } from '../../parts/RangeTable.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';

interface LinkRangesProps {
  trialId: string;
  /** Only of this candidate. */
  candidateId?: string;
}

/** Limits of use: how far each link holds, station by station; nothing where no link was tried at a distance. */
export function LinkRanges({ trialId, candidateId }: LinkRangesProps) {
  const range = useRangeQuery(trialId);
  const stations = useStationsQuery(trialId);
  const chains = useChainsQuery(trialId);
  return (
    <Loaded of={[range, stations, chains]}>
      {() => {
        const tried = stations
          .data!.map((station) => ({
            station,
            rows: range.data!.rows.filter((row) => row.stationId === station.id && (candidateId === undefined || row.candidateId === candidateId)),
          }))
          .filter(({ rows }) => rows.length > 0);
        if (tried.length === 0) return null;
        return (
          <Sheet title="How far each link holds">
            {tried.map(({ station, rows }) => (
              <section key={station.id} aria-label={`At ${station.name}`} className="mb-3">
                <h3 className="fs-6">{station.name}</h3>
                <RangeTable rows={rows} chains={chains.data!} label={`How far each link holds: ${station.name}`} />
              </section>
            ))}
          </Sheet>
        );
      }}
    </Loaded>
  );
}
