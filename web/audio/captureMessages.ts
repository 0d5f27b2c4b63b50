/** What the audio thread is told when it is made: how many channels each input has, and how long a piece is. */
export interface CaptureSetting {
  channelsOfInputs: number[];
  pieceFrames: number;
}

/** What the page tells the audio thread. */
export type CaptureCommand = { kind: 'record'; channels: number[] } | { kind: 'stop' };

/** What the audio thread tells the page. */
export type CaptureReport =
  /** Some twenty times a second: the highest sample and the mean square of each channel since the last time, and whether its converter was at its end. */
  | { kind: 'levels'; peaks: Float32Array; meanSquares: Float32Array; clipped: Uint8Array }
  /** Samples of the channels that are recorded; all pieces but the last are equally long. */
  | { kind: 'piece'; channels: Float32Array[]; last: boolean }
  /** The browser left out sound, for which silence was put in. */
  | { kind: 'gap'; frames: number };
