import { Upload as UploadIcon } from 'lucide-react';
import PQueue from 'p-queue';
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
  const queue = useRef(new PQueue({ concurrency: AT_ONCE }));
  const change = (id: number, patch: Partial<UploadState>) => setUploads((all) => all.map((each) => (each.id === id ? { ...each, ...patch } : each)));

  const send = async ({ id, stop }: UploadState, file: File) => {
    if (stop.signal.aborted) return;
    change(id, { state: 'running' });
    try {
      const { file: row, matchedBy, duplicate } = await upload(trialId, file, (share) => change(id, { share }), stop.signal);
      const said = duplicate ? `the same bytes are here already as ${row.name}` : matchedBy ? `matched by ${matchedBy}` : 'to be matched by hand';
      change(id, { state: 'done', share: 1, said });
    } catch (error) {
      change(id, { state: 'failed', said: (error as Error).message });
    }
  };
  const add = (files: Iterable<File>) => {
    const jobs = [...files].map((file) => ({ file, upload: { id: ++lastId, name: file.name, share: 0, state: 'waiting' as const, said: '', stop: new AbortController() } }));
    setUploads((all) => [...all, ...jobs.map((job) => job.upload)]);
    for (const job of jobs) void queue.current.add(() => send(job.upload, job.file));
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
        onChange={(event) => {
          if (event.target.files) add(event.target.files);
          // Else the same file could not be chosen again after it failed.
          event.target.value = '';
        }}
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
