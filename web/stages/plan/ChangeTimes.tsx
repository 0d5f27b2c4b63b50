import type { FactorKind } from '@marvet/core/domain/factor';
import type { ChangeException } from '@marvet/core/domain/plan';
import { readNumber } from '@marvet/core/domain/readNumber';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { planKinds, tickedLevels } from '@marvet/core/plan/matrix';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { KeptNumber } from '../../parts/fields.tsx';
import { Sheet } from '../../parts/states.tsx';
import { factorName, type PlanPartProps } from './planPart.ts';

/** What it costs to change each factor, in seconds, and where one direction costs something else. */
export function ChangeTimes({ plan, onChange }: PlanPartProps) {
  const kinds = planKinds(plan.factors);
  const setExceptions = (changeExceptions: ChangeException[], told?: string) => onChange({ changeExceptions }, told);
  return (
    <Sheet title="Time to change, s">
      <div className="times">
        {kinds.map((kind) => (
          <KeptNumber
            key={kind}
            label={factorName(plan, kind)}
            size="sm"
            min={0}
            max={7200}
            value={plan.changeTimesS[kind]}
            onKeep={(seconds) => onChange({ changeTimesS: { ...plan.changeTimesS, [kind]: seconds ?? 0 } })}
          />
        ))}
        <KeptNumber label="around a take" size="sm" min={0} max={600} value={plan.overheadS} onKeep={(seconds) => onChange({ overheadS: seconds ?? 0 })} />
      </div>
      <h3 className="mt-3 mb-1">Only in one direction, and travel between stations</h3>
      {plan.changeExceptions.map((each, index) => (
        <div key={`${each.kind} ${each.fromId} ${each.toId}`} className="row-line apart rule-row">
          <span>
            {factorName(plan, each.kind)}: {levelLabel(plan, each.kind, each.fromId)} to {levelLabel(plan, each.kind, each.toId)} <b className="mono">{each.seconds} s</b>
          </span>
          <Button
            size="sm"
            variant="plain"
            className="icon"
            aria-label={`Remove the time from ${levelLabel(plan, each.kind, each.fromId)} to ${levelLabel(plan, each.kind, each.toId)}`}
            onClick={() =>
              setExceptions(
                plan.changeExceptions.filter((_each, at) => at !== index),
                'The time in this direction is gone',
              )
            }
          >
            <X size={14} aria-hidden />
          </Button>
        </div>
      ))}
      <NewException
        plan={plan}
        onAdd={(exception) =>
          setExceptions([...plan.changeExceptions.filter((each) => each.kind !== exception.kind || each.fromId !== exception.fromId || each.toId !== exception.toId), exception])
        }
      />
    </Sheet>
  );
}

function NewException({ plan, onAdd }: Pick<PlanPartProps, 'plan'> & { onAdd: (exception: ChangeException) => void }) {
  const kinds = planKinds(plan.factors).filter((kind) => kind !== 'candidate' && tickedLevels(plan.factors, kind).length > 1);
  const [kind, setKind] = useState<FactorKind | ''>('');
  const [fromId, setFrom] = useState('');
  const [toId, setTo] = useState('');
  const [text, setText] = useState('');
  const read = readNumber(text, { min: 0, max: 7200 });
  const seconds = read.kind === 'number' ? read.value : Number.NaN;
  const usable = kind !== '' && fromId !== '' && toId !== '' && fromId !== toId && seconds >= 0 && seconds <= 7200;
  const levels = kind === '' ? [] : tickedLevels(plan.factors, kind);
  const select = (label: string, value: string, onChoose: (id: string) => void) => (
    <Form.Select size="sm" className="w-auto" aria-label={label} value={value} disabled={kind === ''} onChange={(event) => onChoose(event.target.value)}>
      <option value="">{label.toLowerCase()}</option>
      {levels.map((level) => (
        <option key={level.id} value={level.id}>
          {level.label}
        </option>
      ))}
    </Form.Select>
  );
  if (kinds.length === 0) return null;
  return (
    <Form
      className="row-line mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!usable) return;
        onAdd({ kind, fromId, toId, seconds });
        setFrom('');
        setTo('');
        setText('');
      }}
    >
      <Form.Select size="sm" className="w-auto" aria-label="Factor" value={kind} onChange={(event) => setKind(event.target.value as FactorKind | '')}>
        <option value="">factor</option>
        {kinds.map((each) => (
          <option key={each} value={each}>
            {factorName(plan, each)}
          </option>
        ))}
      </Form.Select>
      {select('From', fromId, setFrom)}
      {select('To', toId, setTo)}
      <Form.Control
        size="sm"
        className="mono"
        style={{ width: 80 }}
        aria-label="Seconds"
        placeholder="s"
        inputMode="decimal"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Button size="sm" variant="outline" type="submit" disabled={!usable}>
        <Plus size={14} aria-hidden /> Time
      </Button>
    </Form>
  );
}
