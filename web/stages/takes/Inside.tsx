import type { RecordingDetail } from '@marvet/core/contract/recordings';
import { slateLabel } from '@marvet/core/domain/take';
import { type AudioEvent, METHOD_VERSION } from '@marvet/core/measure/report.types';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { placed, useTakesById, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { useMarkPerformanceMutation, useMeasureAgainMutation, useRecordingQuery, useTakesQuery } from '../../data/work.ts';
import { PickTape } from '../../parts/PickTape.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { useTold } from '../../parts/useTold.ts';
import { EventList } from './EventList.tsx';
import { FiguresTable } from './FiguresTable.tsx';
import { LevelLanes } from './LevelLanes.tsx';
import { Performance } from './Performance.tsx';
import { RoomTone } from './RoomTone.tsx';
import { SafePlayer, type Seek } from './SafePlayer.tsx';
import { SpectrumChart } from './SpectrumChart.tsx';
import { useTimeWindow, WindowButtons } from './TimeWindow.tsx';

/** Inside one recording: level over time with words and pauses, spectrum, every figure. */
export default function Inside() {
  const trialId = useTrialId();
  const { recordingId = '' } = useParams();
  const query = useRecordingQuery({ trialId, id: recordingId });
  const takes = useTakesQuery(trialId);
  const takesById = useTakesById(trialId);
  const words = useTrialWords(trialId);
  return (
    <Loaded of={[query, takes]}>
      {() => {
        const recording = query.data!;
        const { take, setup, chain } = placed(recording, takesById, words.chains);
        return (
          <>
            <div className="row-line">
              <Link to={`/trials/${trialId}/takes`}>All takes</Link>
              <h2 className="fs-5">{take ? `Take ${slateLabel(take)}` : recording.file.name}</h2>
              {chain && take && setup && <PickTape take={take} setup={setup} chain={chain} levels={words.setup(setup)} width={56} />}
              <span>{chain?.name}</span>
              <span className="soft">{take && words.condition(take)}</span>
            </div>
            {recording.report && recording.series ? <Measured recording={recording} /> : <Remarks recording={recording} />}
          </>
        );
      }}
    </Loaded>
  );
}

function Measured({ recording }: { recording: RecordingDetail }) {
  const { report, series, file, trialId } = recording;
  const lengthS = Math.max((series?.rmsDbfs.length ?? 0) * (series?.stepS ?? 0), 0.1);
  const time = useTimeWindow(lengthS);
  const [atS, setAtS] = useState(0);
  const [seekTo, setSeekTo] = useState<Seek | null>(null);
  const [again] = useMeasureAgainMutation();
  const [mark] = useMarkPerformanceMutation();
  const told = useTold();
  if (!report || !series) return null;
  const hear = (event: AudioEvent) => setSeekTo({ atS: Math.max(0, event.startS - 1), untilS: event.endS + 1 });
  return (
    <>
      {file.methodVersion !== METHOD_VERSION && (
        <p className="caution p-2 mb-0" role="status">
          These figures are of an older method.{' '}
          <Button size="sm" variant="outline" onClick={() => void told(again({ trialId, fileId: recording.fileId }))}>
            Measure again
          </Button>
        </p>
      )}
      <Sheet title="Level over time, dBFS" aside={<WindowButtons time={time} atS={atS} />}>
        <LevelLanes
          label="Level over time"
          series={series}
          report={report}
          window={time.window}
          atS={atS}
          performance={recording.judged?.span ?? null}
          onPerformance={(span) => told(mark({ trialId, id: recording.id, performance: span }))}
          onSeek={(seconds) => setSeekTo({ atS: seconds })}
          onEvent={hear}
        />
        <SafePlayer src={`/api/trials/${trialId}/recordings/${recording.id}/audio`} label="This recording" onTime={setAtS} seekTo={seekTo} />
        <Performance recording={recording} shown={time.window} />
        <RoomTone recording={recording} shown={time.window} />
      </Sheet>
      <div className="columns">
        <Sheet title="Third-octave spectrum, dBFS">
          <SpectrumChart spectrum={report.spectrum} />
        </Sheet>
        <EventList report={report} lengthS={file.format.durationS} onEvent={hear} />
      </div>
      <FiguresTable report={report} lengthS={file.format.durationS} />
      <Remarks recording={recording} />
    </>
  );
}

function Remarks({ recording: { file, channels, trackName } }: { recording: RecordingDetail }) {
  return (
    <Sheet title="The file">
      <dl className="facts small">
        <dt>Name</dt>
        <dd className="text-break">{file.name}</dd>
        <dt>Channel</dt>
        <dd>
          {channels.map((channel) => channel + 1).join(' and ')} {trackName}
        </dd>
        <dt>Format</dt>
        <dd>{`${file.format.bitDepth} bit ${file.format.encoding === 'pcm' ? 'PCM' : 'float'}, ${file.format.sampleRateHz / 1000} kHz, ${file.format.durationS.toFixed(1)} s`}</dd>
        <dt>Scene, take</dt>
        <dd>{[file.format.scene, file.format.take].filter(Boolean).join(', ') || 'not in the file'}</dd>
        <dt>SHA-256</dt>
        <dd className="mono">{file.sha256.slice(0, 16)}</dd>
      </dl>
      {file.failure && <p className="alarm mt-2 mb-0">{file.failure}</p>}
      {file.state !== 'done' && !file.failure && <p className="mt-2 mb-0">It is being measured.</p>}
      {file.warnings.length > 0 && (
        <ul className="small mt-2 mb-0 ps-3">
          {file.warnings.map((warning) => (
            <li key={warning}>{warning}</li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}
