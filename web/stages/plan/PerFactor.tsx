import { levelsAsCandidates, SIMULTANEOUS_KINDS, type SimultaneousKind, takesSaved } from '@marvet/core/plan/levelsAsCandidates';
import { tickedLevels } from '@marvet/core/plan/matrix';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useBinRecordMutation, useSaveChainMutation } from '../../data/records.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';
import { factorName, type PlanPartProps } from './planPart.ts';

/** For each factor that could be recorded at one moment: what that would save, and doing it. */
export function PerFactor({ trialId, plan, chains, worked, onChange }: PlanPartProps) {
  const [save] = useSaveChainMutation();
  const [bin] = useBinRecordMutation();
  const [busy, setBusy] = useState(false);
  const tell = useNotice();
  const told = useTold();
  const kinds = SIMULTANEOUS_KINDS.filter((kind) => tickedLevels(plan.factors, kind).length > 1);
  if (kinds.length === 0 || !worked) return null;
  const together = async (kind: SimultaneousKind) => {
    setBusy(true);
    const levels = tickedLevels(plan.factors, kind);
    const [first] = levels;
    const before = { factors: plan.factors, together: plan.together };
    const made: string[] = [];
    for (const draft of levelsAsCandidates(chains, kind, levels)) {
      const { data } = await told(save({ trialId, id: null, draft }));
      if (!data) return setBusy(false);
      made.push(data.id);
    }
    for (const { id, trialId: _trial, ...draft } of chains) await told(save({ trialId, id, draft: { ...draft, candidate: false } }));
    onChange({
      together: true,
      factors: plan.factors.map((factor) => (factor.kind === kind ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === first?.id })) } : factor)),
    });
    setBusy(false);
    tell(`${made.length} candidates stand for the levels of ${factorName(plan, kind)}; the ${chains.length} before are kept for reference`, () => {
      void (async () => {
        for (const id of made) await told(bin({ trialId, kind: 'chain', id }));
        for (const { id, trialId: _trial, ...draft } of chains) await told(save({ trialId, id, draft }));
        onChange(before);
      })();
    });
  };
  return (
    <div className="mt-3">
      <h3 className="mb-1">Levels at one moment</h3>
      {kinds.map((kind) => {
        const levels = tickedLevels(plan.factors, kind);
        return (
          <div key={kind} className="row-line apart rule-row">
            <span>
              {factorName(plan, kind)}: {levels.map((level) => level.label).join(', ')}
              <span className="d-block small soft">
                One after the other: other words for each. At one moment: about {takesSaved(worked.built.takes.length, levels.length)} takes fewer, and{' '}
                {chains.length * levels.length} candidates, each with gear of its own.
              </span>
            </span>
            <Button size="sm" variant="outline" disabled={busy || chains.length === 0} onClick={() => void together(kind)}>
              Record {factorName(plan, kind)} at one moment
            </Button>
          </div>
        );
      })}
    </div>
  );
}
