import { asksText, leastText } from '@marvet/core/decide/allocate/roleAsks';
import type { Role } from '@marvet/core/domain/trial';
import { X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useCriteriaQuery } from '../../data/records.ts';
import { KeptNumber } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';

interface RoleAsksProps {
  role: Role;
  trialId: string;
  onChange(values: Partial<Role>): void;
}

/** What a role asks of the gear that it gets, in one line until it is opened. */
export function RoleAsks({ role, trialId, onChange }: RoleAsksProps) {
  const criteria = useCriteriaQuery(trialId).data ?? [];
  const tell = useNotice();
  const { name, least } = role;
  const open = criteria.filter(({ id }) => !least.some(({ criterionId }) => criterionId === id));
  return (
    <details className="role-asks">
      <summary>
        <span className="visually-hidden">{name} asks for: </span>
        {asksText(role, criteria)}
      </summary>
      <div className="stack gap-2 pt-2">
        <div className="row-line align-items-end">
          <KeptNumber
            label={`How much ${name} counts, 1 to 9`}
            size="sm"
            min={1}
            max={9}
            whole
            value={role.importance}
            onKeep={(importance) => onChange({ importance: Math.round(importance ?? 1) })}
          />
          <KeptNumber label={`To spare for ${name}`} size="sm" min={0} max={50} whole value={role.spares} onKeep={(spares) => onChange({ spares: Math.round(spares ?? 0) })} />
        </div>
        <div className="row-line">
          <Form.Check
            id={`${role.id}-lock`}
            label="Plugs on the body lock"
            aria-label={`Plugs on the body lock, for ${name}`}
            checked={role.mustLock}
            onChange={() => onChange({ mustLock: !role.mustLock })}
          />
          <Form.Check
            id={`${role.id}-hide`}
            label="Worn or hidden, not on a pole"
            aria-label={`Worn or hidden, not on a pole, for ${name}`}
            checked={role.mustHide}
            onChange={() => onChange({ mustHide: !role.mustHide })}
          />
        </div>
        {least.map(({ criterionId, limit }) => {
          const criterion = criteria.find(({ id }) => id === criterionId);
          if (!criterion) return null;
          return (
            <div key={criterionId} className="row-line align-items-end">
              <KeptNumber
                label={`${leastText(criterion, limit)}, for ${name}`}
                size="sm"
                min={-10_000}
                max={1_000_000}
                value={limit}
                onKeep={(value) => value !== null && onChange({ least: least.map((each) => (each.criterionId === criterionId ? { criterionId, limit: value } : each)) })}
              />
              <Button
                size="sm"
                variant="plain"
                className="icon"
                aria-label={`${name} no longer asks for ${criterion.name}`}
                onClick={() => {
                  onChange({ least: least.filter((each) => each.criterionId !== criterionId) });
                  tell(`${name} no longer asks for ${leastText(criterion, limit)}`, () => onChange({ least }));
                }}
              >
                <X size={14} aria-hidden />
              </Button>
            </div>
          );
        })}
        {open.length > 0 && (
          <Form.Select
            size="sm"
            className="w-auto"
            aria-label={`A criterion that ${name} asks something of`}
            value=""
            onChange={(event) => {
              const criterion = criteria.find(({ id }) => id === event.target.value);
              // Half way between worst and best, until somebody says what it must be.
              if (criterion) onChange({ least: [...least, { criterionId: criterion.id, limit: (criterion.best + criterion.worst) / 2 }] });
            }}
          >
            <option value="">Ask at least something of a criterion…</option>
            {open.map(({ id, name: criterionName }) => (
              <option key={id} value={id}>
                {criterionName}
              </option>
            ))}
          </Form.Select>
        )}
      </div>
    </details>
  );
}
