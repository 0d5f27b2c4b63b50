import { CLIP_CHANNELS_HEADER, CLIP_FRAMES_HEADER } from '@marvet/core/contract/clipPieces';
import { CLIP_PIECE_FRAMES, CLIP_RATE_HZ } from '@marvet/core/listen/clipForm';
import { pieceChannels } from '@marvet/core/listen/pieceBytes';
import { type Ear, earCheck } from './earCheck.ts';
import { memoryForClips } from './memoryForClips.ts';
import { PieceFeed, type PiecesToFeed, Refused } from './pieceFeed.ts';
import workletUrl from './switcher.worklet.ts?worker&url';
import type { SwitcherClip, SwitcherCommand, SwitcherReport } from './switcherMessages.ts';

/** Level at which listening starts: -20 dB. */
export const START_GAIN = 0.1;
const SAMPLE_BYTES = 4;
const UNFETCHED = 'The clips cannot be fetched. Look whether Marvet runs and the network holds, then reload the page.';

/** Clips that come in pieces from the server: the address of a piece by its number, and how many clips each has. */
export interface ServedClips {
  clips: number;
  addressOf(piece: number): string;
}

/** What the page hears of it. */
export interface Listener {
  onReport(report: SwitcherReport): void;
  /** A piece cannot be had any more. */
  onFailure(message: string): void;
}

/**
 * Plays equally long clips at one shared position and switches between them within 5 ms. All clips run all the time on the audio thread;
 * switching only moves which one is heard. Of long clips only what is heard next is held.
 */
export class ClipSwitcher {
  private readonly context = new AudioContext({ sampleRate: CLIP_RATE_HZ, latencyHint: 'interactive' });
  private readonly volume = this.context.createGain();
  private node: AudioWorkletNode | null = null;
  private feed: PieceFeed | null = null;
  private readonly leaving = new AbortController();
  lengthS = 0;

  /** Fetches the beginning of clips; the rest follows while they are heard. @throws Error when it cannot be fetched */
  async load(served: ServedClips, listener: Listener): Promise<void> {
    const { fetchPiece, frames, first } = await this.firstOf(served);
    await this.begin(served.clips, frames, CLIP_PIECE_FRAMES, listener);
    const pieceBytes = first.reduce((sum, clip) => sum + clip.length * CLIP_PIECE_FRAMES * SAMPLE_BYTES, 0);
    this.feedFrom({ clips: served.clips, frames, pieceFrames: CLIP_PIECE_FRAMES, pieceBytes, fetchPiece }, listener).has(0, first);
    this.feed?.go();
  }

  /** Starts with clips that are at hand as samples; they are handed over. */
  async start(clips: readonly SwitcherClip[], listener: Listener): Promise<void> {
    const frames = clips[0]?.[0]?.length ?? 0;
    await this.begin(clips.length, frames, Math.max(1, frames), listener);
    this.take(0, clips);
  }

  private async firstOf({ clips, addressOf }: ServedClips) {
    const fetched = async (piece: number, signal: AbortSignal) => {
      const response = await fetch(addressOf(piece), { signal });
      // What is wrong with the address stays wrong; a server that is busy or away may come back.
      if (!response.ok) throw new (response.status < 500 ? Refused : Error)(UNFETCHED);
      const each = Number(response.headers.get(CLIP_CHANNELS_HEADER));
      const channels = pieceChannels(await response.arrayBuffer(), clips * each);
      return {
        frames: Number(response.headers.get(CLIP_FRAMES_HEADER)),
        clips: Array.from({ length: clips }, (_, clip): SwitcherClip => channels.slice(clip * each, (clip + 1) * each)),
      };
    };
    const first = await fetched(0, this.leaving.signal).catch((error: unknown) => {
      throw error instanceof Refused ? error : new Error(UNFETCHED, { cause: error });
    });
    return { frames: first.frames, first: first.clips, fetchPiece: async (piece: number, signal: AbortSignal) => (await fetched(piece, signal)).clips };
  }

  private feedFrom(of: PiecesToFeed, { onFailure }: Listener): PieceFeed {
    const deviceGib = (navigator as { deviceMemory?: number }).deviceMemory;
    const fed = {
      take: (piece: number, clips: readonly SwitcherClip[]) => this.take(piece, clips),
      drop: (piece: number) => this.tell({ kind: 'drop', piece }),
      failed: () => onFailure(UNFETCHED),
    };
    this.feed = new PieceFeed(of, fed, memoryForClips(deviceGib));
    return this.feed;
  }

  private async begin(clips: number, frames: number, pieceFrames: number, { onReport }: Listener): Promise<void> {
    await this.context.audioWorklet.addModule(workletUrl);
    this.node = new AudioWorkletNode(this.context, 'switcher', { numberOfInputs: 0, outputChannelCount: [2] });
    this.node.port.onmessage = ({ data }: MessageEvent<SwitcherReport>) => {
      this.feed?.at(data.frame);
      onReport(data);
    };
    this.volume.gain.value = START_GAIN;
    this.node.connect(this.volume).connect(this.context.destination);
    this.lengthS = frames / CLIP_RATE_HZ;
    this.tell({ kind: 'begin', clips, frames, pieceFrames });
  }

  private take(piece: number, clips: readonly SwitcherClip[]): void {
    this.tell(
      { kind: 'piece', piece, clips },
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
    const [startFrame, endFrame] = [Math.round(startS * CLIP_RATE_HZ), Math.round(endS * CLIP_RATE_HZ)];
    this.tell({ kind: 'loop', startFrame, endFrame });
    this.feed?.loop(startFrame, endFrame);
  }

  seek(seconds: number): void {
    this.tell({ kind: 'seek', frame: Math.round(seconds * CLIP_RATE_HZ) });
  }

  /** Noise on one ear, or both, at the level that clips are heard at. */
  async check(ear: Ear, levelLufs: number): Promise<void> {
    await this.context.resume();
    const channels = earCheck(ear, levelLufs, CLIP_RATE_HZ, Math.random);
    const buffer = this.context.createBuffer(2, channels[0].length, CLIP_RATE_HZ);
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
    this.feed?.close();
    if (this.node) this.node.port.onmessage = null;
    this.node?.disconnect();
    if (this.context.state !== 'closed') void this.context.close();
  }
}

/** Seconds of a frame. */
export const secondsOf = (frame: number) => frame / CLIP_RATE_HZ;
