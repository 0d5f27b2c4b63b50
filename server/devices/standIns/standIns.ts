import type { DeviceDraft } from '@marvet/core/domain/device';
import type { Quantity } from '@marvet/core/domain/quantity';
import { nmeaSentence } from '@marvet/core/formats/nmea';
import { placeFrom } from '@marvet/core/radio/bearing';
import { type WalkMoment, type WalkScene, walkScene } from '@marvet/core/simulate/walkScene';
import { lineServer, type StandInServer, talkingDevice } from './lineServer.ts';

/** A simulated device, and where it listens. */
export interface StandIn extends Pick<DeviceDraft, 'name' | 'kind' | 'way'> {
  running: boolean;
}

/** The simulated devices of this computer. */
export interface StandIns {
  list(): StandIn[];
  /** Starts those that do not run; one whose port is taken runs already, in another window. */
  start(): Promise<StandIn[]>;
  stop(): Promise<void>;
}

/** Where the receiver of the simulated walk stands: open water, where nobody's is. */
export const STAND_IN_PLACE = { latitudeDeg: 52.0312, longitudeDeg: 2.6521 };
/** The walk leads to the north-north-east. */
const BEARING = (20 * Math.PI) / 180;
export const FIRST_PORT = 4821;

const channel = (id: string, quantity: Quantity, name: string, group = '') => ({ id, quantity, name, group });

/** The walk's moment now: all stand-ins see the same one, in whichever process they run. */
const sceneNow = (scene: WalkScene, atMs: number): WalkMoment => scene.at(atMs / 1000);

interface Kind extends Pick<DeviceDraft, 'name' | 'kind'> {
  by: 'json lines' | 'nmea';
  open(port: number, scene: WalkScene): Promise<StandInServer>;
}

const tells =
  (
    hello: Omit<Parameters<typeof talkingDevice>[1]['hello'], 'session'>,
    everyMs: number,
    values: (moment: WalkMoment, atMs: number) => Record<string, number>,
    health = '',
  ): Kind['open'] =>
  (port, scene) =>
    talkingDevice(port, { hello: { ...hello, session: '' }, everyMs, read: (atMs) => ({ values: rounded(values(sceneNow(scene, atMs), atMs)), health }) });

const rounded = (values: Record<string, number>) => Object.fromEntries(Object.entries(values).map(([id, value]) => [id, Math.round(value * 10) / 10]));

/** Ten hours of a battery and of space, from the hour on. */
const HOURS = 10;
const spent = (atMs: number) => (atMs / 3_600_000) % HOURS;
const DAY_S = 86_400;

const KINDS: Kind[] = [
  {
    name: 'Stand-in receiver, two channels',
    kind: 'receiver',
    by: 'json lines',
    open: tells(
      {
        name: 'Stand-in receiver, two channels',
        kind: 'receiver',
        channels: ['1', '2'].flatMap((group) => [
          channel(`${group}a`, 'radioLevelDbm', 'Aerial A', group),
          channel(`${group}b`, 'radioLevelDbm', 'Aerial B', group),
          channel(`${group}level`, 'audioLevelDbfs', 'Audio', group),
          channel(`${group}muted`, 'muted', 'Muted', group),
          channel(`${group}battery`, 'batteryPercent', 'Battery of the transmitter', group),
        ]),
      },
      100,
      (moment, atMs) =>
        Object.fromEntries(
          moment.radioDbm.flatMap(([a, b], index) => [
            [`${index + 1}a`, a],
            [`${index + 1}b`, b],
            [`${index + 1}level`, moment.audioDbfs[index] as number],
            [`${index + 1}muted`, moment.muted[index] ? 1 : 0],
            [`${index + 1}battery`, 100 - 90 * (spent(atMs) / HOURS) ** (1 + index)],
          ]),
        ),
    ),
  },
  {
    name: 'Stand-in sound level meter',
    kind: 'sound level meter',
    by: 'json lines',
    open: tells({ name: 'Stand-in sound level meter', kind: 'sound level meter', channels: [channel('la', 'soundLevelDba', 'Level, A, fast')] }, 250, ({ soundDba }) => ({
      la: soundDba,
    })),
  },
  {
    name: 'Stand-in wind meter',
    kind: 'wind meter',
    by: 'json lines',
    open: tells({ name: 'Stand-in wind meter', kind: 'wind meter', channels: [channel('wind', 'windMs', 'Wind')] }, 500, ({ windMs }) => ({ wind: windMs })),
  },
  { name: 'Stand-in position', kind: 'position', by: 'nmea', open: positionSource },
  {
    name: 'Stand-in recorder',
    kind: 'recorder',
    by: 'json lines',
    open: tells(
      {
        name: 'Stand-in recorder',
        kind: 'recorder',
        channels: [channel('rolling', 'rolling', 'Rolling'), channel('tc', 'timecodeS', 'Timecode'), channel('space', 'spaceLeftMin', 'Space left')],
      },
      500,
      (_moment, atMs) => ({ rolling: 1, tc: (atMs / 1000) % DAY_S, space: 60 * (HOURS - spent(atMs)) }),
    ),
  },
];

/** A source of positions: two sentences a second, as a receiver on a belt sends them. */
async function positionSource(port: number, scene: WalkScene): Promise<StandInServer> {
  const server = await lineServer(port, () => undefined);
  const timer = setInterval(() => {
    const atMs = Date.now();
    const { distanceM, asideM } = sceneNow(scene, atMs);
    const eastM = distanceM * Math.sin(BEARING) + asideM * Math.cos(BEARING);
    const northM = distanceM * Math.cos(BEARING) - asideM * Math.sin(BEARING);
    for (const sentence of sentencesOf(placeFrom(STAND_IN_PLACE, eastM, northM), atMs)) server.say(sentence);
  }, 1000);
  return {
    port: server.port,
    async close() {
      clearInterval(timer);
      await server.close();
    },
  };
}

function sentencesOf({ latitudeDeg, longitudeDeg }: { latitudeDeg: number; longitudeDeg: number }, atMs: number): string[] {
  const iso = new Date(atMs).toISOString();
  const time = `${iso.slice(11, 13)}${iso.slice(14, 16)}${iso.slice(17, 22)}`;
  const date = `${iso.slice(8, 10)}${iso.slice(5, 7)}${iso.slice(2, 4)}`;
  const minutes = (value: number, width: number) => {
    const whole = Math.floor(Math.abs(value));
    return `${String(whole).padStart(width, '0')}${((Math.abs(value) - whole) * 60).toFixed(5).padStart(8, '0')}`;
  };
  const place = `${minutes(latitudeDeg, 2)},${latitudeDeg < 0 ? 'S' : 'N'},${minutes(longitudeDeg, 3)},${longitudeDeg < 0 ? 'W' : 'E'}`;
  return [nmeaSentence(`GPRMC,${time},A,${place},2.5,020.0,${date},,,A`), nmeaSentence(`GPGGA,${time},${place},1,09,0.9,3.0,M,45.0,M,,`)];
}

/** @param firstPort the first of five ports, or 0 for any that are free */
export function openStandIns(firstPort = FIRST_PORT): StandIns {
  let running = new Map<Kind, StandInServer | 'elsewhere'>();
  let starting: Promise<unknown> = Promise.resolve();
  const portOf = (kind: Kind) => {
    const server = running.get(kind);
    return typeof server === 'object' ? server.port : firstPort === 0 ? 0 : firstPort + KINDS.indexOf(kind);
  };
  const list = () => KINDS.map((kind): StandIn => ({ name: kind.name, kind: kind.kind, way: { by: kind.by, host: '127.0.0.1', port: portOf(kind) }, running: running.has(kind) }));
  return {
    list,
    async start() {
      const begin = async () => {
        const scene = walkScene({ seed: 12 });
        for (const kind of KINDS.filter((each) => !running.has(each))) {
          const server = await kind.open(portOf(kind), scene).catch((error: NodeJS.ErrnoException) => {
            if (error.code === 'EADDRINUSE') return 'elsewhere' as const;
            throw error;
          });
          running.set(kind, server);
        }
      };
      starting = starting.then(begin);
      await starting;
      return list();
    },
    async stop() {
      const servers = [...running.values()];
      running = new Map();
      for (const server of servers) if (server !== 'elsewhere') await server.close();
    },
  };
}
