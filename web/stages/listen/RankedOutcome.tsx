import type { Criterion } from '@marvet/core/domain/criterion';
import type { Listener, Round } from '@marvet/core/domain/round';
import { rankedOutcome } from '@marvet/core/listen/ranking';

interface RankedOutcomeProps {
  round: Round;
  criteria: readonly Criterion[];
  nameOf(id: string): string;
}

/** In which order the clips came, over all listeners, on each criterion. How far the listeners agree is told beside it. */
export function RankedOutcome({ round, criteria, nameOf }: RankedOutcomeProps) {
  const heard = round.listeners.filter(({ letters }) => letters !== null).length;
  if (heard === 0) return null;
  return (
    <section className="mb-3 sheet-scroll" tabIndex={0} aria-label={`What came of ${round.title}`}>
      <table className="plain">
        <thead>
          <tr>
            {criteria.map(({ id, name }) => (
              <th key={id}>{name}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {round.recordingIds.map((first, at) => (
            <tr key={first}>
              {criteria.map(({ id }) => {
                const place = rankedOutcome(round, id)[at];
                return (
                  <td key={id}>
                    <span className="mono">{place?.place}</span> {place && nameOf(place.recordingId)}{' '}
                    <span className="small soft">
                      {place && `mean place ${place.meanRank.toFixed(1)}`}
                      {place && heard > 1 && place.first > 0 && `, first for ${place.first} of ${heard}`}
                    </span>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small soft mb-0">An order says which is better, not by how much, and depends on what else was heard. So it stands here and gives no points in the verdict.</p>
    </section>
  );
}

interface OwnOrderProps {
  listener: Listener;
  criteria: readonly Criterion[];
  nameOf(id: string): string;
}

/** The order that one listener gave, best first. */
export function OwnOrder({ listener: { letters, orders }, criteria, nameOf }: OwnOrderProps) {
  return criteria.map(({ id, name }) => (
    <div key={id} className="small">
      {criteria.length > 1 && `${name}: `}
      {(orders[id] ?? []).map((equal) => equal.map((letter) => nameOf(letters?.[letter] ?? '')).join(' and ')).join(', then ')}
    </div>
  ));
}
