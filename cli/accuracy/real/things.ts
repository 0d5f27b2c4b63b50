import { join } from 'node:path';
import { decoded } from './decoded.ts';
import type { Half } from './talkers.ts';

/** What a recorded thing stands for when it is laid over speech. */
export type ThingKind = 'handling' | 'rustle' | 'disturbance';

interface Thing {
  kind: ThingKind;
  file: string;
  half: Half;
}

const drum = (name: string) => `usr/share/sonic-pi/samples/${name}.flac`;
const heard = (name: string) => `usr/share/games/hedgewars/Data/Sounds/${name}.ogg`;
const things = (kind: ThingKind, half: Half, files: string[]): Thing[] => files.map((file) => ({ kind, file, half }));

// Knocks are struck skins, wood and metal, before a pole, a cable or a chest takes their top; rustle is
// rubbing, scraping and crackling; the rest of the world is steps, engines, splashes and whistles.
const THINGS: Thing[] = [
  ...things('handling', 'tuning', [
    ...['drum_tom_lo_soft', 'drum_tom_mid_hard', 'bd_haus', 'perc_impact1', 'tabla_ghe2', 'tabla_ke1', 'drum_bass_soft'].map(drum),
    ...['bump', 'hammer'].map(heard),
  ]),
  ...things('handling', 'held', [
    ...['drum_tom_lo_hard', 'drum_tom_mid_soft', 'bd_boom', 'perc_impact2', 'tabla_ghe5', 'tabla_ke3', 'drum_bass_hard'].map(drum),
    ...['baseballbat', 'grenadeimpact'].map(heard),
  ]),
  ...things('rustle', 'tuning', [...['vinyl_hiss', 'perc_swash', 'vinyl_scratch'].map(drum), ...['CollectCrate', 'steps'].map(heard)]),
  ...things('rustle', 'held', [...['ambi_glass_rub', 'perc_swoosh', 'vinyl_rewind'].map(drum), ...['ropeattach', 'parachute'].map(heard)]),
  ...things('disturbance', 'tuning', [...['perc_door', 'elec_bell'].map(drum), ...['splash', 'shotgunreload', 'rcplane'].map(heard)]),
  ...things('disturbance', 'held', [...['perc_till', 'drum_cowbell'].map(drum), ...['Droplet1', 'sniperreload', 'plane'].map(heard)]),
];

export const thingsOf = (kind: ThingKind, half: Half): string[] => THINGS.filter((thing) => thing.kind === kind && thing.half === half).map(({ file }) => file);

const known = new Map<string, Float64Array>();
const SILENCE = 10 ** (-26 / 20);
const MARGIN_S = 0.005;

/** A thing from where it is heard to where it is over, 26 dB under its loudest, its peak at 1. */
export function thing(file: string, folder: string, mostS: number): Float64Array {
  const kept = known.get(`${file} ${mostS}`);
  if (kept) return kept;
  const whole = decoded(join(folder, file));
  const peak = whole.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9);
  const first = whole.findIndex((x) => Math.abs(x) > SILENCE * peak);
  let last = whole.length - 1;
  while (last > first && Math.abs(whole[last] as number) <= SILENCE * peak) last--;
  const margin = Math.round(MARGIN_S * 48_000);
  const heardOf = whole.slice(Math.max(0, first - margin), Math.min(last + margin, first + Math.round(mostS * 48_000))).map((x) => x / peak);
  // Cut off where it is too long, it fades within 50 ms: an edge would be a click of its own.
  const fade = Math.min(2400, heardOf.length);
  for (let index = 0; index < fade; index++) heardOf[heardOf.length - 1 - index] = (heardOf[heardOf.length - 1 - index] as number) * (index / fade);
  known.set(`${file} ${mostS}`, heardOf);
  return heardOf;
}
