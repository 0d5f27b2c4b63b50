/** Runs on the audio thread: all clips side by side at one position, of which one is heard. */
import type { SwitcherClip, SwitcherCommand, SwitcherReport } from './switcherMessages.ts';

declare const sampleRate: number;
declare abstract class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

const FADE_S = 0.005;
const REPORT_EVERY = 2048;

class Switcher extends AudioWorkletProcessor {
  /** Pieces that are there, by number: one stretch of all clips. */
  private pieces: (readonly SwitcherClip[] | undefined)[] = [];
  private pieceFrames = 1;
  private frames = 0;
  private weights: Float32Array = new Float32Array(0);
  private heard = 0;
  private position = 0;
  private playing = false;
  private loopStart = 0;
  private loopEnd = 0;
  /** Where it goes once what is heard has faded out. */
  private target: number | null = null;
  /** Fades in and out at start, stop and where a piece is waited for, so that nothing clicks. */
  private gate = 0;
  private sinceReport = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<SwitcherCommand>) => this.obey(data);
  }

  private obey(command: SwitcherCommand): void {
    switch (command.kind) {
      case 'begin':
        this.pieces = [];
        this.pieceFrames = command.pieceFrames;
        this.frames = command.frames;
        this.weights = new Float32Array(command.clips);
        this.weights[0] = 1;
        this.heard = 0;
        this.position = 0;
        this.target = null;
        this.loopStart = 0;
        this.loopEnd = command.frames;
        break;
      case 'piece':
        this.pieces[command.piece] = command.clips;
        break;
      case 'drop':
        this.pieces[command.piece] = undefined;
        break;
      case 'hear':
        this.heard = command.clip;
        break;
      case 'play':
        this.playing = command.playing;
        break;
      case 'loop':
        this.loopStart = command.startFrame;
        this.loopEnd = command.endFrame;
        if (this.standsAt() < this.loopStart || this.standsAt() >= this.loopEnd) this.moveTo(this.loopStart);
        break;
      case 'seek':
        this.moveTo(Math.max(this.loopStart, Math.min(this.loopEnd - 1, command.frame)));
        break;
    }
    this.report();
  }

  /** What is heard fades out first, so that nothing clicks. */
  private moveTo(frame: number): void {
    if (this.gate === 0) this.position = frame;
    else this.target = frame;
  }

  private standsAt(): number {
    return this.target ?? this.position;
  }

  private pieceAt(frame: number): readonly SwitcherClip[] | undefined {
    return this.pieces[Math.floor(frame / this.pieceFrames)];
  }

  /** Samples from here on until a piece is missing, as far as a fade needs to know. */
  private untilMissing(): number {
    if (!this.pieceAt(this.position)) return 0;
    const next = (Math.floor(this.position / this.pieceFrames) + 1) * this.pieceFrames;
    return next >= this.loopEnd || this.pieceAt(next) ? Number.POSITIVE_INFINITY : next - this.position;
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0] ?? [];
    if (!left) return true;
    const step = 1 / (FADE_S * sampleRate);
    const fade = Math.max(1, Math.round(FADE_S * sampleRate));
    for (let frame = 0; frame < left.length; frame++) {
      const there = this.untilMissing();
      const open = this.playing && this.target === null && there > fade;
      this.gate = open ? Math.min(1, this.gate + step) : Math.max(0, this.gate - step);
      const clips = this.pieceAt(this.position);
      const inPiece = this.position % this.pieceFrames;
      let sum = 0;
      let other = 0;
      for (let clip = 0; clip < this.weights.length; clip++) {
        const full = clip === this.heard ? 1 : 0;
        const weight = this.weights[clip] as number;
        const next = full > weight ? Math.min(full, weight + step) : Math.max(full, weight - step);
        this.weights[clip] = next;
        if (next === 0 || !clips) continue;
        const [one, two = one] = clips[clip] as SwitcherClip;
        sum += next * (one?.[inPiece] ?? 0);
        other += next * (two?.[inPiece] ?? 0);
      }
      const inLoop = this.position >= this.loopStart && this.position < this.loopEnd;
      const seam = inLoop ? Math.min(1, (this.position - this.loopStart) / fade, (this.loopEnd - 1 - this.position) / fade) : 1;
      left[frame] = sum * this.gate * seam;
      if (right) right[frame] = other * this.gate * seam;
      if (this.gate > 0 && there > 0 && ++this.position === this.loopEnd) this.position = this.loopStart;
      if (this.gate === 0 && this.target !== null) {
        this.position = this.target;
        this.target = null;
      }
    }
    this.sinceReport += left.length;
    if (this.sinceReport >= REPORT_EVERY) this.report();
    return true;
  }

  private report(): void {
    this.sinceReport = 0;
    const waiting = this.playing && this.frames > 0 && this.gate === 0 && this.untilMissing() <= FADE_S * sampleRate;
    this.port.postMessage({ frame: this.standsAt(), heard: this.heard, playing: this.playing, waiting } satisfies SwitcherReport);
  }
}

registerProcessor('switcher', Switcher);
