import type { Places } from '@marvet/core/contract/places';
import Button from 'react-bootstrap/Button';
import { useJoinFilesMutation, useUnjoinFilesMutation } from '../../../data/places.ts';
import { useNotice } from '../../../parts/notices.tsx';
import { useTold } from '../../../parts/useTold.ts';

interface SplitFilesProps {
  trialId: string;
  split: Places['split'];
  /** Names of files by their identity. */
  names: ReadonlyMap<string, string>;
}

const TOLD_BY = {
  'time reference': 'by their time references',
  'start times': 'by when they began, their lengths and the numbers of their names',
} as const;

/** Recordings that a recorder split into several files, to be joined to one before they are put in place. */
export function SplitFiles({ trialId, split, names }: SplitFilesProps) {
  const [join, { isLoading, originalArgs }] = useJoinFilesMutation();
  const [unjoin] = useUnjoinFilesMutation();
  const told = useTold();
  const tell = useNotice();
  const joinOne = async (fileIds: string[]) => {
    const { data } = await told(join({ trialId, fileIds }));
    if (data) tell(`${data.name} is one recording; its parts are in the bin as they came`, () => void told(unjoin({ trialId, fileId: data.fileId, fileIds })));
  };
  return (
    <section aria-label="Recordings in several files" className="stack">
      {split.map(({ fileIds, by }) => (
        <div key={fileIds[0]} className="row-line apart">
          <span>
            <b>{names.get(fileIds[0] as string)}</b> goes on in{' '}
            {fileIds
              .slice(1)
              .map((id) => names.get(id))
              .join(', then in ')}
            : one recording that its recorder split, {TOLD_BY[by]}.
            <span className="small soft d-block">
              Joined, a take that lies over the seam is whole. Samples stay as they are; the disk holds them twice until the bin is emptied.
            </span>
          </span>
          <Button className="text-nowrap" disabled={isLoading} onClick={() => void joinOne(fileIds)}>
            {isLoading && originalArgs?.fileIds === fileIds ? 'Joining' : `Join the ${fileIds.length}`}
          </Button>
        </div>
      ))}
    </section>
  );
}
