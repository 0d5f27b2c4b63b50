import { slateLabel, type Take } from '@marvet/core/domain/take';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Sheet } from '../../parts/states.tsx';

const MARK: Record<Take['status'], string> = { planned: 'none', rolling: 'some', done: 'all', skipped: 'none' };

/** Scrolls the list, and only the list, to a row; scrollIntoView would move the page away from the runner. */
function intoSight(row: HTMLElement | null): void {
  const list = row?.parentElement;
  if (row && list) list.scrollTop = row.offsetTop - list.clientHeight / 2;
}

/** All slates in their order; one is chosen by a tap. */
export function Slates({ takes, current, onChoose }: { takes: Take[]; current: Take; onChoose: (take: Take) => void }) {
  const words = useTrialWords(useTrialId());
  const done = takes.filter((take) => take.status === 'done').length;
  return (
    <Sheet
      title="Slates"
      aside={
        <span className="mono small">
          {done}/{takes.filter((take) => take.status !== 'skipped').length}
        </span>
      }
    >
      <div className="slate-list">
        {takes.map((take) => (
          <button
            key={take.id}
            type="button"
            ref={take.id === current.id ? intoSight : undefined}
            className={`slate-row ${take.id === current.id ? 'current' : ''} ${take.status}`}
            aria-current={take.id === current.id}
            onClick={() => onChoose(take)}
          >
            <span className={`stop ${MARK[take.status]}`} aria-hidden />
            <b className="mono">{slateLabel(take)}</b>
            <span className="grow text-start">
              {words.condition(take)}
              <span className="visually-hidden">, {take.status}</span>
            </span>
            {take.flags.length > 0 && <span className="small alarm">{[...new Set(take.flags.map((mark) => mark.flag))].join(', ')}</span>}
          </button>
        ))}
      </div>
    </Sheet>
  );
}
