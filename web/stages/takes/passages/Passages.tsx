import { slateLabel } from '@marvet/core/domain/take';
import { Link, useParams } from 'react-router';
import { useFileLevelsQuery } from '../../../data/places.ts';
import { useTrialId } from '../../../data/trialData.ts';
import { useFilesQuery, useRecordingsQuery, useTakesQuery } from '../../../data/work.ts';
import { Empty, Loaded } from '../../../parts/states.tsx';
import { PassageDesk } from './PassageDesk.tsx';

/** Several passages in one file: cut on the picture, at markers or at pauses, each given its take. */
export default function Passages() {
  const trialId = useTrialId();
  const { fileId = '' } = useParams();
  const files = useFilesQuery(trialId);
  const recordings = useRecordingsQuery(trialId);
  const takes = useTakesQuery(trialId);
  const levels = useFileLevelsQuery({ trialId, fileId });
  return (
    <Loaded of={[files, recordings, takes, levels]}>
      {() => {
        const file = files.data!.find(({ id }) => id === fileId);
        const own = recordings.data!.filter((recording) => recording.fileId === fileId);
        if (!file) return <Empty>This file is in the bin.</Empty>;
        const inOrder = [...takes.data!].sort((a, b) => a.slate - b.slate || a.pass - b.pass);
        // Cut anew by another page, it is shown as it is now.
        const cutNow = own.map(({ id, startS, takeId }) => `${id}${startS}${takeId}`).join();
        return (
          <>
            <div className="row-line">
              <Link to={`/trials/${trialId}/takes?view=files`}>All files</Link>
              <h2 className="fs-5 text-break">Passages of {file.name}</h2>
              <span className="soft">
                {file.format.durationS.toFixed(1)} s, {file.format.channels} {file.format.channels === 1 ? 'channel' : 'channels'}
                {file.takeId &&
                  own.every(({ startS }) => startS === null) &&
                  `, all of it take ${slateLabel(inOrder.find(({ id }) => id === file.takeId) ?? { slate: 0, pass: 1 })}`}
              </span>
            </div>
            <PassageDesk key={cutNow} file={file} recordings={own} takes={inOrder} levels={levels.data!} />
          </>
        );
      }}
    </Loaded>
  );
}
