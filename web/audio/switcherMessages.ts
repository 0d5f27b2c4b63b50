/** A clip by its channels: one, or two. */
export type SwitcherClip = readonly Float32Array[];

/** What the page tells the audio thread. Frames are samples of the clips, which all have one rate and one length. */
export type SwitcherCommand =
  /** Clips that come in pieces of `pieceFrames`; the last may be shorter. */
  | { kind: 'begin'; clips: number; frames: number; pieceFrames: number }
  /** One piece of all clips. */
  | { kind: 'piece'; piece: number; clips: readonly SwitcherClip[] }
  | { kind: 'drop'; piece: number }
  | { kind: 'hear'; clip: number }
  | { kind: 'play'; playing: boolean }
  | { kind: 'loop'; startFrame: number; endFrame: number }
  | { kind: 'seek'; frame: number };

/** What the audio thread tells the page, some twenty times a second. */
export interface SwitcherReport {
  frame: number;
  heard: number;
  playing: boolean;
  /** It would play, and the piece where it stands is not there yet. */
  waiting: boolean;
}
