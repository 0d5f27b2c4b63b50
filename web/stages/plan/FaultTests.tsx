import type { FaultSearch } from '@marvet/core/domain/faultSearch';
import type { SearchState } from '@marvet/core/plan/fault/nextTest';
import { Undo2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Sheet } from '../../parts/states.tsx';

interface FaultTestsProps {
  search: FaultSearch;
  state: SearchState;
  onChange: (search: FaultSearch) => void;
}

/** The next test of a search with its two answers, and those that were made. */
export function FaultTests({ search, state, onChange }: FaultTestsProps) {
  const answer = (heard: boolean) => {
    if (state.next) onChange({ ...search, tests: [...search.tests, { replacedIds: state.next.map((suspect) => suspect.id), heard }] });
  };
  const nameOf = (id: string) => search.suspects.find((suspect) => suspect.id === id)?.name ?? 'a suspect that is gone';
  return (
    <Sheet
      title="Tests"
      aside={
        search.tests.length > 0 && (
          <Button size="sm" variant="outline" onClick={() => onChange({ ...search, tests: search.tests.slice(0, -1) })}>
            <Undo2 size={14} aria-hidden /> Take the last answer back
          </Button>
        )
      }
    >
      {search.tests.length > 0 && (
        <ol className="fault-tests">
          {search.tests.map((test, index) => (
            <li key={`${index} ${test.replacedIds.join()}`}>
              Without {test.replacedIds.map(nameOf).join(', ')}: <b>{test.heard ? 'still heard' : 'gone'}</b>
            </li>
          ))}
        </ol>
      )}
      <div role="status">
        {state.guilty && (
          <p className="fault-found mb-0">
            It is <b>{state.guilty.name}</b>. Put everything else back, replace only this, and listen once more before anything is bought or thrown away.
          </p>
        )}
        {state.contradiction && (
          <p className="mb-0">
            <span className="alarm">No single link fits these answers.</span> Either a fault that comes and goes was not waited for, or two links are at fault, or a replacement has
            it too. Take the last answer back and try it longer.
          </p>
        )}
        {state.next && (
          <>
            <p className="mb-1 small soft">
              Test {search.tests.length + 1}; {state.testsLeft === 1 ? 'it is the last that is needed' : `${state.testsLeft} are needed at most, this one included`}.
            </p>
            <p className="mb-2">Replace these, leave all else as it is, and do what brought the fault{state.tries > 1 && `, ${state.tries} times`}:</p>
            <ul className="fault-next">
              {state.next.map((suspect) => (
                <li key={suspect.id}>
                  <b>{suspect.name}</b>
                  {suspect.instead && <span className="soft"> with {suspect.instead}</span>}
                </li>
              ))}
            </ul>
            <div className="row-line">
              <Button variant="primary" onClick={() => answer(true)}>
                The fault is still heard
              </Button>
              <Button variant="primary" onClick={() => answer(false)}>
                It is gone
              </Button>
            </div>
          </>
        )}
        {!state.next && !state.guilty && !state.contradiction && <p className="soft mb-0">Name two suspects or more.</p>}
      </div>
    </Sheet>
  );
}
