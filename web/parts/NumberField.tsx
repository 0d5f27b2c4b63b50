import Form from 'react-bootstrap/Form';
import { type FieldValues, get, type Path, type UseFormReturn } from 'react-hook-form';
import type { z } from 'zod';
import { Field, numberOf } from './fields.tsx';

interface NumberFieldProps<Values extends FieldValues, Context, Output> {
  form: UseFormReturn<Values, Context, Output>;
  /** The schema of the form, which says what the number may be. */
  schema: z.ZodType;
  name: Path<Values>;
  label: string;
  help?: string;
  size?: 'sm';
}

/** A number in the form of a record; left empty it is not known. What is refused stands under it with the reason. */
export function NumberField<Values extends FieldValues, Context, Output>({ form, schema, name, label, help, size }: NumberFieldProps<Values, Context, Output>) {
  const message = (get(form.formState.errors, name) as { message?: string } | undefined)?.message;
  return (
    <Field label={label} className="grow" error={message} {...(help ? { help } : {})}>
      {(id) => (
        <Form.Control id={id} className="mono" inputMode="decimal" {...(size ? { size } : {})} isInvalid={message !== undefined} {...form.register(name, numberOf(schema, name))} />
      )}
    </Field>
  );
}
