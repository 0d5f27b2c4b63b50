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
// rubbing, scraping and crackling; the rest of the world is steps, engines, splashes, bells and whistles.
const THINGS: Thing[] = [
  ...things('handling', 'tuning', [
    ...['drum_tom_lo_soft', 'drum_tom_mid_hard', 'drum_tom_hi_soft', 'bd_haus', 'bd_pure', 'bd_fat', 'bd_zum', 'bd_klub', 'bd_ada', 'perc_impact1', 'drum_bass_soft'].map(drum),
    ...['tabla_ghe1', 'tabla_ghe2', 'tabla_ghe4', 'tabla_ghe7', 'tabla_ke1', 'tabla_te1', 'tabla_na', 'tabla_dhec', 'elec_soft_kick', 'elec_wood'].map(drum),
    ...['bump', 'hammer', 'mineimpact', 'graveimpact', 'airmine_impact', 'frozen_hog_impact', 'pickhammer'].map(heard),
  ]),
  ...things('handling', 'held', [
    ...['drum_tom_lo_hard', 'drum_tom_mid_soft', 'drum_tom_hi_hard', 'bd_boom', 'bd_tek', 'bd_gas', 'bd_sone', 'bd_zome', 'perc_impact2', 'drum_bass_hard'].map(drum),
    ...['tabla_ghe3', 'tabla_ghe5', 'tabla_ghe6', 'tabla_ghe8', 'tabla_ke2', 'tabla_ke3', 'tabla_te2', 'tabla_re', 'drum_heavy_kick', 'elec_hollow_kick'].map(drum),
    ...['baseballbat', 'grenadeimpact', 'melonimpact', 'knife_impact', 'firepunch_hit', 'placed'].map(heard),
  ]),
  ...things('rustle', 'tuning', [
    ...['vinyl_hiss', 'perc_swash', 'vinyl_scratch', 'ambi_swoosh'].map(drum),
    ...['CollectCrate', 'steps', 'roperelease', 'steam', 'jetpackboost', 'skip'].map(heard),
  ]),
  ...things('rustle', 'held', [
    ...['ambi_glass_rub', 'perc_swoosh', 'vinyl_rewind', 'vinyl_backspin'].map(drum),
    ...['ropeattach', 'parachute', 'throwrelease', 'flamethrower', 'blowtorch', 'molotov'].map(heard),
  ]),
  ...things('disturbance', 'tuning', [
    ...['perc_door', 'elec_bell', 'perc_bell', 'elec_triangle', 'elec_chime', 'elec_tick', 'misc_crow', 'drum_cymbal_pedal', 'elec_ping'].map(drum),
    ...['splash', 'shotgunreload', 'rcplane', 'Droplet2', 'minetick', 'whipcrack', 'egg', 'beep', 'bee', 'shotgunfire', 'ufo'].map(heard),
  ]),
  ...things('disturbance', 'held', [
    ...['perc_till', 'drum_cowbell', 'perc_bell2', 'elec_beep', 'elec_bong', 'drum_cymbal_closed', 'elec_plip', 'elec_twip', 'elec_pop'].map(drum),
    ...['Droplet1', 'sniperreload', 'plane', 'Droplet3', 'shutterclick', 'Whistle', 'rubberduck_drop', 'switchhog', 'minigun', 'mortar', 'planewater'].map(heard),
  ]),
];

export const thingsOf = (kind: ThingKind, half: Half): string[] => THINGS.filter((thing) => thing.kind === kind && thing.half === half).map(({ file }) => file);

const known = new Map<string, Float64Array>();
const SILENCE = 10 ** (-26 / 20);
const MARGIN_S = 0.005;

/** A thing from where it is heard to where it is over, 26 dB under its loudest, its peak at 1. */
export function thing(file: string, folder: string, mostS: number): Float64Array {
  const kept = known.get(`${file} ${mostS}`);
  if (kept) return kept;
  const whole = decoded(folder, file);
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
