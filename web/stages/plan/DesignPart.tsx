import type { FactorKind } from '@marvet/core/domain/factor';
import type { Design } from '@marvet/core/domain/plan';
import { tickedLevels, variedKinds } from '@marvet/core/plan/matrix';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { Sheet } from '../../parts/states.tsx';
import { Concluded } from './Concluded.tsx';
import { Foreseen } from './Foreseen.tsx';
import { factorName, type PlanPartProps } from './planPart.ts';
import { Together } from './Together.tsx';

const DESIGNS: [Design['kind'], name: string, says: string][] = [
  ['full', 'Full matrix', 'Every cell: every comparison is a fair pair.'],
  ['pairs', 'Pairs covered', 'Every two levels of every two factors meet at least once. Finds what goes badly together; most comparisons are on average only.'],
  ['effects', 'Effects kept', 'As few takes as tell each factor’s own effect apart, and the two-way effects that you name.'],
  ['one change', 'One change at a time', 'A base, and every other level by itself. Fair pairs with the base; nothing on how factors work on each other.'],
  ['ladder', 'Ladder', 'At each rung a take with speech and one without, all else as in the base.'],
];

/** Which cells are recorded, what that lets one conclude, who shares a take, and what will be unfair. */
export function DesignPart(props: PlanPartProps) {
  const { plan, worked, onChange } = props;
  const design = (patch: Partial<Design>) => onChange({ design: { ...plan.design, ...patch } });
  return (
    <>
      <Foreseen {...props} />
      <div className="columns">
        <Sheet title="Design" aside={<span className="small soft">Counts are takes, with what is recorded together as it is set below</span>}>
          <div className="designs" role="radiogroup" aria-label="Design">
            {DESIGNS.map(([kind, name, says]) => (
              <label key={kind} className={`design ${plan.design.kind === kind ? 'chosen' : ''}`}>
                <input type="radio" name="design" checked={plan.design.kind === kind} onChange={() => design({ kind })} />
                <span className="grow">
                  <b>{name}</b>
                  <span className="d-block small soft">{says}</span>
                </span>
                <b className="mono fs-5">{worked ? worked.takesOfDesign[kind] : '…'}</b>
              </label>
            ))}
          </div>
          {plan.design.kind === 'effects' && <Interactions plan={plan} onDesign={design} />}
          {(plan.design.kind === 'one change' || plan.design.kind === 'ladder') && <Base plan={plan} onDesign={design} />}
          <div className="row-line mt-3">
            <KeptNumber label="Each setup is done" size="sm" min={1} max={10} value={plan.repeats} onKeep={(repeats) => onChange({ repeats: Math.round(repeats ?? 1) })} />
            <span className="small soft align-self-end mb-1">times. Two or more tell how far takes of the same setup differ.</span>
          </div>
        </Sheet>
        <Concluded {...props} />
      </div>
      <Together {...props} />
    </>
  );
}

type DesignFormProps = Pick<PlanPartProps, 'plan'> & { onDesign: (patch: Partial<Design>) => void };

/** Two-way effects that the design keeps apart from the rest. */
function Interactions({ plan, onDesign }: DesignFormProps) {
  const [chosen, setChosen] = useState('');
  const varied = variedKinds(plan.factors);
  const kept = plan.design.interactions;
  const pairs = varied.flatMap((a, index) => varied.slice(index + 1).map((b): [FactorKind, FactorKind] => [a, b]));
  const free = pairs.filter(([a, b]) => !kept.some((pair) => pair.includes(a) && pair.includes(b)));
  return (
    <div className="row-line mt-3">
      <span className="small soft">Keep apart:</span>
      {kept.map(([a, b]) => (
        <span key={`${a} ${b}`} className="chip">
          {factorName(plan, a)} with {factorName(plan, b)}
          <Button
            size="sm"
            variant="plain"
            className="icon"
            aria-label={`No longer keep ${factorName(plan, a)} with ${factorName(plan, b)}`}
            onClick={() => onDesign({ interactions: kept.filter((pair) => pair[0] !== a || pair[1] !== b) })}
          >
            <X size={12} aria-hidden />
          </Button>
        </span>
      ))}
      <Form.Select size="sm" className="w-auto" aria-label="Two factors that work on each other" value={chosen} onChange={(event) => setChosen(event.target.value)}>
        <option value="">two factors</option>
        {free.map(([a, b], index) => (
          <option key={`${a} ${b}`} value={index}>
            {factorName(plan, a)} with {factorName(plan, b)}
          </option>
        ))}
      </Form.Select>
      <Button
        size="sm"
        variant="outline"
        disabled={chosen === ''}
        onClick={() => {
          const pair = free[Number(chosen)];
          if (pair) onDesign({ interactions: [...kept, pair] });
          setChosen('');
        }}
      >
        <Plus size={14} aria-hidden /> Keep
      </Button>
    </div>
  );
}

/** The base that everything else is compared with; for a ladder also its rungs and its two scripts. */
function Base({ plan, onDesign }: DesignFormProps) {
  const { design } = plan;
  const isLadder = design.kind === 'ladder';
  const kinds = variedKinds(plan.factors).filter((kind) => !isLadder || (kind !== design.ladder.kind && kind !== 'script'));
  const levelSelect = (label: string, kind: FactorKind, value: string, onChoose: (id: string) => void) => (
    <Field key={label} label={label}>
      {(id) => (
        <Form.Select id={id} size="sm" value={value} onChange={(event) => onChoose(event.target.value)}>
          {tickedLevels(plan.factors, kind).map((level) => (
            <option key={level.id} value={level.id}>
              {level.label}
            </option>
          ))}
        </Form.Select>
      )}
    </Field>
  );
  const [firstScript, secondScript] = tickedLevels(plan.factors, 'script');
  return (
    <div className="base-levels mt-3">
      {isLadder && (
        <>
          <Field label="Rungs">
            {(id) => (
              <Form.Select id={id} size="sm" value={design.ladder.kind} onChange={(event) => onDesign({ ladder: { ...design.ladder, kind: event.target.value as FactorKind } })}>
                {plan.factors
                  .filter((factor) => factor.kind !== 'script')
                  .map((factor) => (
                    <option key={factor.kind} value={factor.kind}>
                      {factor.name.toLowerCase()}
                    </option>
                  ))}
                {!plan.factors.some((factor) => factor.kind === design.ladder.kind) && <option value={design.ladder.kind}>{design.ladder.kind}: not varied yet</option>}
              </Form.Select>
            )}
          </Field>
          {levelSelect('Speech', 'script', design.ladder.speechId || (firstScript?.id ?? ''), (speechId) => onDesign({ ladder: { ...design.ladder, speechId } }))}
          {levelSelect('No speech', 'script', design.ladder.silenceId || (secondScript?.id ?? ''), (silenceId) => onDesign({ ladder: { ...design.ladder, silenceId } }))}
        </>
      )}
      {kinds.map((kind) => levelSelect(`Base ${factorName(plan, kind)}`, kind, design.base[kind] ?? '', (id) => onDesign({ base: { ...design.base, [kind]: id } })))}
    </div>
  );
}
