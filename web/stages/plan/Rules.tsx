import { FACTOR_KINDS, type FactorKind } from '@marvet/core/domain/factor';
import { newId } from '@marvet/core/domain/identity';
import type { ExclusionRule, PlanDraft } from '@marvet/core/domain/plan';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Sheet } from '../../parts/states.tsx';
import { type ChangePlan, factorName } from './planPart.ts';

/** What cannot occur: no fur indoors, no low-cut on the boom. Such cells are left out by themselves. */
export function Rules({ plan, onChange }: { plan: PlanDraft; onChange: ChangePlan }) {
  const remove = (rule: ExclusionRule) => onChange({ rules: plan.rules.filter((each) => each.id !== rule.id) }, 'The rule is gone');
  return (
    <Sheet title="What cannot occur">
      {plan.rules.map((rule) => (
        <div key={rule.id} className="row-line apart rule-row">
          <span>
            No {wordsOf(plan, rule.kind, rule.levelIds)} at {wordsOf(plan, rule.withKind, rule.withLevelIds)}
            <span className="soft small">
              {' '}
              ({factorName(plan, rule.kind)}, {factorName(plan, rule.withKind)})
            </span>
          </span>
          <Button size="sm" variant="plain" className="icon" aria-label={`Remove the rule on ${wordsOf(plan, rule.kind, rule.levelIds)}`} onClick={() => remove(rule)}>
            <X size={14} aria-hidden />
          </Button>
        </div>
      ))}
      <NewRule plan={plan} onAdd={(rule) => onChange({ rules: [...plan.rules, rule] })} />
    </Sheet>
  );
}

function wordsOf(plan: PlanDraft, kind: FactorKind, levelIds: readonly string[]): string {
  return levelIds.map((id) => levelLabel(plan, kind, id)).join(' or ');
}

function NewRule({ plan, onAdd }: { plan: PlanDraft; onAdd: (rule: ExclusionRule) => void }) {
  const [first, setFirst] = useState<string>('');
  const [second, setSecond] = useState<string[]>([]);
  const levels = FACTOR_KINDS.flatMap((kind) => {
    const factor = plan.factors.find((each) => each.kind === kind);
    return factor ? [{ kind, name: factor.name, levels: factor.levels }] : [];
  });
  const [kind, levelId] = first.split('\n') as [FactorKind, string];
  const withKind = second[0]?.split('\n')[0] as FactorKind | undefined;
  const options = (but: FactorKind | undefined) =>
    levels
      .filter((factor) => factor.kind !== but && factor.levels.length > 0)
      .map((factor) => (
        <optgroup key={factor.kind} label={factor.name}>
          {factor.levels.map((level) => (
            <option key={level.id} value={`${factor.kind}\n${level.id}`}>
              {level.label}
            </option>
          ))}
        </optgroup>
      ));
  return (
    <Form
      className="row-line mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!first || !withKind) return;
        const withLevelIds = second.map((each) => each.split('\n')[1] as string);
        onAdd({ id: newId(), kind, levelIds: [levelId], withKind, withLevelIds });
        setFirst('');
        setSecond([]);
      }}
    >
      <span>No</span>
      <Form.Select size="sm" className="w-auto" aria-label="What cannot occur" value={first} onChange={(event) => setFirst(event.target.value)}>
        <option value="">choose</option>
        {options(withKind)}
      </Form.Select>
      <span>at</span>
      {second.map((each) => (
        <span key={each} className="chip">
          {levelLabel(plan, each.split('\n')[0] as FactorKind, each.split('\n')[1] as string)}
          <Button size="sm" variant="plain" className="icon" aria-label="Take out" onClick={() => setSecond(second.filter((other) => other !== each))}>
            <X size={12} aria-hidden />
          </Button>
        </span>
      ))}
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label="Where it cannot occur"
        value=""
        onChange={(event) => event.target.value && !second.includes(event.target.value) && setSecond([...second, event.target.value])}
      >
        <option value="">{second.length > 0 ? 'or' : 'choose'}</option>
        {withKind
          ? levels
              .find((factor) => factor.kind === withKind)
              ?.levels.map((level) => (
                <option key={level.id} value={`${withKind}\n${level.id}`}>
                  {level.label}
                </option>
              ))
          : options(first ? kind : undefined)}
      </Form.Select>
      <Button size="sm" variant="outline" type="submit" disabled={!first || second.length === 0}>
        <Plus size={14} aria-hidden /> Rule
      </Button>
    </Form>
  );
}
