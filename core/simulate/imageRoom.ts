import FFT from 'fft.js';
import { Cascade, highPass, lowPass } from '../audio/biquad.ts';
import { type MicrophonePattern, patternGain } from './microphone.ts';
import type { RandomSource } from './random.ts';

const SPEED_OF_SOUND_MS = 343;
/** Middles of the octave bands in which walls absorb differently. */
export const ROOM_BANDS_HZ = [125, 250, 500, 1000, 2000, 4000] as const;

/** A box with a talker and a microphone in it. Lengths in metres from one corner. */
export interface ImageRoom {
  sizeM: readonly [number, number, number];
  /** Share of the energy that all surfaces take up, one an octave band from 125 Hz to 4 kHz. */
  absorption: readonly number[];
  talkerM: readonly [number, number, number];
  microphoneM: readonly [number, number, number];
  pattern: MicrophonePattern;
}

/** Reverberation time by Eyring's formula, one an octave band, in seconds. */
export function eyringS({ sizeM: [x, y, z], absorption }: Pick<ImageRoom, 'sizeM' | 'absorption'>): number[] {
  const volume = x * y * z;
  const surface = 2 * (x * y + y * z + x * z);
  return absorption.map((share) => (0.161 * volume) / (-surface * Math.log(1 - share)));
}

/**
 * Impulse response of a box room by image sources: every mirror image of the talker sends its sound
 * straight, weakened by its distance, by each wall it passed, band by band, and by the pattern of the
 * microphone, which points at the talker. Images are moved by a few centimetres at random, since no real
 * room is so regular that they would beat.
 * @returns the response, the direct sound at gain 1 / distance
 */
export function roomResponse(room: ImageRoom, rateHz: number, lengthS: number, random: RandomSource): Float64Array {
  const length = Math.round(lengthS * rateHz);
  const bands = ROOM_BANDS_HZ.map(() => new Float64Array(length));
  const axis = direction(room.microphoneM, room.talkerM);
  const orders = room.sizeM.map((size) => Math.ceil((lengthS * SPEED_OF_SOUND_MS) / size / 2) + 1);
  const reach = lengthS * SPEED_OF_SOUND_MS;
  const imageAlong = (dimension: number, index: number, mirrored: number) =>
    2 * index * (room.sizeM[dimension] as number) + (mirrored ? -1 : 1) * (room.talkerM[dimension] as number);
  for (let nx = -(orders[0] as number); nx <= (orders[0] as number); nx++) {
    for (let ny = -(orders[1] as number); ny <= (orders[1] as number); ny++) {
      for (let nz = -(orders[2] as number); nz <= (orders[2] as number); nz++) {
        for (let mirror = 0; mirror < 8; mirror++) {
          const [mx, my, mz] = [mirror & 1, (mirror >> 1) & 1, (mirror >> 2) & 1];
          const hits = Math.abs(2 * nx - mx) + Math.abs(2 * ny - my) + Math.abs(2 * nz - mz);
          const jitter = hits === 0 ? 0 : 0.04 * random.normal();
          const at = [imageAlong(0, nx, mx) + jitter, imageAlong(1, ny, my) + jitter, imageAlong(2, nz, mz) + jitter] as const;
          const way = [at[0] - room.microphoneM[0], at[1] - room.microphoneM[1], at[2] - room.microphoneM[2]] as const;
          const distance = Math.max(0.1, Math.hypot(...way));
          const sample = Math.round((distance / SPEED_OF_SOUND_MS) * rateHz);
          if (distance > reach || sample >= length) continue;
          const angle = Math.acos(Math.max(-1, Math.min(1, (way[0] * axis[0] + way[1] * axis[1] + way[2] * axis[2]) / distance)));
          for (let band = 0; band < bands.length; band++) {
            const kept = (1 - (room.absorption[band] as number)) ** (hits / 2);
            const into = bands[band] as Float64Array;
            into[sample] = (into[sample] as number) + (kept / distance) * patternGain(room.pattern, angle, ROOM_BANDS_HZ[band] as number);
          }
        }
      }
    }
  }
  return sumOfBands(bands, rateHz);
}

function direction(from: readonly [number, number, number], to: readonly [number, number, number]): [number, number, number] {
  const way = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
  const distance = Math.max(1e-6, Math.hypot(...way));
  return [way[0] / distance, way[1] / distance, way[2] / distance];
}

/** Each band through its own part of the spectrum; the parts add up to the whole, since each is a difference of low-passes. */
function sumOfBands(bands: readonly Float64Array[], rateHz: number): Float64Array {
  const out = new Float64Array(bands[0]?.length ?? 0);
  const edges = ROOM_BANDS_HZ.slice(0, -1).map((hz) => hz * Math.SQRT2);
  const below = (signal: Float64Array, hz: number) => {
    const passed = new Float64Array(signal.length);
    new Cascade([lowPass(hz, Math.SQRT1_2, rateHz)]).process(signal, passed, signal.length);
    return passed;
  };
  bands.forEach((signal, band) => {
    const top = edges[band] === undefined ? signal : below(signal, edges[band]);
    const bottom = band === 0 ? null : below(signal, edges[band - 1] as number);
    for (let index = 0; index < out.length; index++) out[index] = (out[index] as number) + (top[index] as number) - (bottom?.[index] ?? 0);
  });
  new Cascade([highPass(25, Math.SQRT1_2, rateHz)]).process(out, out, out.length);
  return out;
}

/** Time in which the energy still to come of a response falls by 60 dB, read from -5 to -25 dB (Schroeder's backward sum). */
export function decayTimeOfResponseS(response: Float64Array, rateHz: number): number {
  let remaining = 0;
  const energies = new Float64Array(response.length);
  for (let index = response.length - 1; index >= 0; index--) {
    remaining += (response[index] as number) ** 2;
    energies[index] = remaining;
  }
  const levelAt = (index: number) => 10 * Math.log10((energies[index] as number) / remaining);
  let first = 0;
  while (levelAt(first) > -5) first++;
  let last = first;
  while (last < response.length - 1 && levelAt(last) > -25) last++;
  return (60 * (last - first)) / rateHz / (levelAt(first) - levelAt(last));
}

/** Convolution of a signal with a response by the fast transform, as long as the signal. */
export function convolved(signal: Float64Array, response: Float64Array): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(signal.length + response.length));
  const fft = new FFT(size);
  const spectrumOf = (samples: Float64Array) => {
    const block = fft.createComplexArray() as number[];
    const out = fft.createComplexArray() as number[];
    for (let index = 0; index < block.length; index++) block[index] = index % 2 === 0 ? (samples[index / 2] ?? 0) : 0;
    fft.transform(out, block);
    return out;
  };
  const a = spectrumOf(signal);
  const b = spectrumOf(response);
  for (let index = 0; index < a.length; index += 2) {
    const [re, im] = [a[index] as number, a[index + 1] as number];
    a[index] = re * (b[index] as number) - im * (b[index + 1] as number);
    a[index + 1] = re * (b[index + 1] as number) + im * (b[index] as number);
  }
  fft.inverseTransform(b, a);
  return Float64Array.from({ length: signal.length }, (_, index) => b[2 * index] as number);
}
