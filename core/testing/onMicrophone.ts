import { Cascade, highPass, highShelf } from '../audio/biquad.ts';
import { interpolated } from '../audio/resample.ts';
import { convolved } from '../simulate/convolve.ts';
import { rmsOf } from '../simulate/noiseBed.ts';
import { randomSource } from '../simulate/random.ts';

/** A microphone and its recorder, as they hear a performance. */
export interface HeardBy {
  /** Seconds that the recorder ran before the performance began, and after it ended; less than nothing came too late, or stopped too early. */
  beforeS: number;
  afterS: number;
  /** Voice over the microphone's own noise, in dB. */
  snrDb: number;
  gainDb: number;
  /** Level above 2.5 kHz. */
  shelfDb: number;
  /** Energy of the room's tail against the direct sound, and how long it rings. */
  room: { share: number; decayS: number };
  driftPpm: number;
  seed: number;
}

/** A performance as one microphone has it: late or early, coloured, in a room, with noise and a clock of its own. */
export function onMicrophone(dry: Float64Array, { beforeS, afterS, snrDb, gainDb, shelfDb, room, driftPpm, seed }: HeardBy, rateHz: number): Float64Array {
  const random = randomSource(seed);
  const response = new Float64Array(Math.max(1, Math.round(0.8 * room.decayS * rateHz)));
  let energy = 0;
  for (let frame = 1; frame < response.length; frame++) {
    response[frame] = random.normal() * 10 ** ((-3 * frame) / rateHz / room.decayS);
    energy += (response[frame] as number) ** 2;
  }
  for (let frame = 1; frame < response.length; frame++) response[frame] = (response[frame] as number) * Math.sqrt(room.share / Math.max(1e-12, energy));
  response[0] = 1;
  const voice = convolved(dry, response);
  const [before, after] = [Math.round(beforeS * rateHz), Math.round(afterS * rateHz)];
  const out = new Float64Array(Math.max(0, voice.length + before + after));
  for (let frame = 0; frame < out.length; frame++) out[frame] = voice[frame - before] ?? 0;
  new Cascade([highShelf(2500, shelfDb, rateHz), highPass(80, Math.SQRT1_2, rateHz)]).process(out, out, out.length);
  const noise = rmsOf(voice) / 10 ** (snrDb / 20);
  const gain = 10 ** (gainDb / 20);
  for (let frame = 0; frame < out.length; frame++) out[frame] = gain * ((out[frame] as number) + noise * random.normal());
  return interpolated(out, 0, 1 + driftPpm * 1e-6, out.length);
}
