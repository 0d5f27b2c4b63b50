import { slateLabel } from '@marvet/core/domain/take';
import Button from 'react-bootstrap/Button';
import { KeptNumber, KeptText } from '../../parts/fields.tsx';
import { LINE_WORDS } from './lineWords.ts';
import type { FieldState } from './useFieldLog.ts';

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
              {LINE_WORDS[line.kind]}: {why}
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
