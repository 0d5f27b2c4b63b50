import type { NoiseSource } from '@marvet/core/domain/station';
import type { BundledTrial } from '@marvet/core/formats/bundle';
import type { SimulatedPlace } from '@marvet/core/simulate/place';
import { demoId } from './ids.ts';

type Station = BundledTrial['stations'][number];
type Script = BundledTrial['scripts'][number];

interface DemoPlace {
  station: Omit<Station, 'id' | 'position' | 'acoustics'>;
  heard: SimulatedPlace;
}

/** Stations of the chain ferry at Saltreach, and how each sounds. */
export const PLACES: Record<string, DemoPlace> = {
  slipway: {
    station: {
      name: 'slipway',
      surfaces: 'wet stone, open water',
      noise: 'wind off the water, lapping',
      indoors: false,
      latitudeDeg: 54.5312,
      longitudeDeg: 9.0214,
      needsDaylight: true,
      hazards: ['water', 'overhead line'],
      remark: '',
    },
    heard: { noiseDba: 47, noiseSlopeDb: -4, hum: null, swell: 0.5, windMs: 4.5, walls: null },
  },
  loft: {
    station: {
      name: 'net loft',
      surfaces: 'bare timber, no curtains',
      noise: 'quiet, boards creak',
      indoors: true,
      latitudeDeg: 54.532,
      longitudeDeg: 9.0231,
      needsDaylight: false,
      hazards: [],
      remark: '',
    },
    heard: { noiseDba: 31, noiseSlopeDb: -4, hum: null, swell: 0.1, windMs: 0, walls: { sizeM: [9, 6, 3.5], absorption: [0.1, 0.1, 0.11, 0.12, 0.13, 0.15] } },
  },
  deck: {
    station: {
      name: 'ferry deck',
      surfaces: 'steel plate',
      noise: 'engine at half throttle',
      indoors: false,
      latitudeDeg: 54.5301,
      longitudeDeg: 9.019,
      needsDaylight: true,
      hazards: ['water', 'vehicle'],
      remark: 'Hearing protection near the engine hatch.',
    },
    heard: { noiseDba: 58, noiseSlopeDb: -5, hum: { fundamentalHz: 43, levelDba: 66 }, swell: 0.2, windMs: 3, walls: null },
  },
  reed: {
    station: {
      name: 'reed bank',
      surfaces: 'mud and reed',
      noise: 'quiet, long line of sight',
      indoors: false,
      latitudeDeg: 54.5267,
      longitudeDeg: 9.0105,
      needsDaylight: true,
      hazards: ['water'],
      remark: '',
    },
    heard: { noiseDba: 36, noiseSlopeDb: -3, hum: null, swell: 0.3, windMs: 1.6, walls: null },
  },
  wheelhouse: {
    station: {
      name: 'wheelhouse',
      surfaces: 'painted metal, glass',
      noise: 'engine through the floor',
      indoors: true,
      latitudeDeg: 54.5301,
      longitudeDeg: 9.019,
      needsDaylight: false,
      hazards: ['vehicle'],
      remark: '',
    },
    heard: {
      noiseDba: 45,
      noiseSlopeDb: -5,
      hum: { fundamentalHz: 43, levelDba: 50 },
      swell: 0.1,
      windMs: 0,
      walls: { sizeM: [3, 2.4, 2.2], absorption: [0.12, 0.1, 0.1, 0.1, 0.11, 0.12] },
    },
  },
};

/** What stands at a station and is heard, for who reckons with it; the takes were rendered with the bed alone. */
const SOURCES: Partial<Record<string, NoiseSource[]>> = {
  loft: [{ id: demoId('source', 'stove'), name: 'stove', kind: 'ventilation', awayM: 2.2, acrossM: -2, heightM: 0.5, levelDba: 26, moving: false, octavesDb: null }],
};

export const stationId = (key: string) => demoId('station', key);
export const STATIONS: Station[] = Object.entries(PLACES).map(([key, { station, heard }], position) => ({
  ...station,
  acoustics: {
    sizeM: heard.walls && [...heard.walls.sizeM],
    absorption: heard.walls && [...heard.walls.absorption],
    noiseDba: heard.noiseDba,
    noiseSlopeDb: heard.noiseSlopeDb,
    hum: heard.hum,
    windMs: heard.windMs,
    sources: SOURCES[key] ?? [],
  },
  id: stationId(key),
  position,
}));

/** A script with the dry clip that speaks it; null for silence. */
interface DemoScript {
  script: Omit<Script, 'id' | 'position'>;
  clip: string | null;
}

const NEUTRAL = 'The ferry leaves the landing at a quarter to nine. We have carried grain and letters over this water for sixty years.';
export const SCRIPTS_BY_KEY: Record<string, DemoScript> = {
  neutralLow: {
    script: { name: 'Neutral, Ferrier', text: NEUTRAL, purpose: 'The line every candidate is compared on.', talker: 'Ferrier (low voice)', lengthS: 12 },
    clip: 'ferrier-neutral',
  },
  neutralHigh: {
    script: { name: 'Neutral, Netmaker', text: NEUTRAL, purpose: 'The same words in a high voice.', talker: 'Netmaker (high voice)', lengthS: 12 },
    clip: 'netmaker-neutral',
  },
  plosives: {
    script: {
      name: 'Plosives, Ferrier',
      text: 'Pull the port paddle back, Peter. Both bilge pumps broke before breakfast, but the barge is built to be patched.',
      purpose: 'Breath on the capsule.',
      talker: 'Ferrier (low voice)',
      lengthS: 9,
    },
    clip: 'ferrier-plosives',
  },
  sibilants: {
    script: {
      name: 'Sibilants, Netmaker',
      text: 'Sixteen slack chains slip through the seaweed. Six swans circle as the last mist rises.',
      purpose: 'Sharpness of the top end.',
      talker: 'Netmaker (high voice)',
      lengthS: 8,
    },
    clip: 'netmaker-sibilants',
  },
  counting: {
    script: { name: 'Counting, turn at five', text: 'One to ten aloud; turn round after five.', purpose: 'Range, facing and turned.', talker: 'Ferrier (low voice)', lengthS: 9 },
    clip: 'ferrier-counting',
  },
  roomTone: { script: { name: 'Room tone', text: 'Silence. Nobody moves.', purpose: 'Noise floor of place and chain.', talker: '', lengthS: 6 }, clip: null },
};
export const scriptId = (key: string) => demoId('script', key);
export const SCRIPTS: Script[] = Object.entries(SCRIPTS_BY_KEY).map(([key, each], position) => ({ ...each.script, id: scriptId(key), position }));
