/** A clip by its channels: one, or two. */
export type SwitcherClip = readonly Float32Array[];

/** What the page tells the audio thread. Frames are samples of the clips, which all have one rate. */
export type SwitcherCommand =
  | { kind: 'load'; clips: SwitcherClip[] }
  | { kind: 'hear'; clip: number }
  | { kind: 'play'; playing: boolean }
  | { kind: 'loop'; startFrame: number; endFrame: number }
  | { kind: 'seek'; frame: number };

/** What the audio thread tells the page, some twenty times a second. */
export interface SwitcherReport {
  frame: number;
  heard: number;
  playing: boolean;
}
