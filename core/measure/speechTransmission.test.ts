import { describe, expect, it } from 'vitest';
import { speechTransmissionIndex } from './speechTransmission.ts';

const alike = (snrDb: number) => [snrDb, snrDb, snrDb, snrDb, snrDb, snrDb, snrDb];

describe('speech transmission index (IEC 60268-16)', () => {
  it.each([
    [60, 1],
    [15, 1],
    [0, 0.5],
    [-7.5, 0.25],
    [-15, 0],
    [-40, 0],
  ])('noise alone, speech %i dB over it in every octave: (snr + 15) / 30 = %f', (snrDb, index) => {
    expect(speechTransmissionIndex(alike(snrDb), 0, 0)).toBeCloseTo(index, 2);
  });

  it.each([0.4, 0.8, 1.5, 2.5])('a room alone that rings for %f s: as the squared impulse response itself is modulated', (decayS) => {
    // The modulation transfer of a response is the Fourier transform of its square, which is an exponential; summed here step by step.
    const transfer = (hz: number) => {
      let [real, imaginary, whole] = [0, 0, 0];
      for (let at = 0; at < 3 * decayS; at += 0.0005) {
        const power = 10 ** ((-6 * at) / decayS);
        real += power * Math.cos(2 * Math.PI * hz * at);
        imaginary += power * Math.sin(2 * Math.PI * hz * at);
        whole += power;
      }
      return Math.hypot(real, imaginary) / whole;
    };
    const indices = Array.from({ length: 14 }, (_, step) => transfer(0.63 * 10 ** (step / 10))).map((m) => (Math.min(15, Math.max(-15, 10 * Math.log10(m / (1 - m)))) + 15) / 30);
    expect(speechTransmissionIndex(alike(60), decayS, 0)).toBeCloseTo(indices.reduce((sum, each) => sum + each, 0) / 14, 2);
  });

  it('direct sound makes a room clearer, and an endless lot of it makes it the open air', () => {
    const far = speechTransmissionIndex(alike(60), 2, 0);
    expect(speechTransmissionIndex(alike(60), 2, 1)).toBeGreaterThan(far + 0.1);
    expect(speechTransmissionIndex(alike(60), 2, 1e9)).toBeCloseTo(1, 2);
  });

  it('the octaves of 1 to 4 kHz weigh most', () => {
    const lost = (octave: number) =>
      speechTransmissionIndex(
        alike(15).map((snr, index) => (index === octave ? -15 : snr)),
        0,
        0,
      );
    for (const octave of [0, 1]) expect(lost(octave)).toBeGreaterThan(lost(4));
  });
});
