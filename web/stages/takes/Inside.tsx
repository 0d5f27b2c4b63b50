import type { RecordingDetail } from '@marvet/core/contract/recordings';
import { slateLabel } from '@marvet/core/domain/take';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { placed, useTakesById, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { useRecordingQuery, useTakesQuery } from '../../data/work.ts';
import { PickTape } from '../../parts/PickTape.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { BackupUse } from './BackupUse.tsx';
import { CutMoment } from './CutMoment.tsx';
import { Measured } from './Measured.tsx';
import { NotWrittenDown } from './NotWrittenDown.tsx';
import { StereoSides } from './StereoSides.tsx';

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
            {take && setup && recording.conditionOpen && <NotWrittenDown take={take} setup={setup} takes={takes.data!} />}
            <Looked key={recording.id} recording={recording} />
            <Remarks recording={recording} />
          </>
        );
      }}
    </Loaded>
  );
}

/** What was measured; of a stereo recording one channel at a time. */
function Looked({ recording }: { recording: RecordingDetail }) {
  const [side, setSide] = useState<0 | 1>(0);
  if (!recording.report || !recording.series) return null;
  const shown = side === 1 && recording.second ? { ...recording, ...recording.second } : recording;
  return (
    <>
      {recording.second && <StereoSides recording={recording} side={side} onSide={setSide} />}
      <BackupUse recording={recording} />
      <Measured recording={shown} />
    </>
  );
}

/** The file, and what was said of it while it was measured. */
function Remarks({ recording }: { recording: RecordingDetail }) {
  const { file, channels, trackName, startS } = recording;
  return (
    <Sheet title="The file">
      <dl className="facts small">
        <dt>Name</dt>
        <dd className="text-break">
          {file.name} <Link to={`/trials/${file.trialId}/takes/files/${file.id}`}>Its passages</Link>
        </dd>
        <dt>Channel</dt>
        <dd>
          {channels.map((channel) => channel + 1).join(' and ')} {trackName}
        </dd>
        {startS !== null && (
          <>
            <dt>Begins</dt>
            <dd>
              <CutMoment recording={recording} />
            </dd>
          </>
        )}
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
