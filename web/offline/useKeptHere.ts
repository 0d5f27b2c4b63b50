import { useEffect, useState } from 'react';
import { type KeepAnswer, type KeepRequest, keptAddresses } from './keptAddresses.ts';

/** Whether Field of a trial opens on this device without the laptop: not known yet, kept, or why it is not. */
export type KeptHere = { state: 'asking' } | { state: 'kept' } | { state: 'not'; why: string };

const asked = new Map<string, Promise<KeptHere>>();

/** Takes the program onto the device. A browser that does not trust the connection refuses. */
export async function keepProgram(): Promise<ServiceWorkerRegistration | null> {
  if (!('serviceWorker' in navigator)) return null;
  return navigator.serviceWorker.register('/serviceWorker.js');
}

/** Has all that Field of a trial needs kept on this device, and says whether it is. */
export function useKeptHere(trialId: string): KeptHere {
  const [state, setState] = useState<KeptHere>({ state: 'asking' });
  useEffect(() => {
    let left = false;
    const tell = (told: KeptHere) => !left && setState(told);
    // Asked once a page: what is fetched later is kept as it comes.
    const asking = asked.get(trialId) ?? keptHere(trialId);
    asked.set(trialId, asking);
    asking.then(
      (told) => {
        if (told.state !== 'kept') asked.delete(trialId);
        tell(told);
      },
      (error: unknown) => {
        asked.delete(trialId);
        tell({ state: 'not', why: (error as Error).message });
      },
    );
    return () => {
      left = true;
    };
  }, [trialId]);
  return state;
}

async function keptHere(trialId: string): Promise<KeptHere> {
  if (!('serviceWorker' in navigator)) return { state: 'not', why: 'This browser keeps no pages.' };
  try {
    await keepProgram();
  } catch {
    return { state: 'not', why: 'The browser does not trust the connection yet.' };
  }
  const { active } = await navigator.serviceWorker.ready;
  // Lines that wait here must not be cleared away when the device runs short of room.
  await navigator.storage?.persist?.();
  const keep = keptAddresses(trialId);
  const kept = await new Promise<number>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = ({ data }) => resolve((data as KeepAnswer).kept);
    active?.postMessage({ keep } satisfies KeepRequest, [port2]);
  });
  return kept === keep.length ? { state: 'kept' } : { state: 'not', why: `${keep.length - kept} of ${keep.length} parts could not be fetched.` };
}
