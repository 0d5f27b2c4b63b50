import { SIMULTANEOUS_KINDS, type SimultaneousKind } from '@marvet/core/domain/factor';
import { tickedLevels } from '@marvet/core/plan/matrix';
import Form from 'react-bootstrap/Form';
import { factorName, type PlanPartProps } from './planPart.ts';

/** For each factor that could be recorded at one moment: what that needs, and whether it is done so. */
export function PerFactor({ plan, chains, worked, onChange }: PlanPartProps) {
  const kinds = SIMULTANEOUS_KINDS.filter((kind) => tickedLevels(plan.factors, kind).length > 1);
  if (kinds.length === 0) return null;
  const set = (kind: SimultaneousKind, on: boolean) =>
    onChange({ atOnce: on ? [...plan.atOnce, kind] : plan.atOnce.filter((each) => each !== kind), ...(on ? { together: true } : {}) });
  return (
    <fieldset className="mt-3">
      <legend className="h3 mb-1">Levels at one moment</legend>
      {kinds.map((kind) => {
        const levels = tickedLevels(plan.factors, kind);
        const on = plan.atOnce.includes(kind);
        return (
          <div key={kind} className="rule-row">
            <Form.Check
              id={`at-once-${kind}`}
              label={`${factorName(plan, kind)}: ${levels.map((level) => level.label).join(', ')} in one take`}
              checked={on}
              onChange={(event) => set(kind, event.target.checked)}
            />
            <span className="d-block small soft">
              {on
                ? `Every candidate is there ${levels.length} times over, each with gear of its own: ${levels.length * chains.length} tracks at most. Same words, same moment.`
                : `One after the other: other words for each, and up to ${levels.length} times the takes.`}
              {on && worked && ` ${worked.built.takes.length} takes.`}
            </span>
          </div>
        );
      })}
    </fieldset>
  );
}
