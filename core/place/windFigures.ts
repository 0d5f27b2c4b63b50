import { aWeightingDb } from '../audio/weighting.ts';
import { SCREEN_NAMES, screenOf, windLevelDb } from '../simulate/windNoise.ts';

/** Voice over wind behind one screen. */
export interface WindBehind {
  screen: (typeof SCREEN_NAMES)[number];
  /** Wind at the capsule, in dB A. */
  windDba: number;
  overDb: number;
  /** Up to this wind the voice stands so far over it that nobody minds. */
  holdsToMs: number;
}

/** Screens of one kind differ by so much to either side, from make to make and by how they are put on. */
export const WIND_DOUBT_DB = 6;
/** Under this wind is heard under every word. */
export const NOBODY_MINDS_DB = 20;

const LOWEST_OCTAVE_HZ = 16;
const OCTAVES = 10;

/** How much of the wind's level behind a screen the A weighting leaves, in dB. */
function weightedShareDb(screen: string): number {
  const perOctaveDb = screenOf(screen).slopeDb + 10 * Math.log10(2);
  let [all, weighted] = [0, 0];
  for (let octave = 0; octave < OCTAVES; octave++) {
    const power = 10 ** ((octave * perOctaveDb) / 10);
    all += power;
    weighted += power * 10 ** (aWeightingDb(LOWEST_OCTAVE_HZ * 2 ** octave) / 10);
  }
  return 10 * Math.log10(weighted / all);
}

/**
 * Wind against each screen, as the simulator has it: with a doubt of 6 dB to either side, since screens differ.
 * @param voiceDba voice at the capsule
 */
export function windAgainstScreens(speedMs: number, voiceDba: number): WindBehind[] {
  return SCREEN_NAMES.map((screen) => {
    const share = weightedShareDb(screen);
    const windDba = windLevelDb({ speedMs, screen, sensitivityDb: 0 }) + share;
    const overDb = voiceDba - windDba;
    return { screen, windDba, overDb, holdsToMs: speedMs * 2 ** ((overDb - NOBODY_MINDS_DB) / 17) };
  });
}
