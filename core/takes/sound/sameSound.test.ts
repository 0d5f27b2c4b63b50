import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bufferSource } from '../../audio/byteSource.ts';
import { filled } from '../../audio/filled.ts';
import { readChannel } from '../../audio/readSamples.ts';
import { readWavHeader } from '../../audio/readWavHeader.ts';
import { interpolated, resample } from '../../audio/resample.ts';
import { writeWav } from '../../audio/writeWav.ts';
import { fileTrack } from '../../measure/pair/track.ts';
import { type HeardBy, onMicrophone } from '../../testing/onMicrophone.ts';
import { silence, whiteNoise } from '../../testing/signals.ts';
import { likenesses } from './likeness.ts';
import { type PrintedSound, sameSound } from './sameSound.ts';
import { PRINT_STEP_S, soundPrint } from './soundPrint.ts';

const RATE_HZ = 48_000;
const voices = new Map<string, Float64Array>();

function voice(name: string): Float64Array {
  const known = voices.get(name);
  if (known) return known;
  const source = bufferSource(readFileSync(new URL(`../../simulate/voices/${name}.wav`, import.meta.url)));
  const layout = readWavHeader(source);
  const read = resample(readChannel(source, layout, 0), layout.format.sampleRateHz, RATE_HZ);
  voices.set(name, read);
  return read;
}

function printed(id: string, channels: Float64Array[], sampleRateHz = RATE_HZ): PrintedSound {
  const source = bufferSource(writeWav(channels, { encoding: 'pcm', bitDepth: 24, sampleRateHz }));
  const layout = readWavHeader(source);
  const print = soundPrint(source, layout);
  return { id, print, track: fileTrack(source, layout, print.channel) };
}

const CLOSE: HeardBy = { beforeS: 1.2, afterS: 2, snrDb: 30, gainDb: -6, shelfDb: -9, room: { share: 0.05, decayS: 0.3 }, driftPpm: 12, seed: 1 };
const FAR: HeardBy = { beforeS: 4.7, afterS: 1, snrDb: 9, gainDb: -24, shelfDb: 2, room: { share: 1.2, decayS: 0.5 }, driftPpm: -25, seed: 2 };
const onTwo = (name: string, change: Partial<HeardBy> = {}) =>
  [printed('close', [onMicrophone(voice(name), CLOSE, RATE_HZ)]), printed('far', [onMicrophone(voice(name), { ...FAR, ...change }, RATE_HZ)])] as const;

describe('the same moment on two microphones', () => {
  it.each(['ferrier-neutral', 'netmaker-neutral', 'netmaker-plosives'])('%s is found, however they are coloured, and lies to the millisecond', (name) => {
    const link = sameSound(...onTwo(name));
    expect(link).toMatchObject({ a: 'close', b: 'far', exact: true });
    expect(Math.abs((link?.lagS ?? 0) - (FAR.beforeS - CLOSE.beforeS))).toBeLessThan(0.002);
    expect(link?.confidence).toBeGreaterThan(0.9);
  });

  it('one that came too late and stopped too early is found as well', () => {
    const link = sameSound(...onTwo('ferrier-neutral', { beforeS: -2, afterS: -1 }));
    expect(Math.abs((link?.lagS ?? 0) + 2 + CLOSE.beforeS)).toBeLessThan(0.002);
  });

  it('a file of another rate, and a file whose first channel is silent', () => {
    const close = printed('close', [onMicrophone(voice('ferrier-neutral'), CLOSE, RATE_HZ)]);
    const other = onMicrophone(voice('ferrier-neutral'), FAR, RATE_HZ);
    const slower = printed('far', [resample(other, RATE_HZ, 44_100)], 44_100);
    expect(Math.abs((sameSound(close, slower)?.lagS ?? 0) - 3.5)).toBeLessThan(0.002);
    const second = printed('far', [silence(other.length / RATE_HZ), other]);
    expect(second.print.channel).toBe(1);
    expect(Math.abs((sameSound(close, second)?.lagS ?? 0) - 3.5)).toBeLessThan(0.002);
  });
});

describe('no link may be made', () => {
  const close = printed('close', [onMicrophone(voice('ferrier-neutral'), CLOSE, RATE_HZ)]);

  it('between the same words by another talker', () => {
    expect(sameSound(close, printed('other', [onMicrophone(voice('netmaker-neutral'), FAR, RATE_HZ)]))).toBeNull();
  });

  it('between the same words said again, a little faster and slower in turn', () => {
    const dry = voice('ferrier-neutral');
    const again = filled(dry.length, (frame) => dry[Math.round(frame + 0.12 * RATE_HZ * Math.sin((2 * Math.PI * frame) / (3 * RATE_HZ)))] ?? 0);
    expect(sameSound(close, printed('again', [onMicrophone(again, FAR, RATE_HZ)]))).toBeNull();
  });

  it('between other words by the same talker', () => {
    expect(sameSound(close, printed('other', [onMicrophone(voice('ferrier-sibilants'), FAR, RATE_HZ)]))).toBeNull();
  });

  it.each([
    ['noise', whiteNoise(-40, 12, 5), whiteNoise(-40, 12, 6)],
    ['silence', silence(12), silence(12)],
    ['a click', filled(12 * RATE_HZ, (frame) => (frame === 90_000 ? 0.9 : 0)), whiteNoise(-60, 12, 7)],
    ['a moment too short to say anything', voice('ferrier-neutral').subarray(0, 4000), voice('ferrier-neutral').subarray(3000, 7000)],
    ['nothing', new Float64Array(10), new Float64Array(10)],
  ])('with %s', (_name, samples, others) => {
    expect(sameSound(close, printed('other', [samples]))).toBeNull();
    expect(sameSound(printed('other', [samples]), printed('third', [others]))).toBeNull();
  });
});

describe('a print', () => {
  it('does not change with gain or polarity', () => {
    const dry = voice('ferrier-counting').subarray(0, 6 * RATE_HZ);
    const own = printed('own', [dry]).print;
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.9, noNaN: true }), fc.boolean(), (gain, turned) => {
        const [best] = likenesses(own, printed('other', [dry.map((x) => (turned ? -gain : gain) * x)]).print, 1);
        expect(best?.lagS).toBe(0);
        expect(best?.score).toBeGreaterThan(0.98);
      }),
      { numRuns: 6 },
    );
  });

  it('finds a part where it lies, to its step', () => {
    const dry = voice('netmaker-neutral');
    const whole = printed('whole', [dry]).print;
    for (const atS of [0.5, 1.3, 2.1]) {
      const part = printed('part', [dry.subarray(Math.round(atS * RATE_HZ), Math.round((atS + 5) * RATE_HZ))]).print;
      expect(Math.abs((likenesses(whole, part, 1)[0]?.lagS ?? 9) + atS)).toBeLessThanOrEqual(PRINT_STEP_S);
    }
  });

  it('is as good at another speed of the clock, as recorders have it', () => {
    const dry = voice('ferrier-neutral');
    const own = printed('own', [dry]).print;
    const [best] = likenesses(own, printed('other', [interpolated(dry, 0, 1.0001, dry.length)]).print, 1);
    expect(best?.score).toBeGreaterThan(0.98);
  });
});
