import { useSyncExternalStore } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { isOpen, uploadQueueOf, worthTelling } from '../../data/uploadQueue.ts';
import { FileDrop, READ_FORMATS } from '../../parts/FileDrop.tsx';
import { Progress } from '../../parts/Progress.tsx';

/** So many files are told one by one, and as many lines are shown. */
const [ALL_TOLD, MOST_LINES] = [6, 12];

interface UploadsProps {
  trialId: string;
  /** What lies in a take by now. */
  placedIds: ReadonlySet<string>;
  /** Where those that found no take are seen to; null where none is left. */
  unplacedView: 'begin' | 'places' | null;
}

/** Takes any number of files, sends two at a time, and says what became of each. */
export function Uploads({ trialId, placedIds, unplacedView }: UploadsProps) {
  const queue = uploadQueueOf(trialId);
  const uploads = useSyncExternalStore(queue.subscribe, queue.all);
  const open = uploads.filter(isOpen);
  const done = uploads.filter((each) => each.state === 'done').length;
  const unplaced = uploads.filter(({ unplacedId }) => unplacedId !== null && !placedIds.has(unplacedId)).length;
  const told = worthTelling(uploads, ALL_TOLD);
  return (
    <FileDrop label="Bring files in" onFiles={(files) => queue.add(files)} said={`Drop files or folders: ${READ_FORMATS}. Or`}>
      {open.length > 1 && (
        <Button size="sm" variant="outline" className="mt-2" onClick={() => open.forEach((each) => queue.stop(each.id))}>
          Stop all {open.length}
        </Button>
      )}
      {uploads.length > 0 && (
        <div className="mt-3 text-start" aria-live="polite">
          <div className="row-line small soft mb-1">
            <span>
              {done} of {uploads.length} are here
              {unplaced > 0 && unplacedView && (
                <>
                  , {unplaced} without a take: <Link to={`?view=${unplacedView}`}>see where {unplaced === 1 ? 'it belongs' : 'they belong'}</Link>
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
                {(each.unplacedId !== null && placedIds.has(each.unplacedId) ? 'in its take' : each.said) ||
                  { waiting: 'waits', running: each.share < 1 ? `${Math.round(each.share * 100)} %` : 'is read', done: 'here', failed: '' }[each.state]}
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
    </FileDrop>
  );
}
