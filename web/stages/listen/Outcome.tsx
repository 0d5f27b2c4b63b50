import type { Criterion } from '@marvet/core/domain/criterion';
import type { Round } from '@marvet/core/domain/round';
import { betterOutcome, type HeardBy, toldOutcome } from '@marvet/core/listen/paired/outcome';
import { percentText, preferredText, toldText } from '@marvet/core/listen/paired/sayDoubt';

interface OutcomeProps {
  round: Round;
  criteria: readonly Criterion[];
  nameOf(recordingId: string): string;
}

/** What came of a round of comparisons, once everybody is done: sentences with their doubt. */
export function Outcome({ round, criteria, nameOf }: OutcomeProps) {
  const heard = round.listeners.filter(({ letters }) => letters !== null);
  if (heard.length === 0) return null;
  return (
    <section className="mb-3" aria-label={`What came of ${round.title}`}>
      {round.kind === 'better' ? (
        <Preferences round={round} heard={heard} criteria={criteria} nameOf={nameOf} />
      ) : (
        <ToldApart kind={round.kind === 'odd' ? 'odd' : 'same'} heard={heard} names={round.recordingIds.map(nameOf)} />
      )}
      {round.comparisons === null && (
        <p className="small soft mb-0">Each listener ended when they wanted. Nothing told them how they did, so that it stays as good as with a given number.</p>
      )}
    </section>
  );
}

function ToldApart({ kind, heard, names }: { kind: 'same' | 'odd'; heard: readonly HeardBy[]; names: readonly string[] }) {
  const { all, each } = toldOutcome(kind, heard);
  return (
    <>
      <p className="mb-2">
        <b>{names.join(' and ')}.</b> {toldText(all)}
      </p>
      {each.length > 1 && (
        <table className="plain">
          <thead>
            <tr>
              <th>Listener</th>
              <th className="num">Right</th>
              <th className="num">By guessing</th>
              <th>Told apart</th>
            </tr>
          </thead>
          <tbody>
            {each.map(({ id, name, told, doubt, apart }) => (
              <tr key={id}>
                <td>{name}</td>
                <td className="num">
                  {told.right} of {told.tries}
                </td>
                <td className="num">{percentText(doubt)}</td>
                <td>{apart ? 'yes' : 'not shown'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {each.length > 1 && (
        <p className="small soft mb-0">
          Of {each.length} listeners one does well by luck sooner than one alone: by guessing is held against that. All together count as one test, in which nobody&apos;s ears
          stand for those of others.
        </p>
      )}
    </>
  );
}

interface PreferencesProps {
  round: Round;
  heard: readonly HeardBy[];
  criteria: readonly Criterion[];
  nameOf(id: string): string;
}

function Preferences({ round, heard, criteria, nameOf }: PreferencesProps) {
  return betterOutcome(round.recordingIds, round.criterionIds, heard).map(({ criterionId, pairs, ranks }) => (
    <div key={criterionId} className="mb-2">
      <h3 className="h6 mb-1">{criteria.find(({ id }) => id === criterionId)?.name ?? 'A criterion that is gone'}</h3>
      {pairs.length > 1 &&
        (ranks ? (
          <p className="mb-1">
            Chosen over one of middling strength: {ranks.map(({ recordingId, overMiddling }) => `${nameOf(recordingId)} ${percentText(overMiddling)}`).join(', ')}.
          </p>
        ) : (
          <p className="mb-1">One or more were always chosen, or never: how far apart they are has no measure yet, only an order.</p>
        ))}
      <ul className="mb-0">
        {pairs.map((pair) => (
          <li key={pair.ids.join()}>
            {preferredText(pair, pair.doubt, [nameOf(pair.ids[0]), nameOf(pair.ids[1])])}
            {heard.length > 1 && (
              <span className="soft small">
                {' '}
                By listener: {pair.listeners[0]} for {nameOf(pair.ids[0])}, {pair.listeners[1]} for {nameOf(pair.ids[1])}.
              </span>
            )}
          </li>
        ))}
      </ul>
      {heard.length > 1 && <p className="small soft mb-0">Choices of one listener are counted as choices of any: they say what these ears prefer, and little about others.</p>}
    </div>
  ));
}
