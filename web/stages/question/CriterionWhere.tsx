import type { CriterionDraft } from '@marvet/core/domain/criterion';
import type { Factor } from '@marvet/core/domain/factor';
import Form from 'react-bootstrap/Form';
import type { UseFormReturn } from 'react-hook-form';
import { Field } from '../../parts/fields.tsx';

const HELP: Record<CriterionDraft['aggregation'], string> = {
  mean: 'What all candidates of a take met drops out of their difference, so that small ones show soonest.',
  median: 'One freak take does not count. Where moments differ much, small differences need several times as many takes.',
  worst: 'The take on which it would have failed.',
};

/** How many values become one, and at which conditions they count: "worst, windscreen fur, slipway". */
export function CriterionWhere({ form, factors }: { form: UseFormReturn<CriterionDraft>; factors: Factor[] }) {
  const where = form.watch('where') ?? {};
  const shown = factors.filter((factor) => factor.kind !== 'candidate' && factor.levels.length > 1);
  return (
    <fieldset>
      <Field label="Of all its values counts" help={HELP[form.watch('aggregation') ?? 'mean']}>
        {(id) => (
          <Form.Select id={id} {...form.register('aggregation')}>
            <option value="mean">their mean</option>
            <option value="median">the middle one (median)</option>
            <option value="worst">the worst</option>
          </Form.Select>
        )}
      </Field>
      {shown.length > 0 && (
        <details className="mt-2" open={Object.values(where).some((ids) => ids && ids.length > 0)}>
          <summary className="small">Only at some conditions</summary>
          {shown.map((factor) => {
            const ids = where[factor.kind] ?? [];
            return (
              <div key={factor.kind} className="row-line where-row">
                <span className="small soft">{factor.name}</span>
                {factor.levels.map((level) => (
                  <Form.Check
                    key={level.id}
                    inline
                    id={`where-${factor.kind}-${level.id}`}
                    label={level.label}
                    checked={ids.includes(level.id)}
                    onChange={(event) => {
                      const next = event.target.checked ? [...ids, level.id] : ids.filter((each) => each !== level.id);
                      const { [factor.kind]: _old, ...others } = where;
                      form.setValue('where', next.length > 0 ? { ...others, [factor.kind]: next } : others, { shouldDirty: true });
                    }}
                  />
                ))}
              </div>
            );
          })}
          <div className="small soft">A factor without a tick counts at all its levels.</div>
        </details>
      )}
    </fieldset>
  );
}
