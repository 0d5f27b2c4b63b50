import type { EventKind } from '../domain/measureId.ts';

/** What a mixer calls each kind. */
export const EVENT_NAMES: Record<EventKind, string> = {
  dropout: 'break-up',
  click: 'click',
  clip: 'clipping',
  plosive: 'plosive',
  wind: 'wind',
  handling: 'handling',
  rustle: 'rustle',
  disturbance: 'disturbance',
};
