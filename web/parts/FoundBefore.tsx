import { type FoundBefore, foundTexts } from '@marvet/core/decide/foundBefore';
import { Link } from 'react-router';
import { dateText } from './dateText.ts';

/** What a trial found of a candidate, with a way there. */
export function FoundOnce({ found, shared }: { found: FoundBefore; shared?: readonly string[] }) {
  const { trialId, trialName, atMs, candidateId, candidateName, figures } = found;
  return (
    <div className="mb-2">
      <Link to={`/trials/${trialId}/verdict/${candidateId}`}>
        {trialName}
        {atMs !== null && `, ${dateText(atMs)}`}
      </Link>
      , as {candidateName}
      {shared && <span className="soft"> (the same {shared.join(', ')})</span>}
      <div className="small">{foundTexts(found).join(' ')}</div>
      <details className="small">
        <summary>Figures of that trial</summary>
        {figures.map(({ name, text, conditions }) => (
          <div key={name}>
            {name} <span className="mono">{text}</span>{' '}
            <span className="soft">
              of {conditions} {conditions === 1 ? 'condition' : 'conditions'}
            </span>
          </div>
        ))}
      </details>
    </div>
  );
}
