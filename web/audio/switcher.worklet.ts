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
  private clips: SwitcherClip[] = [];
  private weights: Float32Array = new Float32Array(0);
  private heard = 0;
  private position = 0;
  private playing = false;
  private loopStart = 0;
  private loopEnd = 0;
  /** Fades in and out at start, stop and the seam of the loop, so that nothing clicks. */
  private gate = 0;
  private sinceReport = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<SwitcherCommand>) => this.obey(data);
  }

  private obey(command: SwitcherCommand): void {
    switch (command.kind) {
      case 'load':
        this.clips = command.clips;
        this.weights = new Float32Array(command.clips.length);
        this.weights[0] = 1;
        this.heard = 0;
        this.position = 0;
        this.loopStart = 0;
        this.loopEnd = command.clips[0]?.[0]?.length ?? 0;
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
        if (this.position < this.loopStart || this.position >= this.loopEnd) this.position = this.loopStart;
        break;
      case 'seek':
        this.position = Math.max(this.loopStart, Math.min(this.loopEnd - 1, command.frame));
        break;
    }
    this.report();
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0] ?? [];
    if (!left) return true;
    const step = 1 / (FADE_S * sampleRate);
    const fade = Math.max(1, Math.round(FADE_S * sampleRate));
    for (let frame = 0; frame < left.length; frame++) {
      let sum = 0;
      let other = 0;
      for (let clip = 0; clip < this.clips.length; clip++) {
        const wanted = clip === this.heard ? 1 : 0;
        const weight = this.weights[clip] as number;
        const next = wanted > weight ? Math.min(wanted, weight + step) : Math.max(wanted, weight - step);
        this.weights[clip] = next;
        if (next === 0) continue;
        const [one, two = one] = this.clips[clip] as SwitcherClip;
        sum += next * (one?.[this.position] ?? 0);
        other += next * (two?.[this.position] ?? 0);
      }
      const seam = Math.min(1, (this.position - this.loopStart) / fade, (this.loopEnd - 1 - this.position) / fade);
      this.gate = this.playing ? Math.min(1, this.gate + step) : Math.max(0, this.gate - step);
      left[frame] = sum * this.gate * seam;
      if (right) right[frame] = other * this.gate * seam;
      if (this.gate > 0 && ++this.position >= this.loopEnd) this.position = this.loopStart;
    }
    this.sinceReport += left.length;
    if (this.sinceReport >= REPORT_EVERY) this.report();
    return true;
  }

  private report(): void {
    this.sinceReport = 0;
    this.port.postMessage({ frame: this.position, heard: this.heard, playing: this.playing } satisfies SwitcherReport);
  }
}

registerProcessor('switcher', Switcher);
