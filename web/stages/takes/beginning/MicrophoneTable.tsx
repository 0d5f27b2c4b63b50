import type { Tape } from '@marvet/core/domain/tape';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { TapeMark } from '../../../parts/TapeMark.tsx';
import type { BeginDraft } from './beginDraft.ts';

interface MicrophoneTableProps {
  microphones: BeginDraft['microphones'];
  tapes: ReadonlyMap<string, Tape>;
  onName(read: string, name: string): void;
  /** Reads the names another way; null where there is no other. */
  onOtherReading: (() => void) | null;
}

/** The microphones that were read out of tracks, names and folders, each with the tape that it gets. */
export function MicrophoneTable({ microphones, tapes, onName, onOtherReading }: MicrophoneTableProps) {
  return (
    <section aria-label="Microphones">
      <div className="row-line apart mb-1">
        <h3 className="mb-0">
          {microphones.length} {microphones.length === 1 ? 'microphone' : 'microphones'}, as the names say
        </h3>
        {onOtherReading && (
          <Button size="sm" variant="outline" onClick={onOtherReading}>
            Read the names another way
          </Button>
        )}
      </div>
      <div className="microphone-names">
        {microphones.map(({ read, name, recordings }) => {
          const tape = tapes.get(name);
          return (
            <span key={read} className="d-flex align-items-center gap-2">
              {tape && <TapeMark tape={tape} name="" />}
              <Form.Control
                size="sm"
                aria-label={`Name of ${read}`}
                maxLength={60}
                defaultValue={name}
                onBlur={(event) => {
                  const next = event.target.value.trim();
                  if (next && next !== name) onName(read, next);
                  else event.target.value = name;
                }}
                onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
              />
              <span className="small soft text-nowrap">
                {recordings} {recordings === 1 ? 'recording' : 'recordings'}
              </span>
            </span>
          );
        })}
      </div>
    </section>
  );
}
