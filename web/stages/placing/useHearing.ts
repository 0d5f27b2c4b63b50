import type { FrameDraft } from '@marvet/core/domain/frame';
import type { Acoustics } from '@marvet/core/domain/station';
import type { HeardBoom } from '@marvet/core/place/hearFrame';
import { useCallback, useEffect, useRef, useState } from 'react';
import ferrier from '../../../core/simulate/voices/ferrier-neutral.wav?url';
import netmaker from '../../../core/simulate/voices/netmaker-neutral.wav?url';
import type { HearReply, HearRequest } from '../../workers/hearMessages.ts';

/** Dry words that ship with Marvet. */
export const VOICES = [
  { name: 'a low voice', url: ferrier },
  { name: 'a high voice', url: netmaker },
] as const;

/** How far the rendering of a frame is. */
export type Hearing = { kind: 'none' } | { kind: 'rendering'; share: number } | { kind: 'ready'; heard: HeardBoom[]; of: string } | { kind: 'failed'; message: string };

/** What a rendering was made from; once that has changed it is no longer what the frame sounds like. */
export const renderedFrom = (frame: Pick<FrameDraft, 'talkers' | 'booms'>, place: Acoustics, voice: number): string => JSON.stringify([frame.talkers, frame.booms, place, voice]);

/** Renders what the booms of a frame hear, in a worker of its own, when it is asked for. */
export function useHearing() {
  const [hearing, setHearing] = useState<Hearing>({ kind: 'none' });
  const worker = useRef<Worker | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setHearing({ kind: 'none' });
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);
  const render = useCallback((frame: FrameDraft, place: Acoustics, voice: number) => {
    worker.current?.terminate();
    const own = new Worker(new URL('../../workers/hear.worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    setHearing({ kind: 'rendering', share: 0 });
    const of = renderedFrom(frame, place, voice);
    own.onmessage = ({ data }: MessageEvent<HearReply>) => {
      if (data.kind === 'progress') setHearing({ kind: 'rendering', share: data.share });
      else if (data.kind === 'done') setHearing({ kind: 'ready', heard: data.heard, of });
      else setHearing(data);
      if (data.kind !== 'progress') own.terminate();
    };
    own.onerror = (event) => setHearing({ kind: 'failed', message: event.message || 'It could not be rendered' });
    const request: HearRequest = {
      frame: { talkers: frame.talkers, booms: frame.booms },
      place,
      voiceUrl: new URL((VOICES[voice] ?? VOICES[0]).url, window.location.href).href,
      seed: frame.name,
    };
    own.postMessage(request);
  }, []);
  return { hearing, render, stop };
}
