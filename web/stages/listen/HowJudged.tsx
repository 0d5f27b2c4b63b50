import { MOST_COMPARISONS, MOST_PAIRED, type RoundKind, roundKindSchema } from '@marvet/core/domain/round';
import { foreseenText } from '@marvet/core/listen/paired/sayDoubt';
import { pairsOf } from '@marvet/core/listen/paired/sequence';
import Form from 'react-bootstrap/Form';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { KIND_HELP, KIND_WORDS, USUAL_COMPARISONS } from './kindWords.ts';

interface HowJudgedProps {
  kind: RoundKind;
  /** Of each two recordings; null is as many as the listener wants. */
  comparisons: number | null;
  recordings: number;
  onKind(kind: RoundKind): void;
  onComparisons(comparisons: number | null): void;
}

/** Whether a round can be made of so many recordings. */
export function mayBegin(kind: RoundKind, recordings: number, criteria: number, comparisons: number | null): boolean {
  return recordings >= 2 && criteria > 0 && whyNot(kind, recordings, comparisons) === null;
}

function whyNot(kind: RoundKind, recordings: number, comparisons: number | null): string | null {
  if ((kind === 'same' || kind === 'odd') && recordings !== 2) return `Two recordings are told apart at a time: ${recordings} are chosen.`;
  if (kind !== 'better') return null;
  if (recordings > MOST_PAIRED) return `Of more than ${MOST_PAIRED} recordings there are too many pairs: choose fewer, or give points.`;
  const all = pairsOf(recordings).length * (comparisons ?? 1);
  return all > MOST_COMPARISONS ? `That would be ${all} comparisons; ${MOST_COMPARISONS} are the most that ears can do.` : null;
}

/** How a round is judged, how often, and what such a test could find at all: told before anybody listens. */
export function HowJudged({ kind, comparisons, recordings, onKind, onComparisons }: HowJudgedProps) {
  const wrong = whyNot(kind, recordings, comparisons);
  const choose = (next: RoundKind) => {
    onKind(next);
    onComparisons(next === 'scores' ? null : USUAL_COMPARISONS[next]);
  };
  return (
    <>
      <Field label="How" help={KIND_HELP[kind]}>
        {(id) => (
          <Form.Select id={id} value={kind} onChange={(event) => choose(roundKindSchema.parse(event.target.value))}>
            {roundKindSchema.options.map((option) => (
              <option key={option} value={option}>
                {KIND_WORDS[option]}
              </option>
            ))}
          </Form.Select>
        )}
      </Field>
      {kind !== 'scores' && (
        <>
          <KeptNumber
            label={kind === 'better' ? 'Comparisons of each two' : 'Comparisons'}
            min={1}
            max={MOST_COMPARISONS}
            whole
            placeholder="as many as wanted"
            value={comparisons}
            onKeep={onComparisons}
          />
          <p className="small soft mb-0" aria-live="polite">
            {wrong ??
              (comparisons === null ? 'Each listener ends when they want. Nothing tells them how they do, so that ending does not depend on it.' : foreseenText(kind, comparisons))}
          </p>
        </>
      )}
    </>
  );
}
