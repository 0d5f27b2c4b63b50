import { isPaired, MOST_COMPARISONS, type RoundKind, roundKindSchema } from '@marvet/core/domain/round';
import { foreseenText } from '@marvet/core/listen/paired/sayDoubt';
import Form from 'react-bootstrap/Form';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { KIND_HELP, KIND_WORDS, USUAL_COMPARISONS } from './kindWords.ts';

interface HowJudgedProps {
  kind: RoundKind;
  /** Of each two recordings; null is as many as the listener wants. */
  comparisons: number | null;
  /** Nothing can be foreseen of a round that cannot be made. */
  possible: boolean;
  onKind(kind: RoundKind): void;
  onComparisons(comparisons: number | null): void;
}

/** How a round is judged, how often, and what such a test could find at all: told before anybody listens. */
export function HowJudged({ kind, comparisons, possible, onKind, onComparisons }: HowJudgedProps) {
  const choose = (next: RoundKind) => {
    onKind(next);
    onComparisons(isPaired(next) ? USUAL_COMPARISONS[next] : null);
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
      {isPaired(kind) && (
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
          {possible && (
            <p className="small soft mb-0" aria-live="polite">
              {comparisons === null ? 'Each listener ends when they want. Nothing tells them how they do, so that ending does not depend on it.' : foreseenText(kind, comparisons)}
            </p>
          )}
        </>
      )}
    </>
  );
}
