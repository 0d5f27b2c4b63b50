import { fftOf } from '../audio/fftOf.ts';

/** Middles of the octave bands in which walls absorb differently, in Hz; the first reaches down to nothing, the last up to the top. */
export const ROOM_BANDS_HZ = [125, 250, 500, 1000, 2000, 4000] as const;

/** Half the width of the change from one band to the next, in octaves. */
const HALF_CHANGE_OCTAVES = 0.25;

/**
 * Sum of signals of which each counts in its own octave band. At every frequency the shares add up to 1
 * without a shift of phase, so that a pulse that is alike in all bands comes out as it went in, and no
 * band leaks into one two octaves away: a filter with a slope would let a band that rings long cover
 * the end of its neighbour.
 * @param bands one signal for each of ROOM_BANDS_HZ, all of one length
 */
export function sumOfBands(bands: readonly Float64Array[], rateHz: number): Float64Array {
  const length = bands[0]?.length ?? 0;
  const transform = spectrumOf(length);
  const sum = new Float64Array(transform.size + 2);
  const shares = bandShares(transform.size, rateHz);
  bands.forEach((signal, band) => {
    const spectrum = transform.forward(signal);
    const own = shares[band] as Float64Array;
    for (let bin = 0; bin <= transform.size / 2; bin++) {
      const share = own[bin] as number;
      sum[2 * bin] = (sum[2 * bin] as number) + share * (spectrum[2 * bin] as number);
      sum[2 * bin + 1] = (sum[2 * bin + 1] as number) + share * (spectrum[2 * bin + 1] as number);
    }
  });
  return transform.back(sum, length);
}

/** A signal with a gain of its own in each octave band. */
export function withBandGains(signal: Float64Array, gains: readonly number[], rateHz: number): Float64Array {
  if (gains.every((gain) => gain === gains[0])) return signal.map((x) => x * (gains[0] as number));
  const transform = spectrumOf(signal.length);
  const spectrum = transform.forward(signal);
  const shares = bandShares(transform.size, rateHz);
  for (let bin = 0; bin <= transform.size / 2; bin++) {
    let gain = 0;
    for (let band = 0; band < shares.length; band++) gain += (gains[band] as number) * ((shares[band] as Float64Array)[bin] as number);
    spectrum[2 * bin] = (spectrum[2 * bin] as number) * gain;
    spectrum[2 * bin + 1] = (spectrum[2 * bin + 1] as number) * gain;
  }
  return transform.back(spectrum, signal.length);
}

const sharesOf = new Map<string, Float64Array[]>();
/** Transforms of so few sizes are asked for again and again. */
const MOST_KEPT = 6;

/** How much each band counts in each bin of a transform; kept, since logarithms of all bins cost more than the transform. */
function bandShares(size: number, rateHz: number): Float64Array[] {
  return kept(sharesOf, `${size}/${rateHz}`, () =>
    ROOM_BANDS_HZ.map((_, band) => {
      const shares = new Float64Array(size / 2 + 1);
      for (let bin = 0; bin < shares.length; bin++) shares[bin] = bandShare(band, (bin * rateHz) / size);
      return shares;
    }),
  );
}

/** A value of a map, made where it is not there yet; the oldest goes when there are too many. */
function kept<Key, Value>(map: Map<Key, Value>, key: Key, make: () => Value): Value {
  let value = map.get(key);
  if (value === undefined) {
    value = make();
    if (map.size >= MOST_KEPT) map.delete(map.keys().next().value as Key);
    map.set(key, value);
  }
  return value;
}

/** How much a band counts at a frequency, 0 to 1. */
function bandShare(band: number, frequencyHz: number): number {
  const from = band === 0 ? 1 : passedShare(frequencyHz, (ROOM_BANDS_HZ[band] as number) / Math.SQRT2);
  const to = band === ROOM_BANDS_HZ.length - 1 ? 0 : passedShare(frequencyHz, (ROOM_BANDS_HZ[band] as number) * Math.SQRT2);
  return from - to;
}

/** From 0 well below an edge to 1 well above it. */
function passedShare(frequencyHz: number, edgeHz: number): number {
  const octaves = Math.log2(Math.max(1e-9, frequencyHz) / edgeHz) / HALF_CHANGE_OCTAVES;
  return octaves <= -1 ? 0 : octaves >= 1 ? 1 : 0.5 + 0.5 * Math.sin((Math.PI / 2) * octaves);
}

/** What a band sends ahead of itself, in samples; it must not come round to the end. */
const ROOM_FOR_RINGING = 8192;

function spectrumOf(length: number) {
  const size = 2 ** Math.ceil(Math.log2(length + ROOM_FOR_RINGING));
  const fft = fftOf(size);
  const padded = new Float64Array(size);
  const whole = new Float64Array(2 * size);
  return {
    size,
    /** Real and imaginary parts in turn, up to half the sample rate. */
    forward(signal: Float64Array): Float64Array {
      padded.fill(0);
      padded.set(signal);
      const out = new Float64Array(2 * size);
      fft.realTransform(out, padded);
      return out;
    },
    back(half: Float64Array, frames: number): Float64Array {
      whole.fill(0);
      whole.set(half.subarray(0, size + 2));
      fft.completeSpectrum(whole);
      const out = new Float64Array(2 * size);
      fft.inverseTransform(out, whole);
      const signal = new Float64Array(frames);
      for (let index = 0; index < frames; index++) signal[index] = out[2 * index] as number;
      return signal;
    },
  };
}
