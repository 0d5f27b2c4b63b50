import { CONSISTENT_UP_TO, pairwiseWeights, wholeWeights } from '@marvet/core/decide/pairwise';
import type { StoredCriterion } from '@marvet/core/domain/criterion';
import type { CriterionComparison, Trial } from '@marvet/core/domain/trial';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useSaveCriterionMutation } from '../../data/records.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';

/** Steps of a comparison: how much more the first matters, as a ratio. */
const STEPS: [number, string][] = [
  [7, 'far more than'],
  [5, 'much more than'],
  [3, 'clearly more than'],
  [2, 'a little more than'],
  [1, 'as much as'],
  [1 / 2, 'a little less than'],
  [1 / 3, 'clearly less than'],
  [1 / 5, 'much less than'],
  [1 / 7, 'far less than'],
];

interface PairwiseProps {
  trial: Trial;
  criteria: StoredCriterion[];
  onChange: (comparisons: CriterionComparison[]) => void;
}

/** Weights by comparing criteria two by two, with how far the comparisons agree with each other. */
export function Pairwise({ trial, criteria, onChange }: PairwiseProps) {
  const [save, { error, isLoading }] = useSaveCriterionMutation();
  const tell = useNotice();
  if (criteria.length < 2) return null;
  const ids = criteria.map((criterion) => criterion.id);
  const nameOf = (id: string) => criteria.find((criterion) => criterion.id === id)?.name ?? '';
  const comparisons = trial.comparisons.filter((each) => ids.includes(each.firstId) && ids.includes(each.secondId));
  const { shares, consistencyRatio, open, oddest, groups } = pairwiseWeights(ids, comparisons);
  const weights = shares && wholeWeights(shares);
  const total = (ids.length * (ids.length - 1)) / 2;
  const ratioOf = (a: string, b: string) => {
    const there = comparisons.find((each) => each.firstId === a && each.secondId === b);
    return there?.ratio ?? null;
  };
  const set = (firstId: string, secondId: string, value: string) => {
    const others = trial.comparisons.filter((each) => each.firstId !== firstId || each.secondId !== secondId);
    onChange(value === '' ? others : [...others, { firstId, secondId, ratio: Number(value) }]);
  };
  const takeWeights = async () => {
    const saved: { criterion: StoredCriterion; version: number }[] = [];
    if (!weights) return;
    for (const [index, criterion] of criteria.entries()) {
      const { data } = await save({ trialId: trial.id, from: criterion, draft: { ...criterion, weight: weights[index] ?? 0 } });
      if (!data) return;
      saved.push({ criterion, version: data.version });
    }
    tell('The weights are those of the comparisons', () => {
      for (const { criterion, version } of saved) void save({ trialId: trial.id, from: { id: criterion.id, version }, draft: criterion });
    });
  };
  const step = (ratio: number | null) =>
    ratio === null ? '' : String(STEPS.reduce((best, [each]) => (Math.abs(Math.log(each / ratio)) < Math.abs(Math.log(best / ratio)) ? each : best), 1));
  return (
    <Sheet
      title="Weigh two by two"
      aside={
        <span className="small soft">
          {comparisons.length} of {total} compared
        </span>
      }
    >
      <details>
        <summary>Which of two matters more, and how much? Often easier than numbers.</summary>
        <Trouble error={error} />
        <div className="pairwise">
          {ids.flatMap((a, index) =>
            ids.slice(index + 1).map((b) => (
              <div key={`${a} ${b}`} className={oddest?.includes(a) && oddest.includes(b) && (consistencyRatio ?? 0) > CONSISTENT_UP_TO ? 'odd' : ''}>
                <span>{nameOf(a)}</span>
                <Form.Select size="sm" aria-label={`${nameOf(a)} against ${nameOf(b)}`} value={step(ratioOf(a, b))} onChange={(event) => set(a, b, event.target.value)}>
                  <option value="">matters …</option>
                  {STEPS.map(([ratio, words]) => (
                    <option key={ratio} value={String(ratio)}>
                      {words}
                    </option>
                  ))}
                </Form.Select>
                <span>{nameOf(b)}</span>
              </div>
            )),
          )}
        </div>
        <p className="mb-2" role="status">
          {open.length > 0 && <>{open.length === 1 ? 'One pair is' : `${open.length} pairs are`} open; what was compared is worked with as it is. </>}
          {!weights ? (
            <>No weights follow yet: nothing connects {groups.map((group) => group.map(nameOf).join(', ')).join(' with ')}.</>
          ) : consistencyRatio === null ? (
            <>Every comparison is needed once, so none can contradict another.</>
          ) : (
            <>
              Consistency ratio <b className="mono">{consistencyRatio.toFixed(2)}</b>:{' '}
              {consistencyRatio <= CONSISTENT_UP_TO
                ? 'the comparisons agree with each other.'
                : `over ${CONSISTENT_UP_TO} some contradict each other. Look at ${oddest ? `${nameOf(oddest[0])} against ${nameOf(oddest[1])}` : 'them'} again.`}
            </>
          )}
        </p>
        <div className="row-line">
          <span className="small">{weights && criteria.map((criterion, index) => `${criterion.name} ${weights[index]}`).join(', ')}</span>
          <Link to="/methods#weights-two-by-two" className="small">
            How this is worked out
          </Link>
          <Button size="sm" variant="outline" disabled={isLoading || !weights} onClick={() => void takeWeights()}>
            Take these weights
          </Button>
        </div>
      </details>
    </Sheet>
  );
}
