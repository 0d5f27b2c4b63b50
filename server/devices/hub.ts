import type { PostedAnswer } from '@marvet/core/contract/field';
import type { Device, DeviceState, DeviceWay } from '@marvet/core/domain/device';
import { deviceLine } from '@marvet/core/domain/deviceLine';
import type { EventBus } from '../jobs/events.ts';
import type { Store } from '../store/store.ts';
import { IsNull } from '../store/table.ts';
import type { Driver, DriverLink } from './driver.ts';
import { Intake } from './intake.ts';
import { keepReadings } from './keepReadings.ts';
import { jsonLinesDriver, nmeaDriver } from './tcpDriver.ts';

const WRITE_EVERY_MS = 500;
const TELL_EVERY_MS = 250;
const SILENT_AFTER_MS = 5000;
/** A connection on which nothing comes for so long is opened anew: the other side may be gone without a word. */
const AGAIN_AFTER_MS = 20_000;
const FIRST_RETRY_MS = 500;
const LONGEST_RETRY_MS = 8000;

/** All devices that Marvet listens to. One that stalls, lies or vanishes touches no other. */
export interface DeviceHub {
  /** Listens to what is adopted and on, and to nothing else; called whenever that changed. */
  follow(): Promise<void>;
  states(trialId: string): DeviceState[];
  /** Takes lines of a device that posts them; answers once they are on the disk. */
  post(device: Device, lines: readonly unknown[]): Promise<PostedAnswer>;
  close(): Promise<void>;
}

/** A device that is listened to. */
interface Followed {
  trialId: string;
  way: string;
  intake: Intake;
  link: DriverLink | null;
  retryMs: number;
  timer: ReturnType<typeof setTimeout> | null;
  toldAtMs: number;
  told: string;
}

const driverOf = (way: DeviceWay): Driver | null => (way.by === 'json lines' ? jsonLinesDriver(way.host, way.port) : way.by === 'nmea' ? nmeaDriver(way.host, way.port) : null);

export function openHub(store: Store, events: EventBus): DeviceHub {
  const followed = new Map<string, Followed>();
  let closed = false;

  function connect(own: Followed, way: DeviceWay): void {
    const driver = driverOf(way);
    if (!driver || closed) return;
    own.intake.setLink('connecting');
    own.link = driver.open({
      opened: () => {
        own.retryMs = FIRST_RETRY_MS;
        own.intake.connected();
      },
      line: (line) => own.intake.take(line),
      closed(why) {
        own.link = null;
        if (own.timer || closed || ![...followed.values()].includes(own)) return;
        own.intake.setLink('lost');
        own.intake.state.health = why;
        own.timer = setTimeout(() => {
          own.timer = null;
          connect(own, way);
        }, own.retryMs);
        own.retryMs = Math.min(LONGEST_RETRY_MS, own.retryMs * 2);
      },
    });
  }

  function drop(id: string): void {
    const own = followed.get(id);
    followed.delete(id);
    if (own?.timer) clearTimeout(own.timer);
    own?.link?.close();
  }

  function begin(device: Device): Followed {
    const intake = new Intake(device.id, device.about);
    const own: Followed = { trialId: device.trialId, way: JSON.stringify(device.way), intake, link: null, retryMs: FIRST_RETRY_MS, timer: null, toldAtMs: 0, told: '' };
    followed.set(device.id, own);
    if (device.way.by === 'posted') intake.setLink('silent');
    connect(own, device.way);
    return own;
  }

  /** Silence is a state of its own: the connection stands, and nothing comes. */
  function watch(): void {
    for (const own of followed.values()) {
      const { state } = own.intake;
      const nowMs = Date.now();
      const quietMs = nowMs - Math.max(own.intake.heardAtMs, state.sinceMs);
      if (state.link === 'live' && quietMs > SILENT_AFTER_MS) own.intake.setLink('silent');
      if (state.link === 'connecting' && own.link && quietMs > SILENT_AFTER_MS) own.intake.setLink('silent');
      if (state.link === 'silent' && own.link && quietMs > AGAIN_AFTER_MS) own.link.close();
      const told = JSON.stringify(state);
      if (told === own.told || nowMs - own.toldAtMs < TELL_EVERY_MS) continue;
      Object.assign(own, { told, toldAtMs: nowMs });
      events.tell(own.trialId, { type: 'device', state: JSON.parse(told) as DeviceState });
    }
  }

  let writing: Promise<void> = Promise.resolve();
  const write = () => {
    writing = writing.then(async () => {
      await keepReadings(
        store,
        [...followed.values()].map(({ trialId, intake }) => ({ trialId, intake })),
        (trialId) => events.tell(trialId, { type: 'records', tags: ['Devices'], page: null }),
      );
      for (const own of followed.values()) {
        const { acknowledged } = own.intake;
        if (acknowledged !== null && acknowledged !== own.intake.toldN) {
          own.link?.acknowledge(acknowledged);
          own.intake.toldN = acknowledged;
        }
      }
    });
    return writing;
  };
  const timers = [setInterval(watch, TELL_EVERY_MS), setInterval(() => void write(), WRITE_EVERY_MS)];

  return {
    async follow() {
      const trials = new Set((await store.trials.find({ select: { id: true }, where: { binnedAtMs: IsNull() } })).map(({ id }) => id));
      const devices = (await store.devices.findBy({ binnedAtMs: IsNull(), on: true })).filter(({ trialId }) => trials.has(trialId));
      const wanted = new Map(devices.map((device) => [device.id, device]));
      // What was taken of a device that is let go is written first.
      await write();
      for (const [id, own] of followed) if (JSON.stringify(wanted.get(id)?.way) !== own.way) drop(id);
      if (closed) return;
      for (const device of devices) if (!followed.has(device.id)) begin(device);
    },
    states: (trialId) => [...followed.values()].filter((own) => own.trialId === trialId).map(({ intake }) => structuredClone(intake.state)),
    async post(device, lines) {
      const own = followed.get(device.id) ?? begin(device);
      const wrong: string[] = [];
      for (const each of lines) {
        const line = deviceLine(each);
        if (line.is === 'wrong') wrong.push(line.why);
        own.intake.take(line, false);
      }
      await write();
      return { ack: own.intake.acknowledged, wrong };
    },
    async close() {
      closed = true;
      for (const timer of timers) clearInterval(timer);
      await write();
      for (const id of [...followed.keys()]) drop(id);
    },
  };
}
