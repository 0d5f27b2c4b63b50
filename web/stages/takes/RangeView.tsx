import type { StoredChain } from '@marvet/core/domain/chain';
import { Link } from 'react-router';
import { useRangeQuery } from '../../data/placing.ts';
import { useStationsQuery } from '../../data/records.ts';
import { RangeTable } from '../../parts/RangeTable.tsx';
import { Empty, Loaded } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { WalkTroubles } from './WalkTroubles.tsx';

/** How far the link of each candidate holds, with its doubt, by station and side. */
export function RangeView({ trialId, chains }: { trialId: string; chains: readonly StoredChain[] }) {
  const range = useRangeQuery(trialId);
  const stations = useStationsQuery(trialId);
  const [search, changeAddress] = useAddress();
  return (
    <Loaded of={[range, stations]}>
      {() => {
        const { rows, troubles } = range.data!;
        if (rows.length === 0)
          return (
            <Empty>
              No link was tried at a distance in metres yet. Vary the distance in Plan; at each mark the talker faces the receiver and turns, and break-ups are counted from the
              sound, or from what was pressed in Field.
            </Empty>
          );
        const own = stations.data!.filter(({ id }) => rows.some(({ stationId }) => stationId === id));
        const station = own.find(({ id }) => id === search.get('station')) ?? own[0];
        const here = rows.filter(({ stationId }) => stationId === station?.id);
        return (
          <>
            {own.length > 1 && (
              <fieldset className="row-line mb-2" aria-label="Where">
                {own.map(({ id, name }) => (
                  <button
                    key={id}
                    type="button"
                    className={`btn btn-sm btn-${id === station?.id ? 'primary' : 'outline'}`}
                    aria-pressed={id === station?.id}
                    onClick={() => changeAddress({ station: id })}
                  >
                    {name}
                  </button>
                ))}
              </fieldset>
            )}
            <RangeTable rows={here} chains={chains} label="How far each link holds" />
            <WalkTroubles troubles={troubles.find(({ stationId }) => stationId === station?.id)?.troubles ?? []} chains={chains} />
            <p className="small soft mb-0 mt-2">
              Reliable is where a break-up in ten seconds has a chance of a tenth. The band holds the true distance in 95 of 100 such tests; ten seconds of one take count as
              independent of each other, so that few takes say less than they seem to. <Link to="/methods#range">How</Link>
            </p>
          </>
        );
      }}
    </Loaded>
  );
}
