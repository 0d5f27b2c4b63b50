import { Upload as UploadIcon } from 'lucide-react';
import { useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Progress } from '../../parts/Progress.tsx';
import { upload } from './upload.ts';

interface UploadState {
  id: number;
  name: string;
  share: number;
  state: 'waiting' | 'running' | 'done' | 'failed';
  said: string;
  stop: AbortController;
}

let lastId = 0;
const AT_ONCE = 2;

/** Takes any number of files, sends two at a time, and says what became of each. */
export function Uploads({ trialId }: { trialId: string }) {
  const [uploads, setUploads] = useState<UploadState[]>([]);
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const queue = useRef<{ upload: UploadState; file: File }[]>([]);
  const running = useRef(0);
  const change = (id: number, patch: Partial<UploadState>) => setUploads((all) => all.map((each) => (each.id === id ? { ...each, ...patch } : each)));

  const next = () => {
    while (running.current < AT_ONCE) {
      const job = queue.current.shift();
      if (!job) return;
      const { id, stop } = job.upload;
      if (stop.signal.aborted) continue;
      running.current++;
      change(id, { state: 'running' });
      upload(trialId, job.file, (share) => change(id, { share }), stop.signal)
        .then(
          ({ file, duplicate }) =>
            change(id, {
              state: 'done',
              share: 1,
              said: duplicate ? `the same bytes are here already as ${file.name}` : file.matchedBy ? `matched by ${file.matchedBy}` : 'to be matched by hand',
            }),
          (error: Error) => change(id, { state: 'failed', said: error.message }),
        )
        .finally(() => {
          running.current--;
          next();
        });
    }
  };
  const add = (files: Iterable<File>) => {
    const jobs = [...files].map((file) => ({ file, upload: { id: ++lastId, name: file.name, share: 0, state: 'waiting' as const, said: '', stop: new AbortController() } }));
    queue.current.push(...jobs);
    setUploads((all) => [...all, ...jobs.map((job) => job.upload)]);
    next();
  };
  const open = uploads.filter((each) => each.state === 'waiting' || each.state === 'running');
  const done = uploads.filter((each) => each.state === 'done').length;
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
        add(event.dataTransfer.files);
      }}
    >
      <input
        ref={input}
        type="file"
        multiple
        accept=".wav,.WAV,.bwf,audio/wav"
        className="visually-hidden"
        tabIndex={-1}
        aria-label="WAV files"
        onChange={(event) => event.target.files && add(event.target.files)}
      />
      <div className="row-line justify-content-center">
        <UploadIcon size={18} aria-hidden /> Drop WAV files here, or
        <Button size="sm" variant="outline" onClick={() => input.current?.click()}>
          Choose files
        </Button>
        {open.length > 1 && (
          <Button size="sm" variant="outline" onClick={() => open.forEach(cancel)}>
            Stop all {open.length}
          </Button>
        )}
      </div>
      {uploads.length > 0 && (
        <div className="mt-3 text-start" aria-live="polite">
          <div className="small soft mb-1">
            {done} of {uploads.length} are here
          </div>
          {uploads
            .filter((each) => each.state !== 'done' || each.said.startsWith('the same') || each.said.startsWith('to be') || uploads.length <= 6)
            .slice(0, 12)
            .map((each) => (
              <div key={each.id} className="upload-row">
                <span className="text-truncate">{each.name}</span>
                <Progress share={each.share} label={`${each.name}, sent`} />
                <span className={`small ${each.state === 'failed' ? 'alarm' : ''}`}>
                  {each.said || { waiting: 'waits', running: `${Math.round(each.share * 100)} %`, done: 'here', failed: '' }[each.state]}
                </span>
                {each.state === 'waiting' || each.state === 'running' ? (
                  <Button size="sm" variant="plain" onClick={() => cancel(each)}>
                    Stop
                  </Button>
                ) : (
                  <span />
                )}
              </div>
            ))}
        </div>
      )}
    </section>
  );

  function cancel(each: UploadState): void {
    each.stop.abort();
    if (each.state === 'waiting') change(each.id, { state: 'failed', said: 'Stopped' });
  }
}
