import { type DBSchema, openDB } from 'idb';
import { useCallback, useEffect, useState } from 'react';
import type { ApiTrouble } from '../../data/api.ts';
import { useAddVoiceNoteMutation } from '../../data/devices.ts';

/** A spoken note that the server has not acknowledged yet. */
interface UnsentNote {
  id: string;
  trialId: string;
  takeId: string;
  lengthS: number;
  sound: Blob;
}

interface NotesDatabase extends DBSchema {
  notes: { key: string; value: UnsentNote };
}

const RETRY_MS = 5000;
const database = () => openDB<NotesDatabase>('marvet-voice', 1, { upgrade: (opened) => void opened.createObjectStore('notes', { keyPath: 'id' }) });
/** One send at a time, whichever view asks. */
let sending: Promise<void> = Promise.resolve();

/** Keeps spoken notes in this browser until the server has them; what it refuses for good is told and let go. */
export function useUnsentNotes(trialId: string): { waiting: number; refused: string | null; keep(note: UnsentNote): Promise<void> } {
  const [waiting, setWaiting] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [add] = useAddVoiceNoteMutation();
  const flush = useCallback(() => {
    sending = sending
      .then(async () => {
        const kept = await database();
        for (const note of (await kept.getAll('notes')).filter((each) => each.trialId === trialId)) {
          const { error } = await add(note);
          const { status = 0, message = '' } = (error ?? {}) as Partial<ApiTrouble>;
          // A server that cannot be reached, or is in trouble, is asked again later.
          if (error && (status < 400 || status >= 500 || status === 401 || status === 403)) break;
          if (error) setRefused(`A voice note was refused: ${message}`);
          await kept.delete('notes', note.id);
        }
        setWaiting((await kept.getAll('notes')).filter((each) => each.trialId === trialId).length);
        kept.close();
      })
      .catch((error: unknown) => setRefused(`This browser cannot keep voice notes: ${(error as Error).message}`));
    return sending;
  }, [add, trialId]);
  useEffect(() => {
    void flush();
    const timer = setInterval(() => void flush(), RETRY_MS);
    return () => clearInterval(timer);
  }, [flush]);
  const keep = useCallback(
    async (note: UnsentNote) => {
      try {
        const kept = await database();
        await kept.put('notes', note);
        kept.close();
      } catch (error) {
        setRefused(`The note was not kept: ${(error as Error).message}. Write it down.`);
      }
      await flush();
    },
    [flush],
  );
  return { waiting, refused, keep };
}
