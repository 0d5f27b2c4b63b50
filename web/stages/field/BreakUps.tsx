import { COUNTED_FLAGS, type Take } from '@marvet/core/domain/take';
import { X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { TrialWords } from '../../data/trialData.ts';
import { SetupPicks } from './SetupPicks.tsx';
import type { FieldState } from './useFieldLog.ts';

/** Break-ups of a take, each with its moment, and whose it was where several run: one press on a tape says so. */
export function BreakUps({ take, words, log }: { take: Take; words: TrialWords; log: FieldState }) {
  const marks = take.flags.filter((mark) => COUNTED_FLAGS.includes(mark.flag));
  if (marks.length === 0) return null;
  const toggle = (markId: string, setupIds: readonly string[], setupId: string) =>
    void log.write({ kind: 'mark', takeId: take.id, markId, setupIds: setupIds.includes(setupId) ? setupIds.filter((id) => id !== setupId) : [...setupIds, setupId] });
  return (
    <ol className="break-ups" aria-label="Break-ups">
      {[...marks].reverse().map((mark, index) => {
        const number = marks.length - index;
        return (
          <li key={mark.id}>
            <b className="mono">{number}</b>
            <span className="small soft">{take.startedAtMs === null ? '' : `at ${Math.max(0, (mark.atMs - take.startedAtMs) / 1000).toFixed(0)} s`}</span>
            <SetupPicks take={take} words={words} picked={mark.setupIds} says={`Break-up ${number} was`} onToggle={(setupId) => toggle(mark.id, mark.setupIds, setupId)} />
            {take.setups.length > 1 && mark.setupIds.length === 0 && <span className="small soft">whose?</span>}
            <Button
              size="sm"
              variant="plain"
              className="icon ms-auto"
              aria-label={`Take break-up ${number} back`}
              onClick={() => void log.write({ kind: 'unflag', takeId: take.id, flag: mark.flag, markId: mark.id })}
            >
              <X size={14} aria-hidden />
            </Button>
          </li>
        );
      })}
    </ol>
  );
}
