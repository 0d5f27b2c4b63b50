import type { StandIn } from '@marvet/core/contract/field';
import { nmeaSentence } from '@marvet/core/formats/nmea';
import type { Place } from '@marvet/core/radio/bearing';
import { STAND_INS, type StandInDevice, walkPlace } from '@marvet/core/simulate/standInDevices';
import { type WalkScene, walkScene } from '@marvet/core/simulate/walkScene';
import { lineServer, type StandInServer, talkingDevice } from './lineServer.ts';

/** The simulated devices of this computer. */
export interface StandIns {
  list(): StandIn[];
  /** Starts those that do not run; one whose port is taken runs already, in another window. */
  start(): Promise<StandIn[]>;
  stop(): Promise<void>;
}

/** Where the receiver of the simulated walk stands: open water, where nobody's is. */
const STAND_IN_PLACE: Place = { latitudeDeg: 52.0312, longitudeDeg: 2.6521 };
const FIRST_PORT = 4821;
const SCENE_SEED = 12;

/** @param firstPort the first of five ports, or 0 for any that are free */
export function openStandIns(firstPort = FIRST_PORT): StandIns {
  let running = new Map<StandInDevice, StandInServer | 'elsewhere'>();
  let starting: Promise<unknown> = Promise.resolve();
  const portOf = (device: StandInDevice) => {
    const server = running.get(device);
    return typeof server === 'object' ? server.port : firstPort === 0 ? 0 : firstPort + STAND_INS.indexOf(device);
  };
  const list = () =>
    STAND_INS.map((device): StandIn => ({ name: device.name, kind: device.kind, way: { by: device.by, host: '127.0.0.1', port: portOf(device) }, running: running.has(device) }));
  return {
    list,
    async start() {
      const begin = async () => {
        // All of them see the same walk at the same moment, in whichever process they run.
        const scene = walkScene({ seed: SCENE_SEED });
        for (const device of STAND_INS.filter((each) => !running.has(each))) {
          const server = await open(device, portOf(device), scene).catch((error: NodeJS.ErrnoException) => {
            if (error.code === 'EADDRINUSE') return 'elsewhere' as const;
            throw error;
          });
          running.set(device, server);
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

function open(device: StandInDevice, port: number, scene: WalkScene): Promise<StandInServer> {
  if (device.by === 'nmea') return positionSource(port, scene, device.everyMs);
  const { name, kind, channels, everyMs } = device;
  return talkingDevice(port, {
    hello: { name, kind, channels, session: '' },
    everyMs,
    read: (atMs) => ({ values: device.values(scene.at(atMs / 1000), atMs, STAND_IN_PLACE), health: '' }),
  });
}

/** A source of positions: two sentences a second, as a receiver on a belt sends them. */
async function positionSource(port: number, scene: WalkScene, everyMs: number): Promise<StandInServer> {
  const server = await lineServer(port, () => undefined);
  const timer = setInterval(() => {
    const atMs = Date.now();
    for (const sentence of sentencesOf(walkPlace(scene.at(atMs / 1000), STAND_IN_PLACE), atMs)) server.say(sentence);
  }, everyMs);
  return {
    port: server.port,
    async close() {
      clearInterval(timer);
      await server.close();
    },
  };
}

function sentencesOf({ latitudeDeg, longitudeDeg }: Place, atMs: number): string[] {
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
