import type { Walls } from './imageRoom.ts';

/** What a station sounds like. Levels are sound pressure levels at the microphone, in dB A. */
export interface SimulatedPlace {
  /** Steady noise of the place. */
  noiseDba: number;
  /** Slope of that noise: 0 white, -3 pink, -6 brown, in dB per octave. */
  noiseSlopeDb: number;
  /** An engine or a machine: fundamental and level of its harmonics; null where there is none. */
  hum: { fundamentalHz: number; levelDba: number } | null;
  /** Slow rise and fall of the noise, as water laps or traffic passes: 0 steady, 1 deep. */
  swell: number;
  /** Mean wind speed in m/s; gusts come on top. */
  windMs: number;
  /** The room; null outdoors. */
  walls: Walls | null;
}
