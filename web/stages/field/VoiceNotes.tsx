import type { Take } from '@marvet/core/domain/take';
import { LONGEST_VOICE_NOTE_S } from '@marvet/core/domain/voiceNote';
import { Mic, RotateCcw, Square, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useBinVoiceNoteMutation, useRestoreVoiceNoteMutation, useVoiceNotesQuery } from '../../data/devices.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';
import { RollingTime } from './RollingTime.tsx';
import { useUnsentNotes } from './useUnsentNotes.ts';

/** Notes that are spoken into the phone: for who has no hand free to type. */
export function VoiceNotes({ take }: { take: Take }) {
  const { trialId, id: takeId } = take;
  const { data: notes } = useVoiceNotesQuery(trialId);
  const [bin] = useBinVoiceNoteMutation();
  const [restore] = useRestoreVoiceNoteMutation();
  const unsent = useUnsentNotes(trialId);
  const [sinceMs, setSinceMs] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const recorder = useRef<MediaRecorder | null>(null);
  const told = useTold();
  const tell = useNotice();
  const stop = () => ended(recorder.current);
  // A view that is left stops the note and keeps what was said.
  useEffect(() => () => ended(recorder.current), []);
  const start = async () => {
    setTrouble(null);
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      const made = new MediaRecorder(stream);
      const parts: Blob[] = [];
      const startedMs = Date.now();
      const limit = setTimeout(stop, LONGEST_VOICE_NOTE_S * 1000);
      made.ondataavailable = ({ data }) => parts.push(data);
      made.onstop = () => {
        clearTimeout(limit);
        for (const track of stream.getTracks()) track.stop();
        setSinceMs(null);
        // Kept in this browser first: it is sent from there, now or when the server is back.
        void unsent.keep({ id: crypto.randomUUID(), trialId, takeId, lengthS: (Date.now() - startedMs) / 1000, sound: new Blob(parts, { type: made.mimeType }) });
      };
      recorder.current = made;
      made.start();
      setSinceMs(startedMs);
    } catch (failure) {
      setTrouble(
        (failure as Error).name === 'NotAllowedError'
          ? 'The browser may not listen. Allow the microphone for this page, then try again.'
          : `The microphone cannot be opened: ${(failure as Error).message}`,
      );
    }
  };
  const own = (notes ?? []).filter((note) => note.takeId === takeId);
  return (
    <div className="voice-notes">
      <Button variant={sinceMs === null ? 'outline' : 'dark-ink'} onClick={() => (sinceMs === null ? void start() : stop())}>
        {sinceMs === null ? <Mic size={17} aria-hidden /> : <Square size={15} aria-hidden />} {sinceMs === null ? 'Speak a note' : 'End the note'}{' '}
        {sinceMs !== null && <RollingTime sinceMs={sinceMs} />}
      </Button>
      {own.map((note) =>
        note.binnedAtMs === null ? (
          <span key={note.id} className="row-line">
            <audio controls preload="none" src={`/api/trials/${trialId}/voice-notes/${note.id}`} aria-label={`Voice note of ${Math.round(note.lengthS)} s`} />
            <Button
              size="sm"
              variant="plain"
              className="icon"
              aria-label={`Delete the voice note of ${Math.round(note.lengthS)} s`}
              onClick={() =>
                void told(bin({ trialId, id: note.id })).then(
                  ({ error: failed }) => !failed && tell('The voice note is in the bin', () => void told(restore({ trialId, id: note.id }))),
                )
              }
            >
              <X size={15} aria-hidden />
            </Button>
          </span>
        ) : (
          <Button key={note.id} size="sm" variant="plain" onClick={() => void told(restore({ trialId, id: note.id }))}>
            <RotateCcw size={14} aria-hidden /> Voice note of {Math.round(note.lengthS)} s, in the bin
          </Button>
        ),
      )}
      {unsent.waiting > 0 && (
        <span className="small" role="status">
          {unsent.waiting} {unsent.waiting === 1 ? 'note is' : 'notes are'} kept in this browser until the server is back.
        </span>
      )}
      {unsent.refused && (
        <div className="caution" role="status">
          {unsent.refused}
        </div>
      )}
      {trouble && (
        <div className="caution" role="status">
          {trouble}
        </div>
      )}
    </div>
  );
}

function ended(recorder: MediaRecorder | null): void {
  if (recorder?.state === 'recording') recorder.stop();
}
