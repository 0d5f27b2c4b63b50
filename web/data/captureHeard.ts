import type { CaptureHeard } from '@marvet/core/contract/captures';

type Listener = (told: CaptureHeard) => void;
const listeners = new Set<Listener>();

/** Listens to what the server hears in takes that are being recorded; the recorder is no view and outlives them. */
export function onCaptureHeard(listener: Listener): void {
  listeners.add(listener);
}

export function tellCaptureHeard(told: CaptureHeard): void {
  for (const listener of listeners) listener(told);
}
