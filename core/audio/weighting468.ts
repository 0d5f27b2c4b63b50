import FFT from 'fft.js';

/**
 * Gain and phase of the noise weighting of ITU-R BS.468-4, by the rational function that its network
 * gives; 0 dB at 1 kHz. Complex gain as [re, im].
 */
export function weighting468(frequencyHz: number): [number, number] {
  const f = frequencyHz;
  const real = 1 - 1.363894795463638e-7 * f ** 2 + 2.043828333606125e-15 * f ** 4 - 4.737338981378384e-24 * f ** 6;
  const imaginary = 5.559488023498642e-4 * f - 2.118150887518656e-11 * f ** 3 + 1.306612257412824e-19 * f ** 5;
  const top = 1.246332637532143e-4 * f * UNITY_AT_1KHZ;
  const square = real * real + imaginary * imaginary;
  // j·top / (real + j·imaginary)
  return [(top * imaginary) / square, (top * real) / square];
}

const UNITY_AT_1KHZ = 10 ** (18.246265068039158 / 20);

/** The 468 weighting in dB. */
export function weighting468Db(frequencyHz: number): number {
  return 20 * Math.log10(Math.hypot(...weighting468(frequencyHz)));
}

/**
 * Filters a stream by the 468 weighting at any sample rate: its gain and phase are applied to the
 * spectrum of overlapping blocks, so that nothing is lost to a transform near half the sample rate.
 * @returns the filtered samples, as long as the input
 */
export function filter468(samples: Float64Array, sampleRateHz: number): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(sampleRateHz * 0.02));
  const half = size / 2;
  const fft = new FFT(size);
  const block = fft.createComplexArray() as number[];
  const spectrum = fft.createComplexArray() as number[];
  const gains = Array.from({ length: half + 1 }, (_, bin) => weighting468((bin * sampleRateHz) / size));
  const out = new Float64Array(samples.length);
  // Overlap-save: the first half of each block only makes up for what rings on from before it.
  for (let start = 0; start < samples.length; start += half) {
    for (let index = 0; index < size; index++) {
      block[2 * index] = samples[start - half + index] ?? 0;
      block[2 * index + 1] = 0;
    }
    fft.transform(spectrum, block);
    for (let bin = 0; bin <= half; bin++) {
      const [re, im] = gains[bin] as [number, number];
      multiply(spectrum, bin, re, bin === half ? 0 : im);
      if (bin > 0 && bin < half) multiply(spectrum, size - bin, re, -im);
    }
    fft.inverseTransform(block, spectrum);
    const end = Math.min(half, samples.length - start);
    for (let index = 0; index < end; index++) out[start + index] = block[2 * (half + index)] as number;
  }
  return out;
}

function multiply(spectrum: number[], bin: number, re: number, im: number): void {
  const a = spectrum[2 * bin] as number;
  const b = spectrum[2 * bin + 1] as number;
  spectrum[2 * bin] = a * re - b * im;
  spectrum[2 * bin + 1] = a * im + b * re;
}
