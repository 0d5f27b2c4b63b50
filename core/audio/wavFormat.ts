import type { FileFormat } from '../domain/fileFormat.ts';

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

/** An opened file: its format and where its samples lie. */
export interface WavLayout {
  format: FileFormat;
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
