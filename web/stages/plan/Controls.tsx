import type { PlanDraft } from '@marvet/core/domain/plan';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { KeptText } from '../../parts/fields.tsx';
import { Sheet } from '../../parts/states.tsx';
import type { ChangePlan } from './planPart.ts';

/** What is held constant. */
export function Controls({ plan, onChange }: { plan: PlanDraft; onChange: ChangePlan }) {
  const [name, setName] = useState('');
  const [value, setValue] = useState('');
  return (
    <Sheet title="What is held" aside={<span className="small soft">Kept with every take when it starts; a take with another value is flagged</span>}>
      {plan.controls.map((control, index) => (
        <div key={control.name} className="control-row">
          <b>{control.name}</b>
          <KeptText
            label={`Value of ${control.name}`}
            hideLabel
            maxLength={120}
            value={control.value}
            onKeep={(next) => onChange({ controls: plan.controls.map((each, at) => (at === index ? { ...each, value: next } : each)) })}
          />
          <Button
            size="sm"
            variant="plain"
            className="icon"
            aria-label={`Remove ${control.name}`}
            onClick={() => onChange({ controls: plan.controls.filter((_each, at) => at !== index) }, `${control.name} is no longer held`)}
          >
            <X size={14} aria-hidden />
          </Button>
        </div>
      ))}
      <Form
        className="control-row"
        onSubmit={(event) => {
          event.preventDefault();
          if (!name.trim() || plan.controls.some((control) => control.name === name.trim())) return;
          onChange({ controls: [...plan.controls, { name: name.trim(), value: value.trim() }] });
          setName('');
          setValue('');
        }}
      >
        <Form.Control aria-label="New control" placeholder="clothes, effort, room door" maxLength={120} value={name} onChange={(event) => setName(event.target.value)} />
        <Form.Control aria-label="Its value" placeholder="wool jumper" maxLength={120} value={value} onChange={(event) => setValue(event.target.value)} />
        <Button size="sm" variant="outline" type="submit" disabled={!name.trim()} aria-label="Add control">
          <Plus size={14} aria-hidden />
        </Button>
      </Form>
    </Sheet>
  );
}
