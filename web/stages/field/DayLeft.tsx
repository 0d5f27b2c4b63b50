import type { Plan } from '@marvet/core/domain/plan';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { leftOfDay } from '@marvet/core/plan/day/leftOfDay';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { durationText } from '../../parts/durationText.ts';
import { useNotice } from '../../parts/notices.tsx';
import type { FieldState } from './useFieldLog.ts';

interface DayLeftProps {
  takes: readonly Take[];
  current: Take;
  plan: Plan;
  lengthS: (scriptId: string) => number;
  log: FieldState;
}

const LOOK_EVERY_MS = 30_000;

/** How long the rest takes, how late that is, what to drop first, and a quicker order of what is left: one press each, and undone. */
export function DayLeft({ takes, current, plan, lengthS, log }: DayLeftProps) {
  const [nowMs, setNowMs] = useState(() => Date.now());
  const tell = useNotice();
  useEffect(() => {
    const timer = setInterval(() => setNowMs(Date.now()), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  const left = useMemo(() => leftOfDay(takes, current, plan, lengthS, nowMs), [takes, current, plan, lengthS, nowMs]);
  if (left.count === 0) return null;
  const { dropFirst, quicker, lateS } = left;
  const skip = (take: Take) => {
    void log.write({ kind: 'skip', takeId: take.id });
    tell(`${slateLabel(take)} is skipped`, () => void log.write({ kind: 'unskip', takeId: take.id }));
  };
  const reorder = (takeIds: string[]) => {
    const before = takes.filter(({ id }) => takeIds.includes(id)).map(({ id }) => id);
    const order = (ids: string[]) => void log.write({ kind: 'order', takeId: ids[0] as string, takeIds: ids });
    order(takeIds);
    tell('What is left is in another order', () => order(before));
  };
  return (
    <div className="day-left">
      <p className={`small mb-0 ${lateS !== null && lateS > 0 ? 'alarm' : 'soft'}`} role="status">
        {left.count} left, {durationText(left.leftS)} by the plan
        {lateS !== null && (lateS > 0 ? `: ${durationText(lateS)} over the end of the day` : `: ${durationText(-lateS)} to spare`)}
      </p>
      <span className="row-line">
        {quicker && (
          <Button size="sm" variant="outline" onClick={() => reorder(quicker.takeIds)}>
            Quicker order, saves {durationText(quicker.savesS)}
          </Button>
        )}
        {dropFirst && (lateS === null || lateS > 0) && (
          <Button size="sm" variant="outline" onClick={() => skip(dropFirst.take)} title="What costs the conclusions least for each minute that it saves">
            Late? Drop {slateLabel(dropFirst.take)} first: {lossWords(dropFirst.loss)}
          </Button>
        )}
      </span>
    </div>
  );
}

function lossWords({ lostForGood, lossComparisons }: { lostForGood: number; lossComparisons: number }): string {
  if (lostForGood > 0) return `${lostForGood} ${lostForGood === 1 ? 'comparison' : 'comparisons'} lost`;
  return lossComparisons === 0 ? 'nothing is lost' : 'others give what it gives';
}
