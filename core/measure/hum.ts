import { Decimator } from '../audio/decimator.ts';

const MAINS_HZ = [50, 60] as const;
/** Mains wander by this much. */
const WANDER_HZ = 0.3;
const WANDER_STEPS = 3;
const HIGHEST_HZ = 1000;
const LOWEST_RATE_HZ = 2500;
/** A stretch must hold some periods of the mains. */
const SHORTEST_S = 0.25;
/** Besides each line, at this many widths of it, lies what is no hum. */
const BESIDE = 2;

/**
 * Power of the mains at 50 or 60 Hz with its harmonics up to 1 kHz, of what is over the noise beside each
 * line; where nothing is, the power that hum could have without being seen.
 * @param stretches samples of calm pauses
 * @returns null where no stretch is long enough
 */
export function humPower(stretches: readonly Float64Array[], sampleRateHz: number): number | null {
  const halvings = Math.max(0, Math.floor(Math.log2(sampleRateHz / LOWEST_RATE_HZ)));
  const rateHz = sampleRateHz / 2 ** halvings;
  const slow = stretches.filter((samples) => samples.length >= SHORTEST_S * sampleRateHz).map((samples) => decimated(samples, halvings));
  if (slow.length === 0) return null;
  const droop = new Decimator(halvings);
  const length = slow.reduce((sum, samples) => sum + samples.length, 0);
  let most = 0;
  let unseen = Number.POSITIVE_INFINITY;
  for (const mains of MAINS_HZ) {
    for (let step = -WANDER_STEPS; step <= WANDER_STEPS; step++) {
      const hz = mains + (step * WANDER_HZ) / WANDER_STEPS;
      let hum = 0;
      let noise = 0;
      for (let harmonic = 1; harmonic * hz <= HIGHEST_HZ; harmonic++) {
        const gain = 10 ** (-droop.gainDb(harmonic * hz, sampleRateHz) / 10);
        let line = 0;
        let beside = 0;
        for (const samples of slow) {
          const width = (BESIDE * 2 * rateHz) / samples.length;
          const share = samples.length / length;
          line += share * linePower(samples, harmonic * hz, rateHz);
          beside += (share * (linePower(samples, harmonic * hz - width, rateHz) + linePower(samples, harmonic * hz + width, rateHz))) / 2;
        }
        noise += gain * beside;
        // Chance alone brings a line over its neighbours; four times their power it does not.
        if (line > 4 * beside) hum += gain * (line - beside);
      }
      most = Math.max(most, hum);
      unseen = Math.min(unseen, noise);
    }
  }
  return most > 0 ? most : unseen;
}

/** Power of a sine of one frequency, seen through a Hann window. */
function linePower(samples: Float64Array, hz: number, rateHz: number): number {
  const count = samples.length;
  const turn = (2 * Math.PI * hz) / rateHz;
  const windowTurn = (2 * Math.PI) / count;
  let real = 0;
  let imaginary = 0;
  // Two rotating pointers instead of a sine and a cosine for every sample.
  let [c, s] = [1, 0];
  let [wc, ws] = [1, 0];
  const [dc, ds, dwc, dws] = [Math.cos(turn), Math.sin(turn), Math.cos(windowTurn), Math.sin(windowTurn)];
  for (let index = 0; index < count; index++) {
    const x = (samples[index] as number) * (1 - wc);
    real += x * c;
    imaginary += x * s;
    const turned = c * dc - s * ds;
    s = s * dc + c * ds;
    c = turned;
    const windowTurned = wc * dwc - ws * dws;
    ws = ws * dwc + wc * dws;
    wc = windowTurned;
  }
  return (2 * (real * real + imaginary * imaginary)) / (count * count);
}

function decimated(samples: Float64Array, halvings: number): Float64Array {
  const decimator = new Decimator(halvings);
  const out = new Float64Array(Math.ceil(samples.length / 2 ** halvings) + 8);
  const block = new Float64Array(8192);
  let kept = 0;
  for (let start = 0; start < samples.length; start += 8192) {
    const part = samples.subarray(start, Math.min(samples.length, start + 8192));
    const count = decimator.process(part, part.length, block);
    out.set(block.subarray(0, count), kept);
    kept += count;
  }
  return out.subarray(0, kept);
}
