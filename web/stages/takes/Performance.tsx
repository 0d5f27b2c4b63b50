import type { PerformanceSource, RecordingDetail } from '@marvet/core/contract/recordings';
import { recordingLengthS } from '@marvet/core/domain/recording';
import type { Span } from '@marvet/core/measure/report.types';
import Button from 'react-bootstrap/Button';
import { useMarkPerformanceMutation } from '../../data/work.ts';
import { useTold } from '../../parts/useTold.ts';

const WHY: Record<PerformanceSource, string> = {
  hand: 'marked by hand',
  log: 'from the start in the field log on',
  slate: 'from the first words after the spoken slate on',
  words: 'from the first word on',
  whole: 'all of it: there are no words',
};

export const SHORTEST_PERFORMANCE_S = 0.4;

/** Which part of a recording is judged, why, and setting it by hand. */
export function Performance({ recording, shown }: { recording: RecordingDetail; shown: Span }) {
  const [mark, { isLoading }] = useMarkPerformanceMutation();
  const told = useTold();
  const { judged } = recording;
  if (!judged) return null;
  const send = (performance: Span | null) => void told(mark({ trialId: recording.trialId, id: recording.id, performance }));
  return (
    <section className="row-line mt-2" aria-label="The part that is judged">
      <span>
        Judged: <b className="mono">{judged.span[0].toFixed(2)}</b> to <b className="mono">{judged.span[1].toFixed(2)} s</b>, {WHY[judged.by]}.
      </span>
      <Button
        size="sm"
        variant="outline"
        disabled={isLoading || shown[1] - shown[0] < SHORTEST_PERFORMANCE_S}
        onClick={() => send([Math.max(0, shown[0]), Math.min(recordingLengthS(recording, recording.file.format.durationS), shown[1])])}
      >
        Judge what is shown
      </Button>
      {recording.performance && (
        <Button size="sm" variant="plain" onClick={() => send(null)}>
          Take the mark away
        </Button>
      )}
      <span className="small soft">Move its edges on the picture. Listening is cut and matched to it.</span>
    </section>
  );
}
