import type { LogLine } from '@marvet/core/domain/logLine';
import { slateLabel } from '@marvet/core/domain/take';
import Button from 'react-bootstrap/Button';
import { KeptNumber, KeptText } from '../../parts/fields.tsx';
import type { FieldState } from './useFieldLog.ts';

const WORDS: Record<LogLine['kind'], string> = {
  start: 'start',
  stop: 'stop',
  flag: 'flag',
  unflag: 'flag taken back',
  mark: 'who broke up',
  incident: 'incident',
  tried: 'incident tried again',
  untold: 'incident taken back',
  note: 'note',
  gain: 'gain',
  meter: 'meter',
  conditions: 'wind and noise',
  switch: 'switched',
  unswitch: 'switched, taken back',
  walk: 'range walk',
  unwalk: 'range walk, taken back',
  positions: 'where the talker was',
  unpositions: 'where the talker was, taken back',
  unstart: 'start taken back',
  order: 'another order',
  redo: 'done again',
  skip: 'skipped',
  unskip: 'taken up again',
};

/** Lines that the server would not take: each can be mended, sent once more, or dropped; all others went on. */
export function RefusedLines({ log }: { log: FieldState }) {
  if (log.refused.length === 0) return null;
  return (
    <section className="trouble" role="alert" aria-label="Lines that were refused">
      <b>
        {log.refused.length} {log.refused.length === 1 ? 'line was' : 'lines were'} refused; all others are on their way.
      </b>
      {log.refused.map(({ line, why }) => {
        const take = log.takes.find((each) => each.id === line.takeId);
        return (
          <div key={line.id} className="row-line mt-2">
            <span className="grow">
              {take ? `Take ${slateLabel(take)}, ` : ''}
              {WORDS[line.kind]}: {why}
            </span>
            {line.kind === 'note' && <KeptText label="Note, mended" hideLabel maxLength={2000} value={line.text} onKeep={(text) => void log.mend({ ...line, text })} />}
            {line.kind === 'gain' && <KeptNumber label="Gain, mended" hideLabel min={-60} max={90} value={line.gainDb} onKeep={(gainDb) => void log.mend({ ...line, gainDb })} />}
            <Button size="sm" variant="outline" onClick={() => void log.mend(line)}>
              Send again
            </Button>
            <Button size="sm" variant="outline" onClick={() => void log.drop(line.id)}>
              Drop it
            </Button>
          </div>
        );
      })}
    </section>
  );
}
