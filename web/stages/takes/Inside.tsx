import type { RecordingDetail } from '@marvet/core/domain/recording';
import { slateLabel } from '@marvet/core/domain/take';
import { MEASURE_IDS, MEASURES, measureText, measureValue } from '@marvet/core/measure/catalogue';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useRecordingQuery, useTakesQuery } from '../../app/api/work.ts';
import { useTrialId, useTrialWords } from '../../app/trialData.ts';
import { PickTape } from '../../parts/PickTape.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { LevelLanes } from './LevelLanes.tsx';
import { SafePlayer } from './SafePlayer.tsx';
import { SpectrumChart } from './SpectrumChart.tsx';

const GROUPS: [string, string][] = [
  ['levels', 'Levels'],
  ['loudness', 'Loudness'],
  ['activity', 'Speech'],
  ['noise', 'Noise'],
  ['spectrum', 'Spectrum'],
];

/** Inside one recording: level over time with words and pauses, spectrum, every figure. */
export default function Inside() {
  const trialId = useTrialId();
  const { recordingId = '' } = useParams();
  const query = useRecordingQuery({ trialId, id: recordingId });
  const takes = useTakesQuery(trialId);
  const words = useTrialWords(trialId);
  const [atS, setAtS] = useState(0);
  const [seekTo, setSeekTo] = useState<{ atS: number } | null>(null);
  return (
    <Loaded of={[query, takes]}>
      {() => {
        const recording = query.data!;
        const take = takes.data!.find((each) => each.id === recording.takeId);
        const chain = words.chains.get(recording.candidateId ?? '');
        return (
          <>
            <div className="row-line">
              <Link to="..">All takes</Link>
              <h2 className="fs-5">{take ? `Take ${slateLabel(take)}` : recording.file.name}</h2>
              {chain && (take ? <PickTape take={take} chain={chain} width={56} /> : <TapeMark tape={chain.tape} name={chain.name} width={56} />)}
              <span>{chain?.name}</span>
              <span className="soft">{take && words.condition(take)}</span>
            </div>
            {recording.report && recording.series ? (
              <>
                <Sheet title="Level over time, dBFS" aside={<span className="small soft">RMS of 50 ms; click to go there</span>}>
                  <LevelLanes series={recording.series} report={recording.report} atS={atS} onSeek={(seconds) => setSeekTo({ atS: seconds })} />
                  <SafePlayer src={`/api/trials/${trialId}/recordings/${recording.id}/audio`} label="This recording" onTime={setAtS} seekTo={seekTo} />
                </Sheet>
                <div className="columns">
                  <Sheet title="Third-octave spectrum, dBFS">
                    <SpectrumChart spectrum={recording.report.spectrum} />
                  </Sheet>
                  <Remarks recording={recording} />
                </div>
                <Figures recording={recording} />
              </>
            ) : (
              <Remarks recording={recording} />
            )}
          </>
        );
      }}
    </Loaded>
  );
}

function Remarks({ recording: { file, channelIndex, trackName } }: { recording: RecordingDetail }) {
  return (
    <Sheet title="The file">
      <dl className="facts small">
        <dt>Name</dt>
        <dd className="text-break">{file.name}</dd>
        <dt>Channel</dt>
        <dd>
          {channelIndex + 1} {trackName}
        </dd>
        <dt>Format</dt>
        <dd>
          {file.format &&
            `${file.format.bitDepth} bit ${file.format.encoding === 'pcm' ? 'PCM' : 'float'}, ${file.format.sampleRateHz / 1000} kHz, ${file.format.durationS.toFixed(1)} s`}
        </dd>
        <dt>Scene, take</dt>
        <dd>{[file.format?.scene, file.format?.take].filter(Boolean).join(', ') || 'not in the file'}</dd>
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

function Figures({ recording: { report } }: { recording: RecordingDetail }) {
  return (
    <Sheet title="All figures">
      <div className="figures">
        {GROUPS.map(([group, title]) => (
          <div key={group}>
            <h3 className="soft small">{title}</h3>
            <table className="plain">
              <tbody>
                {MEASURE_IDS.filter((id) => id.startsWith(`${group}.`)).map((id) => (
                  <tr key={id}>
                    <td>{MEASURES[id].label}</td>
                    <td className="num">{report && measureText(id, measureValue(report, id))}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        ))}
      </div>
    </Sheet>
  );
}
