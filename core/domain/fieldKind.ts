import { z } from 'zod';

/** What a field of a record holds, as far as reading it from a text, or keeping it in a column, needs to know. */
export interface FieldKind {
  type: 'text' | 'number' | 'yes or no' | 'list' | 'other';
  nullable?: boolean;
  min?: number;
  max?: number;
  whole?: boolean;
  /** What the entries of a list are. */
  entries?: FieldKind;
}

/** What a schema holds, under everything that may be wrapped around it. */
export function fieldKind(schema: z.core.$ZodType): FieldKind {
  const { def } = (schema as z.core.$ZodTypes)._zod;
  switch (def.type) {
    case 'nullable':
      return { ...fieldKind(def.innerType), nullable: true };
    case 'optional':
    case 'default':
    case 'prefault':
    case 'catch':
      return fieldKind(def.innerType);
    case 'pipe':
      return fieldKind(def.in._zod.def.type === 'transform' ? def.out : def.in);
    case 'number': {
      const { minValue, maxValue, format } = schema as z.ZodNumber;
      const whole = /int/.test(format ?? '');
      return { type: 'number', ...(minValue === null ? {} : { min: minValue }), ...(maxValue === null ? {} : { max: maxValue }), whole };
    }
    case 'boolean':
      return { type: 'yes or no' };
    case 'array':
      return { type: 'list', entries: fieldKind(def.element) };
    case 'string':
    case 'enum':
    case 'literal':
      return { type: 'text' };
    default:
      return { type: 'other' };
  }
}

/** The schema of a field inside a record, by its path; `links.0.settings.gainDb` looks into lists and groups. */
export function fieldSchema(schema: z.core.$ZodType, path: string): z.core.$ZodType | null {
  let found: z.core.$ZodType | null = schema;
  for (const part of path.split('.')) {
    while (found && !(found instanceof z.ZodObject) && !(found instanceof z.ZodArray)) {
      const def: { innerType?: z.core.$ZodType } = found._zod.def as never;
      found = def.innerType ?? null;
    }
    if (found instanceof z.ZodArray) found = found.element as z.core.$ZodType;
    else if (found instanceof z.ZodObject) found = (found.shape[part] as z.core.$ZodType | undefined) ?? null;
  }
  return found;
}
