import { useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { api } from '../../data/api.ts';
import { useAppDispatch } from '../../data/store.ts';
import { bringTrial } from '../../data/upload.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Progress } from '../../parts/Progress.tsx';

/** What is going on with an archive: how much of it went, or why it was not brought in. */
type Bringing = { name: string; share: number } | { why: string } | null;

/** Brings a whole trial in that was taken out here or on another computer. */
export function BringIn() {
  const input = useRef<HTMLInputElement>(null);
  const stop = useRef<AbortController | null>(null);
  const [state, setState] = useState<Bringing>(null);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const tell = useNotice();
  const bring = async (file: File) => {
    stop.current = new AbortController();
    setState({ name: file.name, share: 0 });
    try {
      const { trialId, name, files, missing, itemsKept } = await bringTrial(file, (share) => setState({ name: file.name, share }), stop.current.signal);
      setState(null);
      dispatch(api.util.invalidateTags(['Trials', 'Items', 'Storage']));
      const told = [
        `${name} is here with ${files} ${files === 1 ? 'file' : 'files'}`,
        missing > 0 && `the bytes of ${missing} were missing where it was taken out`,
        itemsKept > 0 && `${itemsKept} ${itemsKept === 1 ? 'item was' : 'items were'} here already and stayed as they are`,
      ];
      tell(told.filter(Boolean).join('; '));
      navigate(`/trials/${trialId}`);
    } catch (error) {
      setState({ why: (error as Error).message });
    }
  };
  return (
    <div className="text-end">
      <input
        ref={input}
        type="file"
        accept=".zip"
        className="visually-hidden"
        tabIndex={-1}
        aria-label="Archive of a trial"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void bring(file);
          event.target.value = '';
        }}
      />
      {state && 'share' in state ? (
        <span className="row-line" role="status">
          <Progress share={state.share} label={`${state.name}, sent`} widthPx={140} />
          <span className="small">{state.share < 1 ? `${Math.round(state.share * 100)} %` : 'is read and checked'}</span>
          <Button size="sm" variant="plain" onClick={() => stop.current?.abort()}>
            Stop
          </Button>
        </span>
      ) : (
        <Button size="sm" variant="outline" onClick={() => input.current?.click()}>
          Bring a trial in
        </Button>
      )}
      {state && 'why' in state && (
        <div className="trouble mt-2 text-start" role="alert">
          {state.why}
        </div>
      )}
    </div>
  );
}
