import { describe, expect, it } from 'vitest';
import { bufferSource } from '../audio/byteSource.ts';
import { extensible } from '../testing/oddWav.ts';
import { concat, reportOf, silence, sine } from '../testing/signals.ts';
import { measureFile } from './report.ts';

const stereo = (signal: Float64Array) => reportOf([signal, signal]).programme;
const tone = (levelDbfs: number, lengthS: number) => sine(1000, levelDbfs, lengthS);

describe('EBU Tech 3341 table 1, integrated loudness, within 0.1 LU', () => {
  it.each([
    ['1', [[-23, 20]], -23],
    ['2', [[-33, 20]], -33],
    [
      '3',
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
      -23,
    ],
    [
      '4',
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
      -23,
    ],
    [
      '5',
      [
        [-26, 20],
        [-20, 20.1],
        [-26, 20],
      ],
      -23,
    ],
  ] as const)('case %s', (_case, parts, expected) => {
    const programme = stereo(concat(...parts.map(([level, length]) => tone(level, length))));
    expect(Math.abs((programme.integratedLufs ?? 0) - expected)).toBeLessThanOrEqual(0.1);
  });

  it('cases 1 and 2: momentary and short-term agree', () => {
    for (const level of [-23, -33]) {
      const programme = stereo(tone(level, 20));
      expect(programme.momentaryMaxLufs).toBeCloseTo(level, 1);
      expect(programme.shortTermMaxLufs).toBeCloseTo(level, 1);
    }
  });

  it('case 6: 5.0 channels with surround weights', () => {
    const channels = [-28, -28, -24, -30, -30].map((level) => tone(level, 20));
    const programme = measureFile(bufferSource(extensible(channels, 0x37))).report.programme;
    expect(Math.abs((programme.integratedLufs ?? 0) + 23)).toBeLessThanOrEqual(0.1);
  });

  it('case 9: short-term is constant at every offset', () => {
    const cycle = concat(tone(-20, 1.34), tone(-30, 1.66));
    const programme = stereo(concat(cycle, cycle, cycle, cycle, cycle));
    expect(Math.abs((programme.shortTermMaxLufs ?? 0) + 23)).toBeLessThanOrEqual(0.1);
  });

  it.each([0, 0.15, 0.6, 1.05])('case 10: a 3 s tone after %s s reads -23 short-term', (offset) => {
    const programme = stereo(concat(silence(offset), tone(-23, 3), silence(1)));
    expect(Math.abs((programme.shortTermMaxLufs ?? 0) + 23)).toBeLessThanOrEqual(0.1);
  });

  it.each([0, 0.02, 0.06, 0.13, 0.38])('case 13: a 400 ms tone after %s s reads -23 momentary', (offset) => {
    const programme = stereo(concat(silence(offset), tone(-23, 0.4), silence(1)));
    expect(Math.abs((programme.momentaryMaxLufs ?? 0) + 23)).toBeLessThanOrEqual(0.1);
  });
});

describe('EBU Tech 3342 table 1, loudness range, within 1 LU', () => {
  it.each([
    [
      '1',
      [
        [-20, 20],
        [-30, 20],
      ],
      10,
    ],
    [
      '2',
      [
        [-20, 20],
        [-15, 20],
      ],
      5,
    ],
    [
      '3',
      [
        [-40, 20],
        [-20, 20],
      ],
      20,
    ],
    [
      '4',
      [
        [-50, 20],
        [-35, 20],
        [-20, 20],
        [-35, 20],
        [-50, 20],
      ],
      15,
    ],
  ] as const)('case %s', (_case, parts, expected) => {
    const programme = stereo(concat(...parts.map(([level, length]) => tone(level, length))));
    expect(Math.abs((programme.loudnessRangeLu ?? 0) - expected)).toBeLessThanOrEqual(1);
  });
});

describe('one channel', () => {
  it('1 kHz at full scale is -3.01 LUFS (BS.1770-5 Annex 1)', () => {
    expect(reportOf([tone(0, 5)]).channels[0]?.loudness.integratedLufs).toBeCloseTo(-3.01, 1);
  });

  it('dual mono adds 3.01 LU', () => {
    const plain = reportOf([tone(-20, 5)]).channels[0]?.loudness.integratedLufs ?? 0;
    const dual = reportOf([tone(-20, 5)], { dualMono: true }).channels[0]?.loudness.integratedLufs ?? 0;
    expect(dual - plain).toBeCloseTo(3.01, 2);
  });

  it.each([8000, 16_000, 22_050, 44_100, 96_000, 192_000])('reads the same at %i Hz', (rate) => {
    const report = reportOf([sine(1000, -20, 4, rate)], {}, rate);
    expect(Math.abs((report.channels[0]?.loudness.integratedLufs ?? 0) + 23.01)).toBeLessThanOrEqual(0.1);
  });

  it('is null with the reason when too short or too quiet', () => {
    const short = reportOf([tone(-20, 0.3)]);
    expect(short.channels[0]?.loudness.integratedLufs).toBeNull();
    expect(short.warnings.join()).toContain('400 ms');
    const quiet = reportOf([silence(4)]);
    expect(quiet.channels[0]?.loudness.integratedLufs).toBeNull();
    expect(quiet.warnings.join()).toContain('-70 LUFS');
  });
});
