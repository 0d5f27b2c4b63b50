import type { DeviceChannel, DeviceDraft } from '../domain/device.ts';
import type { Quantity } from '../domain/quantity.ts';
import { type Place, placeFrom } from '../radio/bearing.ts';
import type { WalkMoment } from './walkScene.ts';

/** A simulated device: what it is, and what it tells at a moment of a walk. */
export interface StandInDevice extends Pick<DeviceDraft, 'name' | 'kind'> {
  by: 'json lines' | 'nmea';
  everyMs: number;
  channels: DeviceChannel[];
  /** @param origin where the receiver of the walk stands */
  values(moment: WalkMoment, atMs: number, origin: Place): Record<string, number>;
}

const channel = (id: string, quantity: Quantity, name: string, group = ''): DeviceChannel => ({ id, quantity, name, group });
/** The walk leads to the north-north-east. */
const BEARING = (20 * Math.PI) / 180;
/** Ten hours of a battery and of space, from the hour on. */
const HOURS = 10;
const spent = (atMs: number) => (atMs / 3_600_000) % HOURS;
const DAY_S = 86_400;
const tenths = (value: number) => Math.round(value * 10) / 10;

/** Where the talker is at a moment of the walk. */
export function walkPlace({ distanceM, asideM }: Pick<WalkMoment, 'distanceM' | 'asideM'>, origin: Place): Place {
  return placeFrom(origin, distanceM * Math.sin(BEARING) + asideM * Math.cos(BEARING), distanceM * Math.cos(BEARING) - asideM * Math.sin(BEARING));
}

/** The devices that ship with the app: they see one simulated walk, and say that they are stand-ins. */
export const STAND_INS: readonly StandInDevice[] = [
  {
    name: 'Stand-in receiver, two channels',
    kind: 'receiver',
    by: 'json lines',
    everyMs: 100,
    channels: ['1', '2'].flatMap((group) => [
      channel(`${group}a`, 'radioLevelDbm', 'Aerial A', group),
      channel(`${group}b`, 'radioLevelDbm', 'Aerial B', group),
      channel(`${group}level`, 'audioLevelDbfs', 'Audio', group),
      channel(`${group}muted`, 'muted', 'Muted', group),
      channel(`${group}battery`, 'batteryPercent', 'Battery of the transmitter', group),
    ]),
    values: ({ radioDbm, audioDbfs, muted }, atMs) =>
      Object.fromEntries(
        radioDbm.flatMap(([a, b], index) => [
          [`${index + 1}a`, tenths(a)],
          [`${index + 1}b`, tenths(b)],
          [`${index + 1}level`, tenths(audioDbfs[index] as number)],
          [`${index + 1}muted`, muted[index] ? 1 : 0],
          [`${index + 1}battery`, tenths(100 - 90 * (spent(atMs) / HOURS) ** (1 + index))],
        ]),
      ),
  },
  {
    name: 'Stand-in sound level meter',
    kind: 'sound level meter',
    by: 'json lines',
    everyMs: 250,
    channels: [channel('la', 'soundLevelDba', 'Level, A, fast')],
    values: ({ soundDba }) => ({ la: tenths(soundDba) }),
  },
  {
    name: 'Stand-in wind meter',
    kind: 'wind meter',
    by: 'json lines',
    everyMs: 500,
    channels: [channel('wind', 'windMs', 'Wind')],
    values: ({ windMs }) => ({ wind: tenths(windMs) }),
  },
  {
    name: 'Stand-in position',
    kind: 'position',
    by: 'nmea',
    everyMs: 1000,
    channels: [channel('lat', 'latitudeDeg', 'Latitude'), channel('lon', 'longitudeDeg', 'Longitude'), channel('alt', 'altitudeM', 'Altitude')],
    values: (moment, _atMs, origin) => {
      const { latitudeDeg, longitudeDeg } = walkPlace(moment, origin);
      return { lat: latitudeDeg, lon: longitudeDeg, alt: 3 };
    },
  },
  {
    name: 'Stand-in recorder',
    kind: 'recorder',
    by: 'json lines',
    everyMs: 500,
    channels: [channel('rolling', 'rolling', 'Rolling'), channel('tc', 'timecodeS', 'Timecode'), channel('space', 'spaceLeftMin', 'Space left')],
    values: (_moment, atMs) => ({ rolling: 1, tc: tenths((atMs / 1000) % DAY_S), space: tenths(60 * (HOURS - spent(atMs))) }),
  },
];
