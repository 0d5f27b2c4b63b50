import type { FileFormat } from '../domain/fileFormat.ts';

/** Ten seconds of one channel whose file says nothing of itself. */
export const PLAIN_FORMAT: FileFormat = {
  container: 'RIFF',
  codec: 'PCM',
  lossy: false,
  remarks: [],
  encoding: 'pcm',
  bitDepth: 24,
  sampleRateHz: 48_000,
  channels: 1,
  frames: 480_000,
  durationS: 10,
  timeReferenceS: null,
  startsAt: null,
  originator: null,
  description: null,
  scene: null,
  take: null,
  tape: null,
  trackNames: [null],
  markers: [],
  stereoFrom: [],
};
