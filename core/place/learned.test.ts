import { describe, expect, it } from 'vitest';
import { THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import { type Beside, colourBeside, LEAST_TAKES, learnedSpots } from './learned.ts';
import { voiceGainDb, WORN_BANDS_HZ } from './wornColour.ts';

/** A voice of one level in all bands, with a shape on it, over noise far below. */
const spectra = (shape: (hz: number) => number, noiseDb = -90) => ({ speechDb: THIRD_OCTAVE_HZ.map((hz) => -40 + shape(hz)), pauseDb: THIRD_OCTAVE_HZ.map(() => noiseDb) });
const flat = spectra(() => 0);
const dull = (lossDb: number) => spectra((hz) => (hz > 3000 ? -lossDb : 0));
const beside = (takeId: string, lavalier = dull(6), more: Partial<Beside> = {}): Beside => ({ spot: 'lapel', under: true, trialId: 'a', takeId, lavalier, boom: flat, ...more });
const topOf = (colour: readonly (number | null)[]) => colour[WORN_BANDS_HZ.length - 2] as number;
const lowOf = (colour: readonly (number | null)[]) => colour[2] as number;

describe('a lavalier beside a boom', () => {
  it('has the difference of their voices, without level: 6 dB between low and top stay 6 dB', () => {
    const colour = colourBeside(dull(6), flat)!;
    expect(lowOf(colour) - topOf(colour)).toBeCloseTo(6, 9);
    expect(voiceGainDb(colour as number[])).toBeCloseTo(0, 9);
  });

  it('does not depend on either gain', () => {
    const louder = { ...dull(6), speechDb: dull(6).speechDb.map((db) => db + 12), pauseDb: dull(6).pauseDb };
    expect(colourBeside(louder, flat)).toEqual(colourBeside(dull(6), flat)!.map((db) => expect.closeTo(db as number, 6)));
  });

  it('leaves out a band in which noise is as loud, and says nothing where most are', () => {
    const noisy = { ...dull(6), pauseDb: THIRD_OCTAVE_HZ.map((hz) => (hz > 8000 ? -47 : -90)) };
    expect(topOf(colourBeside(noisy, flat)!)).toBeNull();
    expect(lowOf(colourBeside(noisy, flat)!)).not.toBeNull();
    expect(
      colourBeside(
        spectra(() => 0, -42),
        flat,
      ),
    ).toBeNull();
  });
});

describe('what is learned of a spot', () => {
  it('is the median of takes with its spread, and needs three of them', () => {
    const [learned] = learnedSpots([4, 6, 8].map((loss, take) => beside(`t${take}`, dull(loss))));
    expect(learned).toMatchObject({ spot: 'lapel', under: true, takes: 3, trials: 1 });
    expect(lowOf(learned!.colourDb) - topOf(learned!.colourDb)).toBeCloseTo(6, 1);
    expect(topOf(learned!.spreadDb)).toBeGreaterThan(1);
    const [few] = learnedSpots([beside('t1'), beside('t2')]);
    expect(few!.takes).toBeLessThan(LEAST_TAKES);
    expect(topOf(few!.colourDb)).toBeNull();
  });

  it('keeps what is under cloth apart from what is open, and spot from spot', () => {
    const all = learnedSpots([beside('t1'), beside('t2', flat, { under: false }), beside('t3', flat, { spot: 'collar' })]);
    expect(all.map(({ spot, under }) => `${spot} ${under}`).sort()).toEqual(['collar true', 'lapel false', 'lapel true']);
  });

  it('counts a take once, however many lavaliers sat there, and trials across', () => {
    const [learned] = learnedSpots([beside('t1'), beside('t1'), beside('t2', dull(6), { trialId: 'b' })]);
    expect(learned).toMatchObject({ takes: 2, trials: 2 });
  });
});
