import Button from 'react-bootstrap/Button';
import { useCollectMutation, useHealthQuery, useStorageQuery } from '../../data/storage.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** What was wrong with the data folder when Marvet started. */
export function Troubles() {
  const { data } = useHealthQuery();
  if (!data || data.troubles.length === 0) return null;
  return (
    <div className="trouble" role="alert">
      <b>Something is wrong with the data folder.</b> {data.troubles.join(' ')}
    </div>
  );
}

/** Everything that Marvet keeps on this computer, as one file. */
export function CopyOfAll() {
  return (
    <p className="small soft">
      <Button size="sm" variant="outline" onClick={() => window.location.assign('/api/storage/copy.zip')}>
        Take a copy of everything
      </Button>{' '}
      All trials, the library and all sound in one file. Unpacked it is a data folder: start Marvet with MARVET_DATA set to it.
    </p>
  );
}

const sizeText = (bytes: number) => (bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${Math.max(0.1, bytes / 1e6).toFixed(1)} MB`);

/** Bytes of audio and photographs that nothing refers to any more, neither a trial nor a bin. */
export function Storage() {
  const { data } = useStorageQuery();
  const [collect, { isLoading }] = useCollectMutation();
  const tell = useNotice();
  const told = useTold();
  if (!data || data.count === 0) return null;
  return (
    <p className="small soft">
      {data.count} {data.count === 1 ? 'file' : 'files'} on the disk, {sizeText(data.bytes)}, belong to no trial and no bin.{' '}
      <Button
        size="sm"
        variant="outline"
        disabled={isLoading}
        onClick={() => void told(collect()).then(({ data: gone }) => gone && tell(`${gone.count} files, ${sizeText(gone.bytes)}, are gone`))}
      >
        Remove them for good
      </Button>
    </p>
  );
}
