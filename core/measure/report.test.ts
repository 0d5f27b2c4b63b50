import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bufferSource } from '../audio/byteSource.ts';
import { PowerSpectrum } from '../audio/powerSpectrum.ts';
import { writeWav } from '../audio/writeWav.ts';
import { isPairMeasure, type MeasureId, RECORDING_MEASURE_IDS } from '../domain/measureId.ts';
import { concat, mixed, reportOf, silence, sine, whiteNoise } from '../testing/signals.ts';
import { MEASURES, measureText, measureValue, plainNumber, signed } from './catalogue.ts';
import { findWords } from './findWords.ts';
import { MeasuringStopped, measureFile } from './report.ts';
import { FrameEnergies } from './tracks/frames.ts';
import { truePeakOf } from './truePeak.ts';

const talk = mixed(concat(silence(0.6), whiteNoise(-26, 1, 3), silence(0.5), whiteNoise(-30, 1.2, 4), silence(0.7)), whiteNoise(-62, 4, 5));

describe('properties that every report must have', () => {
  it('gain moves levels by exactly that gain and leaves shape figures alone', () => {
    const before = reportOf([talk]).channels[0]!;
    fc.assert(
      fc.property(fc.double({ min: -18, max: 12, noNaN: true }), (gainDb) => {
        const after = reportOf([talk.map((value) => value * 10 ** (gainDb / 20))]).channels[0]!;
        for (const id of ['levels.rmsDbfs', 'levels.truePeakDbtp', 'loudness.integratedLufs', 'loudness.momentaryMaxLufs', 'noise.floorDbfs', 'noise.floorDbfsA'] as const) {
          expect(measureValue(after, id, 4)! - measureValue(before, id, 4)!).toBeCloseTo(gainDb, 3);
        }
        for (const id of ['levels.crestDb', 'spectrum.tiltDbPerOctave', 'spectrum.groups.presenceDb', 'noise.practicalFloorDbfs'] as const) {
          expect(measureValue(after, id, 4)).toBeCloseTo(measureValue(before, id, 4)!, 2);
        }
        expect(after.activity.speech).toEqual(before.activity.speech);
        // Thresholds of P.56 are a factor of two apart; between them the level may move a little.
        expect(Math.abs(after.noise.snrDb! - before.noise.snrDb!)).toBeLessThan(0.3);
      }),
      { numRuns: 8 },
    );
  });

  it('silence appended changes no integrated loudness', () => {
    const before = reportOf([talk]).channels[0]!.loudness.integratedLufs!;
    expect(reportOf([concat(talk, silence(5))]).channels[0]!.loudness.integratedLufs).toBeCloseTo(before, 1);
  });

  it('the order of channels does not matter to the programme', () => {
    const other = sine(300, -30, 4);
    expect(reportOf([talk, other]).programme).toEqual(reportOf([other, talk]).programme);
  });

  it('a channel reads the same alone and beside others', () => {
    expect(reportOf([sine(300, -30, 4), talk]).channels[1]).toEqual({ ...reportOf([talk]).channels[0]!, index: 1 });
  });

  it('every kind of event is a measure: how often a minute, for how long, and how bad the worst; none is nought of all three', () => {
    const report = { ...reportOf([talk]).channels[0]!, events: [] as never[] };
    expect(['perMinute', 'seconds', 'worstDb'].map((part) => measureValue(report, `events.dropout.${part}` as MeasureId, 30))).toEqual([0, 0, 0]);
    const events = [2, 5, 9].map((startS, index) => ({ kind: 'dropout' as const, startS, endS: startS + 0.1 * (index + 1), severityDb: 20 + index }));
    const broken = { ...report, events };
    expect(measureValue(broken, 'events.dropout.perMinute', 30)).toBe(6);
    expect(measureValue(broken, 'events.dropout.seconds', 30)).toBeCloseTo(0.6, 9);
    expect(measureValue(broken, 'events.dropout.worstDb', 30)).toBe(22);
    expect(measureValue(broken, 'events.click.perMinute', 30)).toBe(0);
  });

  // Noise that is cut off does not ring on, and all of it is as loud: there is nothing to compare its crests with.
  const notOfNoise: readonly MeasureId[] = ['character.reverberationS', 'intelligibility.sti', 'levels.flattenedShare'];
  it.each(RECORDING_MEASURE_IDS.filter((id) => !isPairMeasure(id) && !notOfNoise.includes(id) && !id.startsWith('events.')))('%s is found where the catalogue says', (id) => {
    // Pumping is told from three pauses on.
    expect(measureValue(reportOf([concat(talk, talk, talk)]).channels[0]!, id, 12)).not.toBeNull();
    expect(MEASURES[id].label.length).toBeGreaterThan(2);
  });
});

describe('a gate as a criterion', () => {
  const gatedAt = (talk: Float64Array) => measureValue(reportOf([talk]).channels[0]!, 'noise.gatedDb', 12);

  it('none at work in three pauses and more is 0 dB, which can be judged; of one pause nobody knows', () => {
    expect(reportOf([concat(talk, talk, talk)]).channels[0]!.noise.gatedDb).toBeNull();
    expect(gatedAt(concat(talk, talk, talk))).toBe(0);
    expect(gatedAt(concat(silence(0.6), whiteNoise(-26, 1)))).toBeNull();
  });
});

describe('measuring', () => {
  const bytes = writeWav([talk], { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 });

  it('tells how far it is, to the end', () => {
    const shares: number[] = [];
    measureFile(bufferSource(bytes), undefined, (share) => void shares.push(share));
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  it('stops when told to', () => {
    let blocks = 0;
    expect(() => measureFile(bufferSource(bytes), undefined, () => ++blocks < 3)).toThrow(MeasuringStopped);
    expect(blocks).toBe(3);
  });

  it('gives the level of every 50 ms', () => {
    const { series } = measureFile(bufferSource(writeWav([concat(sine(1000, -20, 1), silence(1))], { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 })));
    expect(series[0]?.rmsDbfs).toHaveLength(40);
    expect(series[0]?.rmsDbfs[5]).toBeCloseTo(-23, 1);
    expect(series[0]?.rmsDbfs[35]).toBe(-120);
  });
});

describe('true peak skips only what cannot matter', () => {
  it('finds the same as when the loudest part comes first, and nothing is skipped before', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 200, max: 3000 }), (seed, length) => {
        const signal = whiteNoise(-20, length / 48_000, seed).map((value, index) => value * (1 + Math.sin(index / 90)));
        // Backwards the same wave has the same peaks, but other stretches are passed over.
        expect(truePeakOf(signal, 48_000)).toBeCloseTo(truePeakOf(Float64Array.from(signal).reverse(), 48_000), 6);
      }),
      { numRuns: 40 },
    );
  });

  it.each([5, 23, 37, 1000])('is never under the sample peak, and pieces of %i samples do not matter', (piece) => {
    const signal = whiteNoise(-12, 0.05, 9);
    const peak = truePeakOf(signal, 48_000);
    expect(truePeakOf(signal, 48_000, piece)).toBe(peak);
    expect(peak).toBeGreaterThanOrEqual(signal.reduce((most, value) => Math.max(most, Math.abs(value)), 0));
  });
});

describe('frames of 10 ms', () => {
  it.each([8000, 11_025, 22_050, 44_100, 48_000, 192_000])('do not drift at %i Hz', (rate) => {
    const frames = new FrameEnergies(rate);
    const second = new Float64Array(rate).fill(0.5);
    for (let at = 0; at < second.length; at += 999) frames.push(second.subarray(at), Math.min(999, second.length - at));
    expect(frames.view()).toHaveLength(100);
    for (const mean of frames.view()) expect(mean).toBeCloseTo(0.25, 12);
  });
});

describe('power spectrum', () => {
  it('sums to the mean square (Parseval)', () => {
    const signal = whiteNoise(-20, 2, 8);
    let sum = 0;
    let count = 0;
    const spectrum = new PowerSpectrum(2048, (power) => {
      sum += power.reduce((total, value) => total + value, 0);
      count++;
    });
    spectrum.push(signal, signal.length);
    expect(count).toBe(Math.floor((signal.length - 2048) / 1024) + 1);
    expect(10 * Math.log10(sum / count)).toBeCloseTo(-20, 0);
  });
});

describe('words and pauses on levels alone', () => {
  /** Frames of 10 ms at levels in dB. */
  const frames = (...parts: [levelDb: number, lengthS: number][]) =>
    Float64Array.from(parts.flatMap(([levelDb, lengthS]) => Array.from({ length: Math.round(lengthS * 100) }, () => 10 ** (levelDb / 10))));

  it('never overlap, lie in order and inside the file', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.double({ min: -90, max: -10, noNaN: true }), fc.double({ min: 0.02, max: 1.5, noNaN: true })), { minLength: 1, maxLength: 14 }), (parts) => {
        const powers = frames(...parts);
        const { speech, pause } = findWords(powers);
        const spans = [...speech, ...pause].sort((a, b) => a[0] - b[0]);
        spans.forEach(([start, end], index) => {
          expect(end).toBeGreaterThan(start);
          expect(start).toBeGreaterThanOrEqual((spans[index - 1]?.[1] ?? 0) - 1e-9);
        });
        if (spans.length > 0) expect(spans.at(-1)![1]).toBeLessThanOrEqual(powers.length / 100 + 1e-9);
        for (const [start, end] of pause) expect(end - start).toBeGreaterThanOrEqual(speech.length > 0 ? 0.15 - 1e-9 : 0);
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    ['a steady level has no words', [[-50, 3]], 0, 1],
    [
      'a step of 1.5 dB is too little to be words',
      [
        [-50, 1],
        [-48.5, 1],
        [-50, 1],
      ],
      0,
      1,
    ],
    [
      '6 dB are enough where levels fall into two classes',
      [
        [-50, 1],
        [-44, 1],
        [-50, 1],
      ],
      1,
      2,
    ],
    [
      '20 dB are',
      [
        [-60, 1],
        [-40, 1],
        [-60, 1],
      ],
      1,
      2,
    ],
    [
      'a click of 20 ms is no word',
      [
        [-70, 2],
        [-20, 0.02],
        [-70, 1],
        [-30, 1],
        [-70, 1],
      ],
      1,
      2,
    ],
    [
      'words to the very end',
      [
        [-60, 1],
        [-30, 1],
      ],
      1,
      1,
    ],
  ] as [string, [number, number][], number, number][])('%s', (_name, parts, words, pauses) => {
    const found = findWords(frames(...parts));
    expect([found.speech.length, found.pause.length]).toEqual([words, pauses]);
  });
});

describe('figures as they are written', () => {
  it.each([
    [-23.04, 1, '−23.0'],
    [-0.04, 1, '0.0'],
    [3, 0, '3'],
    [0.5, 2, '0.50'],
  ])('%f with %i digits', (value, digits, text) => {
    expect(signed(value, digits)).toBe(text);
  });
  it('with their unit, and in words where there is none', () => {
    expect(measureText('noise.floorDbfs', -61.26)).toBe('−61.3 dBFS');
    expect(measureText('levels.clippedRuns', 3)).toBe('3');
    expect(measureText('noise.snrDb', null)).toBe('not measured');
    expect(plainNumber(-2.5)).toBe('−2.5');
  });
});
