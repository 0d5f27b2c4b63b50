import type { DeviceAbout, DeviceChannel, DeviceState } from '@marvet/core/domain/device';
import type { DeviceLine, HelloLine, ReadingLine } from '@marvet/core/domain/deviceLine';
import { impossible } from '@marvet/core/domain/quantity';
import { type Thinned, thinnedTogether, thinnedWith } from '@marvet/core/domain/reading';
import { DeviceClock } from './deviceClock.ts';

/** Lines a second that a device may send for long, and at once: a minute of what it kept. */
const LINES_PER_S = 200;
const LINES_AT_ONCE = 12_000;
const MOST_TROUBLES = 12;
/** What is so much later than the last line cannot be one that is sent again. */
const NEW_MS = 2000;

/** What is to be written of a device. */
export interface Unwritten {
  seconds: Map<number, Record<string, Thinned>>;
  about: DeviceAbout;
  /** Whether what the device said of itself changed. */
  renewed: boolean;
}

/**
 * All that one device told and that is not on the disk yet, and how it is. What it says is checked against what can be; a device
 * that lies, floods or jumps in time is told, and harms nothing but its own readings.
 */
export class Intake {
  private readonly clock = new DeviceClock();
  private readonly channels = new Map<string, DeviceChannel>();
  private session = '';
  private writtenN = 0;
  private takenN = 0;
  private seconds = new Map<number, Record<string, Thinned>>();
  private renewed = false;
  private tokens = LINES_AT_ONCE;
  private filledAtMs: number;
  readonly state: DeviceState;
  /** When the last line came in. */
  heardAtMs = 0;
  /** The number that the device was told last. */
  toldN: number | null = null;

  constructor(
    readonly deviceId: string,
    about: DeviceAbout | null,
    private readonly now: () => number = Date.now,
  ) {
    this.filledAtMs = now();
    this.state = { deviceId, link: 'connecting', sinceMs: now(), values: {}, atMs: null, health: '', troubles: [] };
    for (const channel of about?.channels ?? []) this.channels.set(channel.id, channel);
    this.session = about?.session ?? '';
    this.writtenN = this.takenN = about?.lastN ?? 0;
  }

  /** A connection stands: what was said of the one before holds no more. */
  connected(): void {
    this.state.health = '';
  }

  setLink(link: DeviceState['link']): void {
    if (this.state.link === link) return;
    Object.assign(this.state, { link, sinceMs: this.now() });
  }

  trouble(text: string): void {
    const { troubles } = this.state;
    const known = troubles.find((each) => each.text === text);
    const rest = troubles.filter((each) => each !== known);
    this.state.troubles = [{ text, count: (known?.count ?? 0) + 1, atMs: this.now() }, ...rest].slice(0, MOST_TROUBLES);
  }

  /**
   * Takes one line; returns for how many milliseconds no more can be taken.
   * @param streamed whether it comes by itself; what is posted waits for its answer, and needs no holding up
   */
  take(line: DeviceLine, streamed = true): number {
    this.heardAtMs = this.now();
    if (line.is === 'wrong') this.trouble(`sent ${line.why}`);
    else if (line.is === 'hello') this.hello(line.line);
    else this.reading(line.line);
    return streamed ? this.spend() : 0;
  }

  /** The number up to which everything was taken, once it is written; null where the device counts nothing. */
  get acknowledged(): number | null {
    return this.writtenN > 0 ? this.writtenN : null;
  }

  /** Hands over what is to be written; null where there is nothing. */
  unwritten(): Unwritten | null {
    if (this.seconds.size === 0 && !this.renewed && this.takenN === this.writtenN) return null;
    const out = { seconds: this.seconds, about: { channels: [...this.channels.values()], session: this.session, lastN: this.takenN }, renewed: this.renewed };
    this.seconds = new Map();
    this.renewed = false;
    return out;
  }

  written({ about }: Unwritten): void {
    if (about.session === this.session) this.writtenN = Math.max(this.writtenN, about.lastN);
  }

  /** What could not be written is kept for the next time. */
  notWritten({ seconds, renewed }: Unwritten, why: string): void {
    for (const [atS, values] of seconds) {
      const own = this.seconds.get(atS) ?? {};
      for (const [id, first] of Object.entries(values)) own[id] = own[id] ? thinnedTogether(first, own[id]) : first;
      this.seconds.set(atS, own);
    }
    this.renewed ||= renewed;
    this.trouble(`could not be written down: ${why}`);
  }

  private hello({ channels, session, now }: HelloLine): void {
    // Whoever connects anew may never have heard the last answer.
    this.toldN = null;
    const moved = this.clock.hello(now, this.now());
    if (moved !== 0) this.trouble(`came back with its clock ${clockWords(moved)}`);
    if (session !== this.session) {
      this.session = session;
      this.writtenN = this.takenN = 0;
      this.renewed = true;
    }
    if (JSON.stringify(channels) !== JSON.stringify([...this.channels.values()])) {
      this.channels.clear();
      for (const channel of channels) this.channels.set(channel.id, channel);
      this.state.values = {};
      this.renewed = true;
    }
  }

  private reading({ n, at, values, health }: ReadingLine): void {
    const { atMs, jumpedMs } = this.clock.at(at, this.now());
    if (jumpedMs !== 0) this.trouble(`has a clock that went ${clockWords(jumpedMs)}`);
    if (health !== undefined) this.state.health = health;
    // What was sent again because its answer got lost counts once.
    if (n !== undefined && n <= this.takenN) {
      if (at !== undefined && this.state.atMs !== null && atMs > this.state.atMs + NEW_MS)
        this.trouble('counts its lines from the start again without another session: they are left out');
      return;
    }
    if (n !== undefined) this.takenN = n;
    const atS = Math.max(0, Math.floor(atMs / 1000));
    const second = this.seconds.get(atS) ?? {};
    for (const [id, value] of Object.entries(values)) {
      const channel = this.channels.get(id);
      const wrong = channel ? impossible(channel.quantity, value) : 'something of a channel that it never named';
      if (wrong) {
        this.trouble(`told ${wrong}`);
        continue;
      }
      second[id] = thinnedWith(second[id], value);
      this.state.values[id] = value;
    }
    if (Object.keys(second).length > 0) this.seconds.set(atS, second);
    this.state.atMs = atMs;
    this.setLink('live');
  }

  private spend(): number {
    const nowMs = this.now();
    this.tokens = Math.min(LINES_AT_ONCE, this.tokens + ((nowMs - this.filledAtMs) / 1000) * LINES_PER_S);
    this.filledAtMs = nowMs;
    this.tokens--;
    if (this.tokens > 0) return 0;
    this.trouble(`sends more than ${LINES_PER_S} lines a second, and is slowed down`);
    return 1000;
  }
}

function clockWords(ms: number): string {
  return `${Math.abs(Math.round(ms / 1000)).toLocaleString('en-US')} s ${ms > 0 ? 'ahead' : 'back'}`;
}
