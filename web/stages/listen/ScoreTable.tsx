import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Criterion } from '@marvet/core/domain/criterion';
import type { HiddenCheck, Rating } from '@marvet/core/domain/round';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { steadinessOf, steadinessText } from '@marvet/core/listen/hiddenChecks';
import { placed, useTrialWords } from '../../data/trialData.ts';
import { PickTape } from '../../parts/PickTape.tsx';
import { BlindMark } from '../../parts/TapeMark.tsx';

interface ScoreTableProps {
  trialId: string;
  /** Letters with the recordings that they stood for. */
  letters: Record<string, string>;
  checks: Record<string, HiddenCheck>;
  ratings: readonly Rating[];
  criteria: readonly Criterion[];
  recordings: readonly RecordingRow[];
  takes: readonly Take[];
}

const CHECK_WORDS: Record<HiddenCheck, string> = { again: 'hidden: the same once more', worse: 'hidden: made worse on purpose' };

/** What one listener heard under each letter, and the points that were given. */
export function ScoreTable({ trialId, letters, checks, ratings: all, criteria, recordings, takes }: ScoreTableProps) {
  const words = useTrialWords(trialId);
  const byId = new Map(takes.map((take) => [take.id, take]));
  const steady = steadinessText(steadinessOf({ letters, checks, ratings: [...all] }));
  return (
    <div className="sheet-scroll">
      <table className="plain">
        <thead>
          <tr>
            <th>Heard as</th>
            <th>Was</th>
            {criteria.map((criterion) => (
              <th key={criterion.id} className="num">
                {criterion.name}
              </th>
            ))}
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          {Object.entries(letters).map(([letter, recordingId]) => {
            const recording = recordings.find((each) => each.id === recordingId);
            const { chain, take, setup } = placed(recording, byId, words.chains);
            const ratings = all.filter((rating) => rating.letter === letter);
            return (
              <tr key={letter}>
                <td>
                  <BlindMark letter={letter} />
                </td>
                <td>
                  {chain && take && setup ? <PickTape take={take} setup={setup} chain={chain} levels={words.setup(setup)} /> : 'gone'}{' '}
                  <span className="mono small">{take && slateLabel(take)}</span> {checks[letter] && <span className="small soft">{CHECK_WORDS[checks[letter]]}</span>}
                </td>
                {criteria.map((criterion) => (
                  <td key={criterion.id} className="num">
                    {ratings.find((rating) => rating.criterionId === criterion.id)?.points}
                  </td>
                ))}
                <td className="small">
                  {ratings
                    .map((rating) => rating.reason)
                    .filter(Boolean)
                    .join(' ')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {steady && <p className="small soft mb-0">{steady}</p>}
    </div>
  );
}
