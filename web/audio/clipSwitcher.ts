import { type Ear, earCheck } from './earCheck.ts';
import workletUrl from './switcher.worklet.ts?worker&url';
import type { SwitcherClip, SwitcherCommand, SwitcherReport } from './switcherMessages.ts';

const RATE_HZ = 48_000;
/** Level at which listening starts: -20 dB. */
export const START_GAIN = 0.1;

/**
 * Plays equally long clips at one shared position and switches between them within 5 ms. All clips run
 * all the time on the audio thread; switching only moves which one is heard.
 */
export class ClipSwitcher {
  private readonly context = new AudioContext({ sampleRate: RATE_HZ, latencyHint: 'interactive' });
  private readonly volume = this.context.createGain();
  private readonly leaving = new AbortController();
  private node: AudioWorkletNode | null = null;
  lengthS = 0;

  /** Fetches and decodes the clips, each from an address of its own. @throws Error when one cannot be fetched */
  async load(urls: readonly string[], onReport: (report: SwitcherReport) => void, onProgress: (share: number) => void): Promise<void> {
    let done = 0;
    const decoded = await Promise.all(
      urls.map(async (url) => {
        const channels = await this.fetched(url);
        onProgress(++done / urls.length);
        return channels.slice(0, 2);
      }),
    );
    await this.start(decoded, onReport);
  }

  /** Fetches clips that come in one file, one after the other in its channels. @throws Error when it cannot be fetched */
  async loadTogether(url: string, count: number, onReport: (report: SwitcherReport) => void, onProgress: (share: number) => void): Promise<void> {
    const channels = await this.fetched(url);
    onProgress(1);
    const each = channels.length / count;
    await this.start(
      Array.from({ length: count }, (_, clip) => channels.slice(clip * each, (clip + 1) * each)),
      onReport,
    );
  }

  private async fetched(url: string): Promise<Float32Array<ArrayBuffer>[]> {
    const response = await fetch(url, { signal: this.leaving.signal });
    if (!response.ok) throw new Error('A clip cannot be fetched. Reload the page.');
    const buffer = await this.context.decodeAudioData(await response.arrayBuffer());
    return Array.from({ length: buffer.numberOfChannels }, (_, channel) => buffer.getChannelData(channel).slice());
  }

  /** Starts with clips that are at hand as samples; they are handed over. */
  async start(clips: readonly SwitcherClip[], onReport: (report: SwitcherReport) => void): Promise<void> {
    await this.context.audioWorklet.addModule(workletUrl);
    this.node = new AudioWorkletNode(this.context, 'switcher', { numberOfInputs: 0, outputChannelCount: [2] });
    this.node.port.onmessage = ({ data }: MessageEvent<SwitcherReport>) => onReport(data);
    this.volume.gain.value = START_GAIN;
    this.node.connect(this.volume).connect(this.context.destination);
    this.lengthS = (clips[0]?.[0]?.length ?? 0) / RATE_HZ;
    this.tell(
      { kind: 'load', clips: [...clips] },
      clips.flatMap((clip) => clip.map((channel) => channel.buffer as ArrayBuffer)),
    );
  }

  private tell(command: SwitcherCommand, transfer: Transferable[] = []): void {
    this.node?.port.postMessage(command, transfer);
  }

  async play(playing: boolean): Promise<void> {
    if (playing) await this.context.resume();
    this.tell({ kind: 'play', playing });
  }

  hear(clip: number): void {
    this.tell({ kind: 'hear', clip });
  }

  loop(startS: number, endS: number): void {
    this.tell({ kind: 'loop', startFrame: Math.round(startS * RATE_HZ), endFrame: Math.round(endS * RATE_HZ) });
  }

  seek(seconds: number): void {
    this.tell({ kind: 'seek', frame: Math.round(seconds * RATE_HZ) });
  }

  /** Noise on one ear, or both, at the level that clips are heard at. */
  async check(ear: Ear, levelLufs: number): Promise<void> {
    await this.context.resume();
    const channels = earCheck(ear, levelLufs, RATE_HZ, Math.random);
    const buffer = this.context.createBuffer(2, channels[0].length, RATE_HZ);
    channels.forEach((samples, channel) => buffer.copyToChannel(samples, channel));
    const source = this.context.createBufferSource();
    source.buffer = buffer;
    source.connect(this.volume);
    source.start();
  }

  /** Gain as an amplitude factor; moved over 50 ms. */
  setGain(gain: number): void {
    this.volume.gain.setTargetAtTime(gain, this.context.currentTime, 0.02);
  }

  close(): void {
    this.leaving.abort();
    if (this.node) this.node.port.onmessage = null;
    this.node?.disconnect();
    if (this.context.state !== 'closed') void this.context.close();
  }
}

/** Seconds of a frame. */
export const secondsOf = (frame: number) => frame / RATE_HZ;
