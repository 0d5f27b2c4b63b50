import { slateLabel, type Take } from '@marvet/core/domain/take';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useRef } from 'react';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Sheet } from '../../parts/states.tsx';

const MARK: Record<Take['status'], string> = { planned: 'none', rolling: 'some', done: 'all', skipped: 'none' };
/** What a row is high at least; one whose words take two lines is measured. */
const ROW_PX = 45;

/** All slates in their order; one is chosen by a tap. Only those in and near sight are drawn. */
export function Slates({ takes, current, onChoose, children }: { takes: Take[]; current: Take; onChoose: (take: Take) => void; children?: ReactNode }) {
  const words = useTrialWords(useTrialId());
  const list = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: takes.length,
    getScrollElement: () => list.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => takes[index]?.id ?? index,
    overscan: 30,
    initialRect: { width: 400, height: 600 },
  });
  const at = takes.findIndex((take) => take.id === current.id);
  useEffect(() => {
    // The list alone is scrolled: the page would move away from the runner.
    if (at >= 0) rows.scrollToIndex(at, { align: 'center' });
  }, [at, rows]);
  const done = takes.filter((take) => take.status === 'done').length;
  const drawn = rows.getVirtualItems();
  return (
    <Sheet
      title="Slates"
      aside={
        <span className="mono small">
          {done}/{takes.filter((take) => take.status !== 'skipped').length}
        </span>
      }
    >
      {children}
      <div className="slate-list" ref={list}>
        <div style={{ flex: 'none', height: drawn[0]?.start ?? 0 }} />
        {drawn.map(({ index, key }) => {
          const take = takes[index] as Take;
          return (
            <button
              key={key}
              type="button"
              ref={rows.measureElement}
              data-index={index}
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
          );
        })}
        <div style={{ flex: 'none', height: rows.getTotalSize() - (drawn.at(-1)?.end ?? 0) }} />
      </div>
    </Sheet>
  );
}
