import type { StoredChain } from '@marvet/core/domain/chain';
import type { Trouble } from '@marvet/core/radio/placeOrDevice';
import { TapeMark } from '../../parts/TapeMark.tsx';

const SAID: Record<Trouble['speaksFor'], string> = {
  'the place': 'speaks for the place: it comes whoever passes, and less farther out',
  'the device': 'speaks for the device: at the same spot the others hold',
  'neither yet': 'speaks for neither yet: walk it again, both ways, with the others',
};

/** Spots on the walks of a station where links broke up, and what they speak for; those that speak for nothing yet are folded away. */
export function WalkTroubles({ troubles, chains }: { troubles: readonly Trouble[]; chains: readonly StoredChain[] }) {
  if (troubles.length === 0) return null;
  const told = troubles.filter(({ speaksFor }) => speaksFor !== 'neither yet');
  const open = troubles.filter(({ speaksFor }) => speaksFor === 'neither yet');
  return (
    <div className="mt-3">
      {told.length > 0 && <SpotTable label="Spots where links broke up on walks" troubles={told} chains={chains} />}
      {open.length > 0 && (
        <details className="small">
          <summary>
            {open.length} {open.length === 1 ? 'spot where links broke up speaks' : 'spots where links broke up speak'} for neither place nor device yet
          </summary>
          <SpotTable label="Spots that speak for nothing yet" troubles={open} chains={chains} />
        </details>
      )}
    </div>
  );
}

function SpotTable({ label, troubles, chains }: { label: string; troubles: readonly Trouble[]; chains: readonly StoredChain[] }) {
  return (
    <table className="plain" aria-label={label}>
      <thead>
        <tr>
          <th>Spot</th>
          <th>Side</th>
          <th>Broke up, of windows of ten seconds</th>
          <th>What it speaks for</th>
        </tr>
      </thead>
      <tbody>
        {troubles.map(({ side, fromM, toM, counts, speaksFor, p }) => (
          <tr key={`${side} ${fromM}`}>
            <td className="mono">{Math.round(fromM) === Math.round(toM) ? `${Math.round(fromM)} m` : `${Math.round(fromM)} to ${Math.round(toM)} m`}</td>
            <td>{side}</td>
            <td>
              <span className="row-line">
                {counts.map(({ candidateId, windows, brokeUp }) => {
                  const chain = chains.find(({ id }) => id === candidateId);
                  return (
                    chain && (
                      <span key={candidateId} className="row-line" title={chain.name}>
                        <TapeMark tape={chain.tape} name={chain.name} width={36} />
                        <span className="mono small">
                          {brokeUp}/{windows}
                        </span>
                      </span>
                    )
                  );
                })}
              </span>
            </td>
            <td className="small">
              {SAID[speaksFor]}
              {p !== null && ` (Fisher, p ${p < 0.001 ? '< 0.001' : p.toFixed(3)})`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
