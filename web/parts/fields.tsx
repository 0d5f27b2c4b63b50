import { type ReactNode, useEffect, useId, useState } from 'react';
import Form from 'react-bootstrap/Form';

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

/** For react-hook-form: an empty box is null, all else a number. A comma may stand for the point. */
export const asNumber = {
  setValueAs: (value: unknown) => {
    if (value === '' || value === null || value === undefined) return null;
    return Number(String(value).trim().replace(',', '.').replace('−', '-'));
  },
};

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
  onKeep: (value: number | null) => void;
  min: number;
  max: number;
  hideLabel?: boolean;
  size?: 'sm';
}

/** A number that is kept when the box is left; out of range it says so and keeps what was there. */
export function KeptNumber({ label, value, onKeep, min, max, hideLabel, size }: KeptNumberProps) {
  const id = useId();
  const [text, setText] = useState(value === null ? '' : String(value));
  const [editing, setEditing] = useState(false);
  useEffect(() => {
    if (!editing) setText(value === null ? '' : String(value));
  }, [value, editing]);
  const number = text.trim() === '' ? null : Number(text.replace(',', '.'));
  const wrong = number !== null && !(number >= min && number <= max);
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
        {...(size ? { size } : {})}
        isInvalid={wrong}
        onFocus={() => setEditing(true)}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          setEditing(false);
          if (!wrong && number !== value) onKeep(number);
        }}
      />
      {wrong && (
        <div className="invalid-feedback d-block" role="alert">
          {min} to {max}
        </div>
      )}
    </Form.Group>
  );
}
