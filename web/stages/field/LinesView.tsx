import type { WrittenLine } from '@marvet/core/contract/answers';
import type { LogLine } from '@marvet/core/domain/logLine';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { useWrittenLinesQuery } from '../../data/work.ts';
import { durationText } from '../../parts/durationText.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { LogState } from './LogState.tsx';
import { LINE_WORDS, lineSays } from './lineWords.ts';
import { RefusedLines } from './RefusedLines.tsx';
import type { FieldState } from './useFieldLog.ts';

/** Rows that are drawn. */
const MOST_ROWS = 200;

/** The log as it was written, newest first: when, at which take, what, and by whom. */
export function LinesView({ trialId, log }: { trialId: string; log: FieldState }) {
  const written = useWrittenLinesQuery(trialId);
  const takes = new Map(log.takes.map((take) => [take.id, take]));
  return (
    <Sheet title="Lines of the log" aside={<span className="small soft">newest first</span>}>
      <LogState log={log} trialId={trialId} />
      <RefusedLines log={log} />
      {log.pending.length > 0 && (
        <ul className="line-list" aria-label="Lines that wait here">
          {log.pending.map((line) => (
            <Line key={line.id} line={line} take={takes.get(line.takeId)} by="waits here" />
          ))}
        </ul>
      )}
      <Loaded of={[written]}>
        {() =>
          written.data!.length === 0 ? (
            <Empty>Nothing was logged yet. Whatever is pressed in the runner stands here with its moment and who pressed it.</Empty>
          ) : (
            <ul className="line-list" aria-label="Lines">
              {written.data!.slice(0, MOST_ROWS).map((each) => (
                <Line key={each.line.id} line={each.line} take={takes.get(each.line.takeId)} by={byWhom(each)} />
              ))}
              {written.data!.length > MOST_ROWS && <li className="small soft">older ones are left out here; the takes hold them all</li>}
            </ul>
          )
        }
      </Loaded>
    </Sheet>
  );
}

function byWhom({ writer, clockBehindMs }: WrittenLine): string {
  const who = writer ?? 'laptop';
  return clockBehindMs === null ? who : `${who}, its clock was ${durationText(Math.abs(clockBehindMs) / 1000)} ${clockBehindMs > 0 ? 'behind' : 'ahead'}`;
}

function Line({ line, take, by }: { line: LogLine; take: Take | undefined; by: string }) {
  const says = lineSays(line);
  return (
    <li>
      <span className="mono">{new Date(line.atMs).toLocaleTimeString('en-GB')}</span>
      <span className="mono">{take ? slateLabel(take) : '?'}</span>
      <span>
        {LINE_WORDS[line.kind]}
        {says && `: ${says}`}
      </span>
      <span className="soft">{by}</span>
    </li>
  );
}
