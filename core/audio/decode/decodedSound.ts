/** What is known of a sound before and while it is decoded. */
export interface SoundFormat {
  container: 'FLAC' | 'AIFF' | 'MP3' | 'AAC' | 'Ogg' | 'MP4' | 'MOV';
  codec: string;
  /** Whether the codec left something out; what is lossless comes back to its last bit. */
  lossy: boolean;
  sampleRateHz: number;
  /** All channels of all tracks, one track after the other. */
  channels: number;
  /** Bits of a sample where it was stored as whole numbers; null where it was not. */
  bitDepth: number | null;
  /** What a sample of full scale was multiplied with to be a whole number again. */
  scale: number;
  /** A name a channel, where the file gives one. */
  trackNames: (string | null)[];
  /** Channels with which a stereo track begins: of what two microphones wrote side by side nothing says that. */
  stereoFrom: number[];
  /** When it began by its own clock, as in a WAVE file; null where the file does not say. */
  startsAt: string | null;
  /** What was odd, in sentences. */
  warnings: string[];
}

/** A sound as it is decoded: what it is, then its samples in blocks, one array a channel, full scale at 1. */
export interface DecodedSound {
  format: SoundFormat;
  blocks: AsyncIterable<Float32Array[]>;
}

/** Why a file with sound could not be decoded. */
export class DecodeError extends Error {}
