import { interleaved } from '@marvet/core/audio/wavParts';
import type { CaptureHeard } from '@marvet/core/contract/captures';
import { CAPTURE_FORMAT, type CapturedChannel } from '@marvet/core/domain/capture';
import { newId } from '@marvet/core/domain/identity';
import type { AudioEvent } from '@marvet/core/measure/report.types';
import type { CaptureReport } from '../../../audio/captureMessages.ts';
import { type InputSettings, type OpenedInputs, openInputs } from '../../../audio/inputs.ts';
import { onCaptureHeard } from '../../../data/captureHeard.ts';
import { recordingBegan, recordingEnded } from '../../../data/recordingNow.ts';
import { store as reduxStore } from '../../../data/store.ts';
import { captureServer } from './captureServer.ts';
import { ChannelLevel } from './channelLevel.ts';
import { PieceSender } from './pieceSender.ts';
import { browserPieces } from './pieceStore.ts';

/** What is being recorded right now. */
export interface Recording {
  captureId: string;
  takeId: string;
  startedAtMs: number;
  /** Of the opened inputs, those channels that are recorded, in this order, and what each is called. */
  channels: number[];
  names: string[];
}

/** An event that was heard while a take was recorded, and what its channel is called. */
export interface HeardEvent extends AudioEvent {
  name: string;
}

/** How the recorder stands. The same object until it changes. */
export interface RecorderState {
  open: { settings: InputSettings[]; channels: string[]; sampleRateHz: number } | null;
  levels: readonly ChannelLevel[];
  /** Whether every take is recorded as it is started and stopped. */
  armed: boolean;
  recording: Recording | null;
  /** Of the take that is, or was last, recorded. */
  heard: readonly HeardEvent[];
  /** Pieces that are not on the server's disk yet. */
  waiting: number;
  reachable: boolean;
  trouble: string | null;
}

/** A recording whose pieces are still to come. */
interface Coming {
  captureId: string;
  pieces: number;
  accident: boolean;
}

const NOTHING: RecorderState = { open: null, levels: [], armed: false, recording: null, heard: [], waiting: 0, reachable: true, trouble: null };
const store = browserPieces();
const lockOf = (captureId: string) => `marvet-capture-${captureId}`;

/** The recorder of this page: inputs, levels, and takes on their way to the disk. Views come and go; it goes on. */
class TakeRecorder {
  private inputs: OpenedInputs | null = null;
  private state: RecorderState = NOTHING;
  private readonly listeners = new Set<() => void>();
  private readonly sender = new PieceSender(store, captureServer, () => void this.count());
  /** Recordings whose pieces are still to come, in their order: the last piece of one comes before the first of the next. */
  private readonly coming: Coming[] = [];
  private readonly locks = new Map<string, () => void>();
  /** Levels as they were heard last. They are shown when the screen is drawn: a page that is late keeps sound first. */
  private levels: readonly ChannelLevel[] = [];
  private drawing = 0;
  /** What is kept is kept in its order. */
  private keeping: Promise<unknown> = Promise.resolve();

  constructor() {
    onCaptureHeard((told) => this.told(told));
    void this.takeUp();
  }

  /** What a page before left on its way is sent on; a recording that ended with its page is told to have ended. */
  private async takeUp(): Promise<void> {
    for (const capture of await store.captures()) {
      if (capture.pieces !== null) continue;
      await navigator.locks.request(lockOf(capture.id), { ifAvailable: true }, async (lock) => {
        // Another page is recording it.
        if (!lock) return;
        const last = await store.lastPiece(capture.id);
        await store.keepCapture({ ...capture, pieces: last === null ? 0 : last + 1 });
      });
    }
    await this.sender.kick();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  now = (): RecorderState => this.state;

  private set(change: Partial<RecorderState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  private async count(): Promise<void> {
    const refused = (await store.captures()).find((capture) => capture.refused !== null)?.refused ?? null;
    const waiting = await store.count();
    this.set({ waiting, reachable: this.sender.reachable, ...(refused ? { trouble: `A recording was refused: ${refused}. It is kept in this browser.` } : {}) });
  }

  async listen(deviceIds: readonly string[]): Promise<void> {
    this.close();
    try {
      const onEnded = (label: string) => this.set({ trouble: `${label} is gone: it was pulled out, or the browser took it away. Choose the inputs again.` });
      this.inputs = await openInputs(deviceIds, (report) => this.hear(report), onEnded);
      const { settings, channels, sampleRateHz } = this.inputs;
      this.levels = channels.map(() => new ChannelLevel());
      this.set({ ...NOTHING, waiting: this.state.waiting, open: { settings, channels, sampleRateHz }, levels: this.levels });
    } catch (error) {
      const { name, message } = error as Error;
      this.set({
        trouble: name === 'NotAllowedError' ? 'The browser may not listen. Allow the microphone for this page, then try again.' : `The inputs cannot be opened: ${message}`,
      });
    }
  }

  /** Lets the inputs go; a take that is being recorded ends. */
  close(): void {
    this.end(false);
    this.inputs?.close();
    this.inputs = null;
    // Nothing comes any more: what is there is all there is.
    for (const own of this.coming.splice(0)) this.complete(own);
    this.levels = [];
    this.set({ open: null, armed: false, levels: this.levels });
  }

  arm(armed: boolean): void {
    this.set({ armed });
  }

  /** Clip lights and held peaks start anew. */
  resetHolds(): void {
    this.levels = this.levels.map((level) => level.released());
    this.set({ levels: this.levels });
  }

  begin(trialId: string, takeId: string, chosen: readonly (CapturedChannel & { channel: number })[]): void {
    if (!this.inputs || this.state.recording || chosen.length === 0) return;
    const startedAtMs = Date.now();
    const captureId = newId();
    const draft = { id: captureId, takeId, sampleRateHz: this.inputs.sampleRateHz, startedAtMs, part: 1, channels: chosen.map(({ name, setupId }) => ({ name, setupId })) };
    this.coming.push({ captureId, pieces: 0, accident: false });
    // Held until this page is gone, or the take has ended: so another page knows who records.
    void navigator.locks.request(lockOf(captureId), () => new Promise<void>((resolve) => this.locks.set(captureId, resolve)));
    this.keep(() => store.keepCapture({ id: captureId, trialId, draft, pieces: null, binned: false, refused: null }));
    const channels = chosen.map(({ channel }) => channel);
    this.inputs.tell({ kind: 'record', channels });
    reduxStore.dispatch(recordingBegan({ trialId, takeId }));
    this.set({ recording: { captureId, takeId, startedAtMs, channels, names: chosen.map(({ name }) => name) }, heard: [], trouble: null });
  }

  /** @param accident the take never began: what was recorded goes to the bin */
  end(accident: boolean): void {
    const { recording } = this.state;
    if (!recording || !this.inputs) return;
    const own = this.coming.find(({ captureId }) => captureId === recording.captureId);
    if (own) own.accident = accident;
    this.inputs.tell({ kind: 'stop' });
    reduxStore.dispatch(recordingEnded());
    this.set({ recording: null });
  }

  /** What the server heard in a take that is being recorded. */
  told({ captureId, heard }: CaptureHeard): void {
    const { recording } = this.state;
    if (recording?.captureId !== captureId) return;
    const fresh = heard.flatMap(({ channel, events }) => events.map((event) => ({ ...event, name: recording.names[channel] ?? `Channel ${channel + 1}` })));
    if (fresh.length > 0) this.set({ heard: [...this.state.heard, ...fresh] });
  }

  private hear(report: CaptureReport): void {
    if (report.kind === 'levels') {
      this.levels = this.levels.map((level, channel) => level.heard(report.peaks[channel] ?? 0, report.meanSquares[channel] ?? 0, report.clipped[channel] === 1));
      this.drawing ||= requestAnimationFrame(() => {
        this.drawing = 0;
        this.set({ levels: this.levels });
      });
    } else if (report.kind === 'gap') {
      this.set({ trouble: `The browser left out ${report.frames} samples; silence stands in their place. Close other programs.` });
    } else this.keepPiece(report);
  }

  private keepPiece({ channels, last }: Extract<CaptureReport, { kind: 'piece' }>): void {
    const [own] = this.coming;
    if (!own) return;
    if (last) this.coming.shift();
    const { captureId } = own;
    if ((channels[0]?.length ?? 0) > 0) {
      const bytes = interleaved(channels, CAPTURE_FORMAT);
      const number = own.pieces++;
      this.keep(() => store.keepPiece({ ...this.sender.placeOf(captureId, number), bytes }));
    }
    if (last) this.complete(own);
  }

  /** All pieces of a recording are kept: says how many there are. */
  private complete({ captureId, pieces, accident }: Coming): void {
    this.keep(async () => {
      const place = this.sender.placeOf(captureId, pieces);
      const kept = (await store.captures()).find(({ id }) => id === place.captureId);
      if (kept) await store.keepCapture({ ...kept, pieces: place.number, binned: accident });
      this.locks.get(captureId)?.();
      this.locks.delete(captureId);
    });
  }

  private keep(work: () => Promise<void>): void {
    // Kept whether or not what came before is sent by now: a page that is closed while the server hangs has lost nothing.
    this.keeping = this.keeping.then(work).then(
      () => void this.sender.kick(),
      (error: unknown) => this.set({ trouble: `This browser cannot keep the sound: ${(error as Error).message}. Record on the recorder.` }),
    );
  }
}

let recorder: TakeRecorder | null = null;

/** The one recorder of this page. */
export function takeRecorder(): TakeRecorder {
  recorder ??= new TakeRecorder();
  return recorder;
}
