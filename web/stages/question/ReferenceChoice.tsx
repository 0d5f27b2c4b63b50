import type { StoredCriterion } from '@marvet/core/domain/criterion';
import type { Factor } from '@marvet/core/domain/factor';
import { isPairMeasure } from '@marvet/core/domain/measureId';
import { REFERENCE_KINDS, type Reference } from '@marvet/core/domain/trial';
import Form from 'react-bootstrap/Form';
import { Field } from '../../parts/fields.tsx';

interface ReferenceChoiceProps {
  reference: Reference | null;
  factors: readonly Factor[];
  criteria: readonly StoredCriterion[];
  onChange: (reference: Reference | null) => void;
}

/** What the other recordings of a take are measured against: a candidate, or a level of what can differ within a take. */
export function ReferenceChoice({ reference, factors, criteria, onChange }: ReferenceChoiceProps) {
  const choices = REFERENCE_KINDS.flatMap((kind) => {
    const factor = factors.find((each) => each.kind === kind);
    return factor && factor.levels.length > 1 ? [factor] : [];
  });
  const chosen = reference ? textOf(reference) : '';
  const gone = reference !== null && !choices.some(({ kind, levels }) => kind === reference.kind && levels.some((level) => level.id === reference.levelId));
  const waiting = criteria.filter((criterion) => criterion.kind === 'measured' && criterion.measureId !== null && isPairMeasure(criterion.measureId));
  return (
    <div className="mt-3">
      <Field
        label="Reference"
        help="Within a take, every other recording is measured against this one: how much later, how near in colour, and what noise reduction took. The same sound through another link, a boom on the same words, or the level without processing."
      >
        {(id) => (
          <Form.Select id={id} size="sm" value={chosen} onChange={(event) => onChange(readText(event.target.value))}>
            <option value="">none</option>
            {gone && <option value={chosen}>a level that is gone</option>}
            {choices.map((factor) => (
              <optgroup key={factor.kind} label={factor.name}>
                {factor.levels.map((level) => (
                  <option key={level.id} value={textOf({ kind: factor.kind as Reference['kind'], levelId: level.id })}>
                    {level.label}
                  </option>
                ))}
              </optgroup>
            ))}
          </Form.Select>
        )}
      </Field>
      {waiting.length > 0 && (reference === null || gone) && (
        <p className="caution p-2 mt-2 mb-0">
          {waiting.map((criterion) => criterion.name).join(', ')} {waiting.length > 1 ? 'need' : 'needs'} a reference: until one is chosen, nothing is known of{' '}
          {waiting.length > 1 ? 'them' : 'it'}.
        </p>
      )}
    </div>
  );
}

const textOf = ({ kind, levelId }: Reference) => `${kind} ${levelId}`;

function readText(text: string): Reference | null {
  const kind = REFERENCE_KINDS.find((each) => text.startsWith(`${each} `));
  return kind ? { kind, levelId: text.slice(kind.length + 1) } : null;
}
