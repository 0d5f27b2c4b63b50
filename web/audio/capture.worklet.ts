/** Runs on the audio thread: takes the channels of all inputs as they come, tells their levels, and hands them on in pieces. */
import type { CaptureCommand, CaptureReport, CaptureSetting } from './captureMessages.ts';

declare const currentFrame: number;
declare const sampleRate: number;
declare abstract class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new (options: { processorOptions: CaptureSetting }) => AudioWorkletProcessor): void;

const LEVELS_EVERY_S = 0.05;
/** A converter at its end gives the same highest sample again and again. */
const FULL_SCALE = 0.9999;
const CLIPPED_RUN = 3;

class Capture extends AudioWorkletProcessor {
  private readonly channelsOfInputs: number[];
  private readonly pieceFrames: number;
  private readonly peaks: Float32Array;
  private readonly squares: Float64Array;
  private readonly runs: Uint8Array;
  private readonly clipped: Uint8Array;
  private measured = 0;
  private expected = -1;
  /** Channels that are recorded, in the order in which they are handed on; none while nothing is recorded. */
  private recorded: number[] = [];
  private piece: Float32Array[] = [];
  private filled = 0;

  constructor({ processorOptions }: { processorOptions: CaptureSetting }) {
    super();
    this.channelsOfInputs = processorOptions.channelsOfInputs;
    this.pieceFrames = processorOptions.pieceFrames;
    const count = this.channelsOfInputs.reduce((sum, channels) => sum + channels, 0);
    this.peaks = new Float32Array(count);
    this.squares = new Float64Array(count);
    this.runs = new Uint8Array(count);
    this.clipped = new Uint8Array(count);
    this.port.onmessage = ({ data }: MessageEvent<CaptureCommand>) => this.obey(data);
  }

  private obey(command: CaptureCommand): void {
    if (this.recorded.length > 0) this.handOn(true);
    this.recorded = command.kind === 'record' ? command.channels : [];
    this.startPiece();
  }

  private startPiece(): void {
    this.piece = this.recorded.map(() => new Float32Array(this.pieceFrames));
    this.filled = 0;
  }

  private handOn(last: boolean): void {
    const channels = this.filled === this.pieceFrames ? this.piece : this.piece.map((samples) => samples.slice(0, this.filled));
    this.tell(
      { kind: 'piece', channels, last },
      channels.map(({ buffer }) => buffer as ArrayBuffer),
    );
    this.startPiece();
  }

  private tell(report: CaptureReport, transfer: Transferable[] = []): void {
    this.port.postMessage(report, transfer);
  }

  process(inputs: Float32Array[][]): boolean {
    const frames = inputs.find((input) => input[0])?.[0]?.length ?? 128;
    if (this.expected >= 0 && currentFrame > this.expected) this.fillGap(currentFrame - this.expected);
    this.expected = currentFrame + frames;
    let channel = 0;
    this.channelsOfInputs.forEach((count, index) => {
      for (let own = 0; own < count; own++, channel++) this.take(channel, inputs[index]?.[own], frames);
    });
    this.advance(frames);
    this.measured += frames;
    if (this.measured >= LEVELS_EVERY_S * sampleRate) this.tellLevels();
    return true;
  }

  /** One channel of a block; an input that is silent gives none. */
  private take(channel: number, samples: Float32Array | undefined, frames: number): void {
    const place = this.recorded.indexOf(channel);
    if (!samples) return;
    let peak = this.peaks[channel] as number;
    let squares = this.squares[channel] as number;
    let run = this.runs[channel] as number;
    for (let frame = 0; frame < frames; frame++) {
      const size = Math.abs(samples[frame] as number);
      if (size > peak) peak = size;
      squares += size * size;
      run = size >= FULL_SCALE ? Math.min(CLIPPED_RUN, run + 1) : 0;
      if (run === CLIPPED_RUN) this.clipped[channel] = 1;
    }
    this.peaks[channel] = peak;
    this.squares[channel] = squares;
    this.runs[channel] = run;
    if (place >= 0) (this.piece[place] as Float32Array).set(samples.subarray(0, Math.min(frames, this.pieceFrames - this.filled)), this.filled);
    // What does not fit begins the next piece.
    const rest = this.filled + frames - this.pieceFrames;
    if (place >= 0 && rest > 0) this.kept.set(place, samples.slice(frames - rest));
  }

  private readonly kept = new Map<number, Float32Array>();

  private advance(frames: number): void {
    if (this.recorded.length === 0) return;
    const rest = this.filled + frames - this.pieceFrames;
    this.filled = Math.min(this.pieceFrames, this.filled + frames);
    if (rest < 0) return;
    this.handOn(false);
    for (const [place, samples] of this.kept) (this.piece[place] as Float32Array).set(samples);
    this.kept.clear();
    this.filled = rest;
  }

  /** Sound that the browser left out: silence keeps the time right, and it is said. */
  private fillGap(frames: number): void {
    if (this.recorded.length === 0) return;
    for (let left = frames; left > 0; ) {
      const part = Math.min(left, this.pieceFrames - this.filled);
      this.filled += part;
      left -= part;
      if (this.filled === this.pieceFrames) this.handOn(false);
    }
    this.tell({ kind: 'gap', frames });
  }

  private tellLevels(): void {
    const meanSquares = Float32Array.from(this.squares, (sum) => sum / this.measured);
    this.tell({ kind: 'levels', peaks: this.peaks.slice(), meanSquares, clipped: this.clipped.slice() });
    this.peaks.fill(0);
    this.squares.fill(0);
    this.clipped.fill(0);
    this.measured = 0;
  }
}

registerProcessor('capture', Capture);
