import type { FaultSearch } from '@marvet/core/domain/faultSearch';
import { newId } from '@marvet/core/domain/identity';
import type { SearchState } from '@marvet/core/plan/fault/nextTest';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { KeptText } from '../../parts/fields.tsx';

interface SuspectsProps {
  search: FaultSearch;
  state: SearchState;
  onChange: (search: FaultSearch, told?: string) => void;
}

/** Who may be guilty, in signal order; those who are cleared are struck out. */
export function Suspects({ search, state, onChange }: SuspectsProps) {
  const [name, setName] = useState('');
  const left = new Set(state.left.map((suspect) => suspect.id));
  const begun = search.tests.length > 0;
  return (
    <fieldset>
      <legend className="form-label">Suspects, in signal order</legend>
      <ul className="suspects">
        {search.suspects.map((suspect) => (
          <li key={suspect.id} className={left.has(suspect.id) ? '' : 'cleared'}>
            <span className="grow">
              {suspect.name}
              {!left.has(suspect.id) && <span className="visually-hidden">, cleared</span>}
              <KeptText
                label={`What replaces ${suspect.name}`}
                hideLabel
                placeholder="replaced by"
                maxLength={160}
                value={suspect.instead}
                onKeep={(instead) => onChange({ ...search, suspects: search.suspects.map((each) => (each.id === suspect.id ? { ...each, instead } : each)) })}
              />
            </span>
            {!begun && (
              <Button
                size="sm"
                variant="plain"
                className="icon"
                aria-label={`Take ${suspect.name} off the list`}
                onClick={() => onChange({ ...search, suspects: search.suspects.filter((each) => each.id !== suspect.id) }, `${suspect.name} is off the list`)}
              >
                <X size={14} aria-hidden />
              </Button>
            )}
          </li>
        ))}
      </ul>
      {begun ? (
        <div className="small soft">The list is fixed once the first test was made.</div>
      ) : (
        <Form
          className="row-line flex-nowrap"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) onChange({ ...search, suspects: [...search.suspects, { id: newId(), name: name.trim(), instead: '' }] });
            setName('');
          }}
        >
          <Form.Control
            size="sm"
            aria-label="Another suspect"
            placeholder="a joint, a cable, a room"
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button size="sm" variant="outline" type="submit" disabled={!name.trim()} aria-label="Add suspect">
            <Plus size={14} aria-hidden />
          </Button>
        </Form>
      )}
    </fieldset>
  );
}
