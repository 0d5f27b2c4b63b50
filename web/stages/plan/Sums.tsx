import type { PlanDraft } from '@marvet/core/domain/plan';
import type { Script } from '@marvet/core/domain/script';
import type { Take } from '@marvet/core/domain/take';
import { factorsWithoutLevel, matrixSetups, matrixSize } from '@marvet/core/plan/matrix';
import { gatherTakes, orderTakes } from '@marvet/core/plan/order';
import { reconcileTakes } from '@marvet/core/plan/reconcile';
import { planTime } from '@marvet/core/plan/time';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useCommitPlanMutation } from '../../app/api/work.ts';
import { durationText } from '../../parts/durationText.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';

interface SumsProps {
  trialId: string;
  plan: PlanDraft;
  scripts: Script[];
  takes: Take[];
  onChange: (patch: Partial<PlanDraft>) => void;
}

/** What the plan comes to: cells, takes and time, before and after it is committed. */
export function Sums({ trialId, plan, scripts, takes, onChange }: SumsProps) {
  const [commit, { error, isLoading }] = useCommitPlanMutation();
  const tell = useNotice();
  const sums = useMemo(() => {
    const setups = matrixSetups(plan.factors, plan.leftOut);
    const ordered = orderTakes(gatherTakes(setups, plan.together));
    const lengthS = (id: string) => scripts.find((script) => script.id === id)?.lengthS ?? 10;
    const { added, dropped } = reconcileTakes(trialId, takes, ordered);
    return { full: matrixSize(plan.factors), cells: setups.length, takes: ordered.length, totalS: planTime(ordered, plan, lengthS).totalS, added, dropped: dropped.length };
  }, [plan, scripts, takes, trialId]);
  const empty = factorsWithoutLevel(plan.factors);
  const stale = sums.added > 0 || sums.dropped > 0;
  return (
    <Sheet
      title="What it comes to"
      aside={
        <Form.Check
          type="switch"
          id="together"
          label="Candidates are recorded together, in one take"
          checked={plan.together}
          onChange={(event) => onChange({ together: event.target.checked })}
        />
      }
    >
      <Trouble error={error} />
      <div className="sums">
        <Figure value={String(sums.cells)} name={`cells of ${sums.full}`} />
        <Figure value={String(sums.takes)} name={plan.together ? 'takes, same words and moment for all in them' : 'takes, one a cell'} />
        <Figure value={durationText(sums.totalS)} name="with changes and slating" />
        <div className="grow small soft">
          {empty.length > 0
            ? `Nothing to record yet: tick at least one ${empty.join(', one ')}.`
            : 'Order: station changes least, then the rig, then windscreen, distance, script. Candidates of one take share words and moment, the fairest comparison there is.'}
        </div>
        <div className="row-line">
          {takes.length > 0 && (
            <>
              <Link className="btn btn-outline" to="run-sheet">
                Run sheet
              </Link>
              <a className="btn btn-outline" href={`/api/trials/${trialId}/plan/run-sheet.csv`} download>
                CSV
              </a>
            </>
          )}
          <Button
            variant={stale ? 'primary' : 'outline'}
            disabled={isLoading || sums.takes === 0 || (takes.length > 0 && !stale)}
            onClick={() =>
              void commit(trialId).then(
                ({ data }) =>
                  data && tell(`${data.takes} takes with slates. ${data.kept ? `${data.kept} kept. ` : ''}${data.dropped ? `${data.dropped} planned ones dropped.` : ''}`),
              )
            }
          >
            {takes.length === 0 ? 'Make slates' : stale ? `Update slates: ${sums.added} new, ${sums.dropped} dropped` : 'Slates are up to date'}
          </Button>
        </div>
      </div>
    </Sheet>
  );
}

function Figure({ value, name }: { value: string; name: string }) {
  return (
    <div className="figure">
      <b className="mono">{value}</b>
      <span className="small soft">{name}</span>
    </div>
  );
}
