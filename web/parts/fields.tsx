import { fieldKind, fieldSchema } from '@marvet/core/domain/fieldKind';
import { readNumber } from '@marvet/core/domain/readNumber';
import { type ReactNode, useEffect, useId, useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { z } from 'zod';

/** A labelled control with room for its error and a word of help. */
export function Field({
  label,
  error,
  help,
  children,
  className,
}: {
  label: string;
  error?: string | undefined;
  help?: string;
  children: (id: string) => ReactNode;
  className?: string;
}) {
  const id = useId();
  return (
    <Form.Group className={className}>
      <Form.Label htmlFor={id}>{label}</Form.Label>
      {children(id)}
      {error && (
        <div className="invalid-feedback d-block" role="alert">
          {error}
        </div>
      )}
      {help && !error && <Form.Text>{help}</Form.Text>}
    </Form.Group>
  );
}

/**
 * For react-hook-form: a box whose text becomes the number that the schema wants. Empty is null; what is
 * no number, or could be two, stays a text that the schema refuses with a word on why.
 * @param path of the field in the schema of the form
 */
export function numberOf(schema: z.ZodType, path: string): { setValueAs: (value: unknown) => unknown } {
  const field = fieldSchema(schema, path);
  const range = field ? fieldKind(field) : {};
  return {
    setValueAs: (value) => {
      if (value === null || value === undefined || typeof value === 'number') return value ?? null;
      const read = readNumber(String(value), range);
      return read.kind === 'empty' ? null : read.kind === 'number' ? read.value : String(value);
    },
  };
}

/** For react-hook-form: a choice of yes, no and not known. */
export const yesNoOrUnknown = { setValueAs: (value: unknown): boolean | null => (value === true || value === 'true' ? true : value === false || value === 'false' ? false : null) };

interface KeptTextProps {
  label: string;
  value: string;
  onKeep: (value: string) => void;
  rows?: number;
  placeholder?: string;
  maxLength: number;
  hideLabel?: boolean;
}

/** A text that is kept when the box is left. What is being typed is never overwritten from outside. */
export function KeptText({ label, value, onKeep, rows, placeholder, maxLength, hideLabel }: KeptTextProps) {
  const id = useId();
  const [text, setText] = useState(value);
  const [editing, setEditing] = useState(false);
  useEffect(() => {
    if (!editing) setText(value);
  }, [value, editing]);
  return (
    <Form.Group>
      <Form.Label htmlFor={id} className={hideLabel ? 'visually-hidden' : ''}>
        {label}
      </Form.Label>
      <Form.Control
        id={id}
        {...(rows ? { as: 'textarea' as const, rows } : {})}
        value={text}
        maxLength={maxLength}
        placeholder={placeholder}
        onFocus={() => setEditing(true)}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          setEditing(false);
          if (text.trim() !== value) onKeep(text.trim());
        }}
      />
    </Form.Group>
  );
}

interface KeptNumberProps {
  label: string;
  value: number | null;
  /** @param currency that was written beside it, where one was */
  onKeep: (value: number | null, currency: string | null) => void;
  min: number;
  max: number;
  whole?: boolean;
  hideLabel?: boolean;
  size?: 'sm';
  /** Shown while it is empty: what holds as long as nothing is entered. */
  placeholder?: string;
}

/** A number that is kept when the box is left. What cannot be kept stays in the box, with the reason and, where two readings are possible, both to choose from. */
export function KeptNumber({ label, value, onKeep, min, max, whole, hideLabel, size, placeholder }: KeptNumberProps) {
  const id = useId();
  const shown = value === null ? '' : String(value);
  const [text, setText] = useState(shown);
  const [editing, setEditing] = useState(false);
  const [left, setLeft] = useState(false);
  const read = readNumber(text, { min, max, ...(whole ? { whole } : {}) });
  const number = read.kind === 'number' ? read.value : null;
  const why =
    read.kind === 'refused'
      ? read.why
      : number !== null && !(number >= min && number <= max)
        ? `${min} to ${max}`
        : number !== null && whole && !Number.isInteger(number)
          ? 'Whole numbers only'
          : null;
  const open = why !== null || read.kind === 'either';
  useEffect(() => {
    // What was refused stays in sight until it is mended.
    if (!editing && !(left && open)) setText(shown);
  }, [shown, editing, left, open]);
  const choose = (reading: number, currency: string | null) => {
    setText(String(reading));
    setLeft(false);
    onKeep(reading, currency);
  };
  return (
    <Form.Group>
      <Form.Label htmlFor={id} className={hideLabel ? 'visually-hidden' : ''}>
        {label}
      </Form.Label>
      <Form.Control
        id={id}
        className="mono"
        inputMode="decimal"
        value={text}
        placeholder={placeholder}
        {...(size ? { size } : {})}
        isInvalid={why !== null || (left && read.kind === 'either')}
        aria-describedby={open ? `${id}-why` : undefined}
        onFocus={() => setEditing(true)}
        onChange={(event) => {
          setText(event.target.value);
          setLeft(false);
        }}
        onBlur={() => {
          setEditing(false);
          setLeft(true);
          if (!open && number !== value) onKeep(number, read.kind === 'number' ? read.currency : null);
        }}
      />
      {why && (
        <div className="invalid-feedback d-block" role="alert" id={`${id}-why`}>
          {why}
          {left && `. Still ${shown || 'nothing'}`}
        </div>
      )}
      {left && read.kind === 'either' && (
        <div className="small" role="alert" id={`${id}-why`}>
          Which is meant?{' '}
          {read.readings.map((reading) => (
            <button key={reading} type="button" className="btn btn-outline btn-sm mono me-1" onClick={() => choose(reading, read.currency)}>
              {reading}
            </button>
          ))}
        </div>
      )}
    </Form.Group>
  );
}
