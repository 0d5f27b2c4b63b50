import { newId } from '@marvet/core/domain/identity';
import { type Role, roleSchema, type Trial, type TrialPatch } from '@marvet/core/domain/trial';
import { Plus, X } from 'lucide-react';
import { useRef } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { KeptNumber, KeptText } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { Sheet } from '../../parts/states.tsx';
import { RoleAsks } from './RoleAsks.tsx';

const ROBUSTNESS: Record<Role['robustness'], string> = { gentle: 'treated gently', normal: 'as usual', rough: 'breaks things' };

/** For whom it is decided: how many there are, what they need, how roughly they treat gear, and what may be spent. */
export function Roles({ trial, onChange }: { trial: Trial; onChange: (patch: Pick<TrialPatch, 'roles' | 'budget' | 'hoursAYear'>) => void }) {
  const tell = useNotice();
  const { roles, budget } = trial;
  // What is undone later is put into the roles as they are then.
  const latest = useRef(roles);
  latest.current = roles;
  const change = (id: string, values: Partial<Role>) => onChange({ roles: latest.current.map((role) => (role.id === id ? { ...role, ...values } : role)) });
  const remove = (role: Role) => {
    onChange({ roles: roles.filter((each) => each.id !== role.id) });
    tell(`${role.name} is no longer counted`, () => onChange({ roles }));
  };
  return (
    <Sheet
      title="For whom, and for how much"
      aside={
        <Button size="sm" variant="outline" onClick={() => onChange({ roles: [...roles, roleSchema.parse({ id: newId(), name: `Role ${roles.length + 1}`, count: 1 })] })}>
          <Plus size={15} aria-hidden /> Role
        </Button>
      }
    >
      {roles.length === 0 ? (
        <p className="soft">Two leads, six children, one budget: name who works with the gear, so that the verdict can say who gets what.</p>
      ) : (
        <div className="roles">
          {roles.map((role) => (
            <div key={role.id} className="role">
              <KeptText
                label={`Name of role ${role.name}`}
                hideLabel
                maxLength={120}
                value={role.name}
                onKeep={(name) => (name ? change(role.id, { name }) : tell(`A role needs a name. Still ${role.name}`))}
              />
              <KeptNumber
                label={`How many ${role.name}`}
                hideLabel
                size="sm"
                min={1}
                max={200}
                whole
                value={role.count}
                onKeep={(count) => change(role.id, { count: Math.round(count ?? 1) })}
              />
              <KeptText label={`What ${role.name} needs`} hideLabel maxLength={300} placeholder="needs" value={role.needs} onKeep={(needs) => change(role.id, { needs })} />
              <Form.Select
                size="sm"
                aria-label={`How ${role.name} treats gear`}
                value={role.robustness}
                onChange={(event) => change(role.id, { robustness: event.target.value as Role['robustness'] })}
              >
                {Object.entries(ROBUSTNESS).map(([id, name]) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </Form.Select>
              <Button size="sm" variant="plain" className="icon" aria-label={`Remove ${role.name}`} onClick={() => remove(role)}>
                <X size={14} aria-hidden />
              </Button>
              <RoleAsks role={role} trialId={trial.id} onChange={(values) => change(role.id, values)} />
            </div>
          ))}
        </div>
      )}
      <div className="row-line align-items-end mt-2">
        <KeptNumber
          label="Budget"
          size="sm"
          min={0}
          max={10_000_000}
          value={budget?.amount ?? null}
          onKeep={(amount, currency) => onChange({ budget: amount === null ? null : { amount, currency: currency ?? budget?.currency ?? 'EUR' } })}
        />
        <KeptText
          label="Currency"
          maxLength={3}
          value={budget?.currency ?? 'EUR'}
          onKeep={(currency) => {
            if (!/^[A-Za-z]{3}$/.test(currency)) return tell(`“${currency}” is no currency: three letters, such as EUR. Still ${budget?.currency ?? 'EUR'}`);
            if (!budget) return tell('Enter the budget first, then its currency');
            onChange({ budget: { ...budget, currency: currency.toUpperCase() } });
          }}
        />
        <KeptNumber label="Hours a year" size="sm" min={1} max={8760} value={trial.hoursAYear} onKeep={(hoursAYear) => onChange({ hoursAYear })} />
        <span className="small soft mb-1">
          for {roles.reduce((sum, role) => sum + role.count, 0)} people. The verdict shares the gear out by this; prices in other currencies are not converted. With hours of use,
          prices against the score hold their batteries.
        </span>
      </div>
    </Sheet>
  );
}
