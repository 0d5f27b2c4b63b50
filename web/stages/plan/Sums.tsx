import type { PlanDraft } from '@marvet/core/domain/plan';
import { isTouched, type Take } from '@marvet/core/domain/take';
import { factorsWithoutLevel } from '@marvet/core/plan/matrix';
import type { WorkedOutPlan } from '@marvet/core/plan/workOut';
import { reconcileTakes } from '@marvet/core/takes/reconcile';
import { useDeferredValue, useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useCommitPlanMutation, useRecordingsQuery } from '../../data/work.ts';
import { durationText } from '../../parts/durationText.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Progress } from '../../parts/Progress.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';
import type { WorkingOut } from './useWorkedOut.ts';

interface SumsProps {
  trialId: string;
  plan: PlanDraft;
  takes: Take[];
  working: WorkingOut;
}

/** What the plan comes to: cells, takes and time, before and after it is committed. */
export function Sums({ trialId, plan, takes, working }: SumsProps) {
  const [commit, { error, isLoading }] = useCommitPlanMutation();
  const tell = useNotice();
  const worked = working.result && 'built' in working.result ? working.result : null;
  const { becomes, recorded } = useForecast(trialId, takes, worked);
  const empty = factorsWithoutLevel(plan.factors);
  const stale = becomes !== null && (becomes.added > 0 || becomes.dropped.length > 0 || becomes.moved);
  const apart = worked && plan.together && worked.built.together.groups.length > 1;
  return (
    <Sheet title="What it comes to" aside={<Working working={working} />}>
      <Trouble error={error} />
      <div className="sums">
        <Figure value={worked ? String(worked.built.setups.length) : '…'} name={worked ? `cells of ${worked.cells}` : 'cells'} />
        <Figure
          value={worked ? String(worked.built.takes.length) : '…'}
          name={plan.together ? (apart ? 'takes, candidates in groups' : 'takes, same words and moment for all in them') : 'takes, one a cell'}
        />
        <Figure value={worked ? durationText(worked.time.totalS) : '…'} name="with changes and slating" />
        <div className="grow small soft">{empty.length > 0 ? `Nothing to record yet: tick at least one ${empty.join(', one ')}.` : worked && orderText(worked.built)}</div>
        <div className="row-line">
          {takes.length > 0 && (
            <>
              <Link className="btn btn-outline" to="run-sheet">
                Run sheet
              </Link>
              <Link className="btn btn-outline" to="slates">
                Slates
              </Link>
              <a className="btn btn-outline" href={`/api/trials/${trialId}/plan/run-sheet.csv`} download>
                CSV
              </a>
              {plan.day.startsAtMs !== null && (
                <a className="btn btn-outline" href={`/api/trials/${trialId}/plan/day.ics`} download>
                  Calendar
                </a>
              )}
            </>
          )}
          <Button
            variant={stale ? 'primary' : 'outline'}
            disabled={isLoading || !worked || worked.built.takes.length === 0 || working.share !== null || (takes.length > 0 && !stale)}
            onClick={() =>
              void commit(trialId).then(
                ({ data }) =>
                  data && tell(`${data.takes} takes with slates. ${data.kept ? `${data.kept} kept. ` : ''}${data.dropped ? `${data.dropped} planned ones dropped.` : ''}`),
              )
            }
          >
            {buttonText(takes.length, becomes, stale)}
          </Button>
        </div>
      </div>
      {stale && takes.some((take) => isTouched(take) || recorded.has(take.id)) && (
        <p className="small soft mb-0 mt-2">
          What was recorded, skipped or noted keeps its slate and its audio; {becomes.dropped.length} planned {becomes.dropped.length === 1 ? 'slate goes' : 'slates go'},{' '}
          {becomes.added} new {becomes.added === 1 ? 'one gets the next number' : 'ones get the next numbers'}.
        </p>
      )}
    </Sheet>
  );
}

/** What the plan would make of the slates that exist. Comes after what is seen first: of thousands of takes it is some work. */
function useForecast(trialId: string, takes: Take[], workedNow: WorkedOutPlan | null) {
  const worked = useDeferredValue(workedNow, null);
  // What is recorded stays, though its take was never started; the server counts so as well.
  const { data: recordings } = useRecordingsQuery(trialId, { skip: takes.length === 0 });
  const recorded = useMemo(() => new Set(recordings?.flatMap((recording) => recording.takeId ?? [])), [recordings]);
  const becomes = useMemo(() => {
    if (!worked) return null;
    const reconciled = reconcileTakes(trialId, takes, worked.built.takes, 0, recorded);
    const positions = new Map(takes.map((take) => [take.id, take.position]));
    // A new order alone is worth taking over as well: slates keep their numbers and move.
    return { ...reconciled, moved: reconciled.takes.some((take) => (positions.get(take.id) ?? take.position) !== take.position) };
  }, [worked, takes, trialId, recorded]);
  return { becomes, recorded };
}

function buttonText(takes: number, becomes: { added: number; dropped: unknown[] } | null, stale: boolean): string {
  if (takes === 0) return 'Make slates';
  if (!becomes || !stale) return 'Slates are up to date';
  return becomes.added + becomes.dropped.length > 0 ? `Update slates: ${becomes.added} new, ${becomes.dropped.length} dropped` : 'Update slates: new order';
}

function orderText({ costS, boundS, exact, takes }: { costS: number; boundS: number; exact: boolean; takes: unknown[] }): string {
  if (takes.length < 2) return '';
  const changes = `${durationText(costS)} of it are changes between takes`;
  if (exact || costS <= boundS) return `${changes}: no order has less.`;
  return `${changes}; no order could have less than ${durationText(boundS)}.`;
}

/** Progress while the plan is worked out, with a way to stop it. */
function Working({ working }: { working: WorkingOut }) {
  const { share, cancelled, trouble, result } = working;
  if (result && 'tooManyCells' in result) {
    return <span className="alarm small">{result.tooManyCells.toLocaleString('en')} cells are too many: untick levels</span>;
  }
  if (trouble || cancelled) {
    return (
      <span className="row-line small">
        {trouble ?? 'Stopped.'}
        <Button size="sm" variant="outline" onClick={working.again}>
          Work it out
        </Button>
      </span>
    );
  }
  if (share === null) return null;
  return (
    <span className="row-line small" role="status">
      Working it out
      <Progress widthPx={110} share={share} label="Working the plan out" />
      <Button size="sm" variant="plain" onClick={working.cancel}>
        Cancel
      </Button>
    </span>
  );
}

export function Figure({ value, name }: { value: string; name: string }) {
  return (
    <div className="figure">
      <b className="mono">{value}</b>
      <span className="small soft">{name}</span>
    </div>
  );
}
