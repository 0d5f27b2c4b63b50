import { EVENT_KINDS, type EventKind } from '@marvet/core/domain/measureId';
import { EVENT_NAMES } from '@marvet/core/measure/eventNames';
import type { ShownEvent } from '@marvet/core/measure/events/corrected';
import { lastedText } from '@marvet/core/measure/eventWords';
import { Repeat, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '../../parts/fields.tsx';

interface EventEditorProps {
  event: ShownEvent;
  /** Marked, but not kept yet. */
  draft: boolean;
  looped: boolean;
  onLoop(on: boolean): void;
  onKind(kind: EventKind): void;
  onNone(): void;
  /** Keeps a draft. */
  onKeep(): void;
  /** What was found counts again; null where nothing was corrected. */
  onTakeBack: (() => void) | null;
  onClose(): void;
}

/** One event in hand: what it is, whether it is one at all, and hearing it over and over. Its edges are moved on the picture. */
export function EventEditor({ event, draft, looped, onLoop, onKind, onNone, onKeep, onTakeBack, onClose }: EventEditorProps) {
  return (
    <section className="event-editor filters mt-2" aria-label="Event in hand">
      <Field label="Kind of event">
        {(id) => (
          <Form.Select id={id} size="sm" value={event.kind} onChange={({ target }) => onKind(target.value as EventKind)}>
            {EVENT_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {EVENT_NAMES[kind]}
              </option>
            ))}
          </Form.Select>
        )}
      </Field>
      <span className="mono mb-1">
        {event.startS.toFixed(2)} to {event.endS.toFixed(2)} s, {lastedText(event.endS - event.startS)}
      </span>
      <Button size="sm" variant={looped ? 'primary' : 'outline'} aria-pressed={looped} onClick={() => onLoop(!looped)}>
        <Repeat size={15} aria-hidden /> Loop it
      </Button>
      {draft ? (
        <Button size="sm" variant="primary" onClick={onKeep}>
          Keep this event
        </Button>
      ) : (
        <Button size="sm" variant="outline" onClick={onNone}>
          Not an event
        </Button>
      )}
      {onTakeBack && (
        <Button size="sm" variant="plain" onClick={onTakeBack}>
          As it was found
        </Button>
      )}
      <Button size="sm" variant="plain" aria-label={draft ? 'Leave it unmarked' : 'Put it down'} title={draft ? 'Leave it unmarked' : 'Put it down'} onClick={onClose}>
        <X size={15} aria-hidden />
      </Button>
      <span className="small soft mb-1">
        {event.pending ? 'Being measured as it is marked now. ' : ''}Move its edges on the picture, or with the arrow keys; with shift by 5 ms.
      </span>
    </section>
  );
}
