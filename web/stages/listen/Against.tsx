import { signed } from '@marvet/core/measure/catalogue';
import Form from 'react-bootstrap/Form';
import { usePairQuery } from '../../data/work.ts';
import { Field } from '../../parts/fields.tsx';

interface AgainstProps {
  trialId: string;
  ids: readonly string[];
  /** The recording that the others are held against; empty for none. */
  against: string;
  nameOf(id: string): string;
  onAgainst(id: string): void;
}

/** What clips are held against, as a boom: how far each is from it, and once equalised to it. */
export function Against({ trialId, ids, against, nameOf, onAgainst }: AgainstProps) {
  return (
    <div className="stack gap-2 mt-3">
      <Field label="Held against">
        {(id) => (
          <Form.Select id={id} value={against} onChange={(event) => onAgainst(event.target.value)}>
            <option value="">nothing: each as it is</option>
            {ids.map((each) => (
              <option key={each} value={each}>
                {nameOf(each)}
              </option>
            ))}
          </Form.Select>
        )}
      </Field>
      {against && (
        <ul className="small mb-0">
          {ids
            .filter((each) => each !== against)
            .map((each) => (
              <Distance key={each} trialId={trialId} id={each} other={against} name={nameOf(each)} />
            ))}
        </ul>
      )}
    </div>
  );
}

function Distance({ trialId, id, other, name }: { trialId: string; id: string; other: string; name: string }) {
  const { data, isError } = usePairQuery({ trialId, id, other });
  const { spectralDistanceDb, matchedDistanceDb, levelDiffDb } = data?.pair ?? {};
  const told =
    spectralDistanceDb == null || matchedDistanceDb == null
      ? 'it cannot be said how far it is from it, so that it stays as it is when equalised'
      : `${spectralDistanceDb.toFixed(1)} dB from it in tone, ${matchedDistanceDb.toFixed(1)} dB once equalised${levelDiffDb == null ? '' : `; recorded ${signed(levelDiffDb, 1)} dB against it`}`;
  return (
    <li>
      {name}: {isError ? 'cannot be compared' : data ? told : 'being compared'}
    </li>
  );
}
