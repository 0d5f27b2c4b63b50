import { criterionUnit } from '@marvet/core/decide/verdictCsv';
import { CRITERIA_FEWEST, CRITERIA_MOST, type Criterion, type StoredCriterion, weightShares } from '@marvet/core/domain/criterion';
import type { Factor, FactorKind } from '@marvet/core/domain/factor';
import type { Trial, TrialPatch } from '@marvet/core/domain/trial';
import { MEASURES, plainNumber } from '@marvet/core/measure/catalogue';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { ListPlus, Pencil, Plus, Trash2 } from 'lucide-react';
import { useCallback, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useSaveCriterionMutation } from '../../data/records.ts';
import { KeptNumber } from '../../parts/fields.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useVersioned } from '../../parts/useVersioned.ts';
import { CriterionDialog } from './CriterionDialog.tsx';
import { ReferenceChoice } from './ReferenceChoice.tsx';
import { StartingPoints } from './StartingPoints.tsx';

const nothing = () => undefined;

interface CriteriaProps {
  trial: Trial;
  criteria: StoredCriterion[];
  factors: Factor[];
  onChange: (patch: TrialPatch) => void;
}

/** The criteria of a trial with their weights, what share of the whole each is, and what they are measured against. */
export function Criteria({ trial, criteria, factors, onChange }: CriteriaProps) {
  const trialId = trial.id;
  const [starting, setStarting] = useState(false);
  const [editing, setEditing] = useState<StoredCriterion | 'new' | null>(null);
  const [save, { error }] = useSaveCriterionMutation();
  // A weight is part of its criterion: changed elsewhere meanwhile, both states are shown.
  const versioned = useVersioned<StoredCriterion>(
    useCallback((draft, version) => save({ trialId, from: { id: draft.id, version }, draft }), [save, trialId]),
    nothing,
  );
  const bin = useBin(trialId, 'criterion');
  const shares = weightShares(criteria.map((criterion) => criterion.weight));
  return (
    <Sheet
      title="Criteria"
      aside={
        <span className="row-line">
          {criteria.length > 0 && <span className="small soft">{countText(criteria.length)}</span>}
          {criteria.length > 0 && trial.progress.planned === 0 && (
            <Button size="sm" variant="outline" onClick={() => setStarting(true)}>
              <ListPlus size={15} aria-hidden /> Start over
            </Button>
          )}
          <Button size="sm" variant="outline" onClick={() => setEditing('new')}>
            <Plus size={15} aria-hidden /> Criterion
          </Button>
        </span>
      }
    >
      <SaveTrouble what="This criterion" conflict={versioned.conflict} error={error} />
      {criteria.length === 0 ? (
        <Empty>
          <p>What decides? Three to eight criteria, each measured, listened to or inspected. Weigh them, and say what rules a candidate out.</p>
          <Button variant="outline" onClick={() => setStarting(true)}>
            <ListPlus size={16} aria-hidden /> Start from a common question
          </Button>
        </Empty>
      ) : (
        <table className="plain criteria">
          <thead>
            <tr>
              <th>Criterion</th>
              <th style={{ width: 86 }}>Weight</th>
              <th style={{ width: 130 }}>Share of the whole</th>
              <th className="num">Worst to best</th>
              <th>Rules out</th>
              <th>
                <span className="visually-hidden">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {criteria.map((criterion, index) => (
              <tr key={criterion.id}>
                <td>
                  <b>{criterion.name}</b>
                  <div className="small soft">
                    {judgedBy(criterion, factors)}
                    {(criterion.worstWords || criterion.bestWords) && `. 0: ${criterion.worstWords || '…'}. 10: ${criterion.bestWords || '…'}`}
                    {criterion.remark && `. ${criterion.remark}`}
                  </div>
                </td>
                <td>
                  <KeptNumber
                    label={`Weight of ${criterion.name}`}
                    hideLabel
                    size="sm"
                    min={0}
                    max={100}
                    value={criterion.weight}
                    onKeep={(weight) => void versioned.save(criterion, { ...criterion, weight: weight ?? 0 }, criterion.version)}
                  />
                </td>
                <td>
                  <ShareBar share={shares[index] ?? 0} />
                </td>
                <td className="num">
                  {plainNumber(criterion.worst)} to {plainNumber(criterion.best)} <span className="soft">{criterionUnit(criterion)}</span>
                </td>
                <td className="small">{criterion.dealbreaker ? `${criterion.dealbreaker.side} ${plainNumber(criterion.dealbreaker.limit)}` : ''}</td>
                <td className="text-end text-nowrap">
                  <Button size="sm" variant="plain" aria-label={`Change ${criterion.name}`} onClick={() => setEditing(criterion)}>
                    <Pencil size={15} aria-hidden />
                  </Button>
                  <Button size="sm" variant="plain" aria-label={`Delete ${criterion.name}`} onClick={() => bin(criterion.id, criterion.name)}>
                    <Trash2 size={15} aria-hidden />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {criteria.length > 0 && <ReferenceChoice reference={trial.reference} factors={factors} criteria={criteria} onChange={(reference) => onChange({ reference })} />}
      {starting && <StartingPoints trialId={trialId} replaces={criteria.length} onClose={() => setStarting(false)} />}
      {editing && (
        <CriterionDialog trialId={trialId} factors={factors} criterion={editing === 'new' ? null : editing} position={criteria.length} onClose={() => setEditing(null)} />
      )}
    </Sheet>
  );
}

function countText(count: number): string {
  if (count < CRITERIA_FEWEST) return `${count} of at least ${CRITERIA_FEWEST}`;
  if (count > CRITERIA_MOST) return `${count}: more than ${CRITERIA_MOST} blur the answer`;
  return `${count} criteria`;
}

const HOW = { mean: 'mean', median: 'median', worst: 'the worst' };

function judgedBy(criterion: Criterion, factors: readonly Factor[]): string {
  const how = HOW[criterion.aggregation];
  const at = Object.entries(criterion.where).flatMap(([kind, ids]) => (ids && ids.length > 0 ? [ids.map((id) => levelLabel(factors, kind as FactorKind, id)).join(' or ')] : []));
  const where = at.length > 0 ? `, at ${at.join(', ')}` : '';
  if (criterion.kind === 'measured' && criterion.measureId) return `measured: ${MEASURES[criterion.measureId].label}, ${how}${where}`;
  return criterion.kind === 'listened' ? `listened to, 0 to 10, ${how}${where}` : 'inspected, 0 to 10';
}

/** A share as a bar with its figure. */
function ShareBar({ share }: { share: number }) {
  return (
    <div className="share">
      <span className="share-fill" style={{ width: `${share * 100}%` }} />
      <span className="mono">{Math.round(share * 100)} %</span>
    </div>
  );
}
