import type { HeardSetup } from '@marvet/core/place/hearSetups';
import { useCallback, useEffect, useRef, useState } from 'react';
import ferrierNeutral from '../../../core/simulate/voices/ferrier-neutral.wav?url';
import ferrierPlosives from '../../../core/simulate/voices/ferrier-plosives.wav?url';
import ferrierSibilants from '../../../core/simulate/voices/ferrier-sibilants.wav?url';
import netmakerNeutral from '../../../core/simulate/voices/netmaker-neutral.wav?url';
import netmakerPlosives from '../../../core/simulate/voices/netmaker-plosives.wav?url';
import netmakerSibilants from '../../../core/simulate/voices/netmaker-sibilants.wav?url';
import type { HearReply, HearRequest } from '../../workers/hearMessages.ts';

/** Dry words that ship with Marvet. */
export const VOICES = [
  { name: 'a low voice', url: ferrierNeutral },
  { name: 'a high voice', url: netmakerNeutral },
  { name: 'a low voice, full of P and B', url: ferrierPlosives },
  { name: 'a high voice, full of P and B', url: netmakerPlosives },
  { name: 'a low voice, full of S', url: ferrierSibilants },
  { name: 'a high voice, full of S', url: netmakerSibilants },
] as const;

/** Who speaks: words that ship with Marvet, by their place in the list, or a close recording of the user's own. */
export type Speaker = number | { name: string; samples: Float64Array; rateHz: number };

/** What is to be heard. */
export type ToHear = Pick<HearRequest, 'setups' | 'talkers' | 'place' | 'seed'>;

/** How far the rendering is. */
export type Hearing = { kind: 'none' } | { kind: 'rendering'; share: number } | { kind: 'ready'; heard: HeardSetup[]; of: string } | { kind: 'failed'; message: string };

/** What a rendering was made from; once that has changed it is no longer what the setups sound like. */
export const renderedFrom = ({ setups, talkers, place }: ToHear, speaker: Speaker): string =>
  JSON.stringify([setups, talkers, place, typeof speaker === 'number' ? speaker : [speaker.name, speaker.samples.length]]);

/** Renders what microphones hear, in a worker of its own, when it is asked for. */
export function useHearing() {
  const [hearing, setHearing] = useState<Hearing>({ kind: 'none' });
  const worker = useRef<Worker | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setHearing({ kind: 'none' });
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);
  const render = useCallback((asked: ToHear, speaker: Speaker) => {
    worker.current?.terminate();
    const own = new Worker(new URL('../../workers/hear.worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    setHearing({ kind: 'rendering', share: 0 });
    const of = renderedFrom(asked, speaker);
    own.onmessage = ({ data }: MessageEvent<HearReply>) => {
      if (data.kind === 'progress') setHearing({ kind: 'rendering', share: data.share });
      else if (data.kind === 'done') setHearing({ kind: 'ready', heard: data.heard, of });
      else setHearing(data);
      if (data.kind !== 'progress') own.terminate();
    };
    own.onerror = (event) => setHearing({ kind: 'failed', message: event.message || 'It could not be rendered' });
    const voice: HearRequest['voice'] =
      typeof speaker === 'number' ? { url: new URL((VOICES[speaker] ?? VOICES[0]).url, window.location.href).href } : { samples: speaker.samples, rateHz: speaker.rateHz };
    const request: HearRequest = { ...asked, voice };
    own.postMessage(request);
  }, []);
  return { hearing, render, stop };
}
