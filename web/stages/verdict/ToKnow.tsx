import type { VerdictView } from '@marvet/core/contract/verdict';
import type { Trial } from '@marvet/core/domain/trial';
import Button from 'react-bootstrap/Button';
import { useChangeTrialMutation } from '../../data/trials.ts';
import { useTold } from '../../parts/useTold.ts';

/** What to know before the verdict is believed: takes without audio, files that are there twice, passes that nobody decided on. */
export function ToKnow({ trial, view }: { trial: Trial; view: VerdictView }) {
  const [save, { isLoading }] = useChangeTrialMutation();
  const told = useTold();
  if (view.notes.length === 0 && view.passes === null) return null;
  const choose = (passes: 'last' | 'all' | null) => void told(save({ id: trial.id, version: trial.version, patch: { passes } }));
  return (
    <section className={view.notes.length > 0 ? 'caution stack gap-1' : 'stack gap-1'} aria-label="To know before it is believed">
      {view.notes.map((note) => (
        <div key={note.text} className="row-line">
          <span className="grow">{note.text}</span>
          {note.kind === 'passes' && (
            <>
              <Button size="sm" disabled={isLoading} onClick={() => choose('last')}>
                Only the last counts
              </Button>
              <Button size="sm" variant="outline" disabled={isLoading} onClick={() => choose('all')}>
                All count
              </Button>
            </>
          )}
        </div>
      ))}
      {view.passes !== null && (
        <span className="small soft">
          {view.passes === 'last' ? 'Of slates that were done again the last pass counts.' : 'Of slates that were done again all passes count.'}{' '}
          <Button size="sm" variant="plain" disabled={isLoading} onClick={() => choose(null)}>
            Decide again
          </Button>
        </span>
      )}
    </section>
  );
}
