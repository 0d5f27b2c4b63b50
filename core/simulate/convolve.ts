import { fftOf } from '../audio/fftOf.ts';

/** Convolution of a signal with a response by the fast transform, as long as the signal. */
export function convolved(signal: Float64Array, response: Float64Array): Float64Array {
  // Blocks a few times as long as the response: one transform of everything would cost more time and memory.
  const size = 2 ** Math.ceil(Math.log2(Math.max(2048, 4 * response.length)));
  const step = size - response.length + 1;
  const fft = fftOf(size);
  const complex = () => new Float64Array(2 * size);
  const [block, spectrum, filter] = [complex(), complex(), complex()];
  for (let index = 0; index < response.length; index++) block[2 * index] = response[index] as number;
  fft.transform(filter, block);
  const out = new Float64Array(signal.length);
  // Two blocks at once, one as the real part and one as the imaginary: a real response keeps them apart.
  for (let start = 0; start < signal.length; start += 2 * step) {
    block.fill(0);
    for (let part = 0; part < 2; part++) {
      const samples = signal.subarray(start + part * step, start + (part + 1) * step);
      for (let index = 0; index < samples.length; index++) block[2 * index + part] = samples[index] as number;
    }
    fft.transform(spectrum, block);
    for (let index = 0; index < spectrum.length; index += 2) {
      const [re, im] = [spectrum[index] as number, spectrum[index + 1] as number];
      spectrum[index] = re * (filter[index] as number) - im * (filter[index + 1] as number);
      spectrum[index + 1] = re * (filter[index + 1] as number) + im * (filter[index] as number);
    }
    fft.inverseTransform(block, spectrum);
    for (let part = 0; part < 2; part++) {
      const from = start + part * step;
      const frames = Math.min(size, signal.length - from);
      for (let index = 0; index < frames; index++) out[from + index] = (out[from + index] as number) + (block[2 * index + part] as number);
    }
  }
  return out;
}
