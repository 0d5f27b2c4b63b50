/** Why a file could not be read; the code is part of the contract of the command line and the API. */
export type WavErrorCode = 'not-wav' | 'unsupported-format' | 'truncated' | 'empty';

export class WavError extends Error {
  readonly code: WavErrorCode;
  constructor(code: WavErrorCode, message: string) {
    super(message);
    this.name = 'WavError';
    this.code = code;
  }
}

/** What the header of a file says of its audio. */
export interface WavFormat {
  container: 'RIFF' | 'RF64' | 'BW64';
  encoding: 'pcm' | 'float';
  bitDepth: number;
  sampleRateHz: number;
  channels: number;
  frames: number;
  durationS: number;
  /** Start of the file after midnight, from bext; null when the file does not say. */
  timeReferenceS: number | null;
  description: string | null;
  scene: string | null;
  take: string | null;
  tape: string | null;
  /** A name per channel; null where the file gives none. */
  trackNames: (string | null)[];
}

/** An opened file: its format and where its samples lie. */
export interface WavLayout {
  format: WavFormat;
  dataOffset: number;
  bytesPerFrame: number;
  /** Speaker positions of WAVE_FORMAT_EXTENSIBLE; 0 when the header does not say. */
  channelMask: number;
  /** What was odd about the file, in sentences. */
  warnings: string[];
}

export const LOWEST_RATE_HZ = 8000;
export const HIGHEST_RATE_HZ = 192_000;
export const MOST_CHANNELS = 32;
