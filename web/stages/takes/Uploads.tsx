import { fromEvent } from 'file-selector';
import { Upload as UploadIcon } from 'lucide-react';
import { useRef, useState, useSyncExternalStore } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { Progress } from '../../parts/Progress.tsx';
import { ACCEPTED, soundFiles } from './soundFiles.ts';
import { isOpen, uploadQueueOf, worthTelling } from './uploadQueue.ts';

/** So many files are told one by one, and as many lines are shown. */
const [ALL_TOLD, MOST_LINES] = [6, 12];

/** Takes any number of files, sends two at a time, and says what became of each. */
export function Uploads({ trialId }: { trialId: string }) {
  const queue = uploadQueueOf(trialId);
  const uploads = useSyncExternalStore(queue.subscribe, queue.all);
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const [leftOut, setLeftOut] = useState(0);
  /** One file is always tried; of many, as a folder holds them, those with sound. */
  const take = (files: File[]) => {
    const found = files.length > 1 ? soundFiles(files) : { sound: files, leftOut: 0 };
    setLeftOut(found.leftOut);
    queue.add(found.sound);
  };
  const open = uploads.filter(isOpen);
  const done = uploads.filter((each) => each.state === 'done').length;
  const unplaced = uploads.filter((each) => each.unplaced).length;
  const told = worthTelling(uploads, ALL_TOLD);
  return (
    <section
      className={`drop ${over ? 'over' : ''}`}
      aria-label="Bring files in"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void fromEvent(event.nativeEvent).then((found) => take(found.flatMap((each) => (each instanceof File ? [each] : []))));
      }}
    >
      <input
        ref={input}
        type="file"
        multiple
        accept={ACCEPTED}
        className="visually-hidden"
        tabIndex={-1}
        aria-label="Sound files"
        onChange={(event) => {
          if (event.target.files) queue.add(event.target.files);
          // Else the same file could not be chosen again after it failed.
          event.target.value = '';
        }}
      />
      <input
        ref={folder}
        type="file"
        multiple
        className="visually-hidden"
        tabIndex={-1}
        aria-label="A folder with sound"
        {...{ webkitdirectory: '' }}
        onChange={(event) => {
          take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <div className="row-line justify-content-center">
        <UploadIcon size={18} aria-hidden /> Drop files or folders: WAV, FLAC, AIFF, MP3, AAC, Ogg, or the sound of a camera's MP4 or MOV. Or
        <Button size="sm" variant="outline" onClick={() => input.current?.click()}>
          Choose files
        </Button>
        <Button size="sm" variant="outline" onClick={() => folder.current?.click()}>
          Choose a folder
        </Button>
        {open.length > 1 && (
          <Button size="sm" variant="outline" onClick={() => open.forEach((each) => queue.stop(each.id))}>
            Stop all {open.length}
          </Button>
        )}
      </div>
      {leftOut > 0 && (
        <div className="small soft mt-2" role="status">
          {leftOut} {leftOut === 1 ? 'file holds' : 'files hold'} no sound by {leftOut === 1 ? 'its ending' : 'their endings'} and {leftOut === 1 ? 'was' : 'were'} left out. Choose{' '}
          {leftOut === 1 ? 'it' : 'one'} by itself to try it all the same.
        </div>
      )}
      {uploads.length > 0 && (
        <div className="mt-3 text-start" aria-live="polite">
          <div className="row-line small soft mb-1">
            <span>
              {done} of {uploads.length} are here
              {unplaced > 0 && (
                <>
                  , {unplaced} without a take: <Link to="?view=places">see where {unplaced === 1 ? 'it belongs' : 'they belong'}</Link>
                </>
              )}
            </span>
            {open.length === 0 && (
              <Button size="sm" variant="plain" onClick={() => queue.clear()}>
                Clear the list
              </Button>
            )}
          </div>
          {told.slice(0, MOST_LINES).map((each) => (
            <div key={each.id} className="upload-row">
              <span className="text-truncate">{each.name}</span>
              <Progress share={each.share} label={`${each.name}, sent`} />
              <span className={`small ${each.state === 'failed' ? 'alarm' : ''}`}>
                {each.said || { waiting: 'waits', running: each.share < 1 ? `${Math.round(each.share * 100)} %` : 'is read', done: 'here', failed: '' }[each.state]}
              </span>
              {isOpen(each) ? (
                <Button size="sm" variant="plain" onClick={() => queue.stop(each.id)}>
                  Stop
                </Button>
              ) : (
                <span />
              )}
            </div>
          ))}
          {told.length > MOST_LINES && <div className="small soft">and {told.length - MOST_LINES} more</div>}
        </div>
      )}
    </section>
  );
}
