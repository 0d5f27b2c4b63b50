import type { ByteSource } from '../../audio/byteSource.ts';
import { readBlocks } from '../../audio/readSamples.ts';
import type { WavLayout } from '../../audio/wavFormat.ts';
import { BandTrack } from '../../measure/tracks/bandTrack.ts';

/** From one step of a print to the next. */
export const PRINT_STEP_S = 0.02;
/** Bands in which a voice rises and falls by itself. */
const BANDS_HZ = [
  [150, 500],
  [500, 1500],
  [1500, 3500],
  [3500, 7000],
] as const;
export const PRINT_BANDS = BANDS_HZ.length;
const FRAME_S = 0.03;
/** What moves more slowly than this is the place (wind, an engine, a car that passes), not the performance. */
const SLOW_S = 1.5;
/** A band's own noise, from which on its level counts: the power under which a fifth of the time lies, and as much again. */
const NOISE_SHARE = 0.2;
const NOTHING = 1e-16;

/**
 * How the levels of a sound rise and fall, whatever its gain, colour and steady noise: log powers of a few bands, every
 * {@link PRINT_STEP_S}, each about its own running mean. Of several channels the sum, each as loud as the others.
 */
export interface SoundPrint {
  lengthS: number;
  /** The channel in which something rises over its noise most clearly. */
  channel: number;
  /** One curve a band; all zero where nothing stands out of the noise. */
  bands: Float32Array[];
}

/**
 * The print of a file, read once from its start to its end.
 * @param onProgress share that is read, 0 to 1
 * @example soundPrint(source, readWavHeader(source)).bands[0].length // 50 a second
 */
export function soundPrint(source: ByteSource, layout: WavLayout, onProgress: (share: number) => void = () => undefined): SoundPrint {
  const { channels, sampleRateHz, frames } = layout.format;
  const rows = BANDS_HZ.map(([low, high]) => [low, high, 1] as const);
  const tracks = Array.from({ length: channels }, () => new BandTrack(rows, sampleRateHz, FRAME_S));
  let read = 0;
  readBlocks(source, layout, (block, count) => {
    for (const [channel, track] of tracks.entries()) track.push(block[channel] as Float64Array, count);
    read += count;
    onProgress(read / Math.max(1, frames));
    return true;
  });
  for (const track of tracks) track.flush();
  const lengthS = frames / sampleRateHz;
  const steps = Math.floor(lengthS / PRINT_STEP_S);
  const clear = tracks.map(clearness);
  return { lengthS, channel: clear.indexOf(Math.max(...clear)), bands: BANDS_HZ.map((_, band) => curveOf(summed(tracks, band, steps))) };
}

/** How far what is loud stands over what is quiet, where a voice is strongest; nothing for a silent channel. */
function clearness(track: BandTrack): number {
  const powers = track.sums(1, 2).sort();
  const at = (share: number) => powers[Math.floor(share * (powers.length - 1))] ?? 0;
  return at(0.9) <= NOTHING ? 0 : at(0.9) / (at(NOISE_SHARE) + NOTHING);
}

/** Power of a band at every step, summed over the channels, each against its own mean. */
function summed(tracks: readonly BandTrack[], band: number, steps: number): Float64Array {
  const out = new Float64Array(steps);
  for (const track of tracks) {
    const powers = track.sums(band, band + 1);
    const mean = powers.reduce((sum, power) => sum + power, 0) / Math.max(1, powers.length);
    if (mean <= NOTHING) continue;
    const first = track.times()[0] ?? 0;
    for (let step = 0; step < steps; step++) {
      const at = Math.max(0, Math.min(powers.length - 1, ((step + 0.5) * PRINT_STEP_S - first) / track.hopS));
      const below = Math.floor(at);
      const [here, next] = [powers[below] as number, powers[Math.min(powers.length - 1, below + 1)] as number];
      out[step] = (out[step] as number) + (here + (at - below) * (next - here)) / mean;
    }
  }
  return out;
}

/** Levels over the noise, about their running mean. */
function curveOf(powers: Float64Array): Float32Array {
  const noise = 2 * (Float64Array.from(powers).sort()[Math.floor(powers.length * NOISE_SHARE)] ?? 0) + NOTHING;
  const sums = new Float64Array(powers.length + 1);
  for (let step = 0; step < powers.length; step++) sums[step + 1] = (sums[step] as number) + Math.log10((powers[step] as number) + noise);
  const reach = Math.round(SLOW_S / PRINT_STEP_S);
  const curve = new Float32Array(powers.length);
  for (let step = 0; step < powers.length; step++) {
    const [from, to] = [Math.max(0, step - reach), Math.min(powers.length, step + reach + 1)];
    curve[step] = (sums[step + 1] as number) - (sums[step] as number) - ((sums[to] as number) - (sums[from] as number)) / (to - from);
  }
  return curve;
}
