import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { placeByClock } from './placeByClock.ts';
import type { TimedFile, TimedTake } from './timed.ts';

const MORNING_MS = Date.UTC(2026, 3, 14, 8);
const HOUR_S = 3600;

interface Day {
  takes: TimedTake[];
  devices: { aheadS: number; driftPpm: number; files: TimedFile[]; truth: Map<string, string | null> }[];
}

/**
 * A day on location: takes of 12 to 90 s with pauses of a minute to an hour between, logged late by a breath; recorders
 * that are started some seconds before and stopped some seconds after, each by hand, miss takes, and write files of nothing.
 */
function day(seed: number, { takes: count = 40, files: each = 50, devices = 4, aheadH = 26, ppm = 40, missed = 0.05, pauseS = [60, 420], handS = 12 } = {}): Day {
  const random = randomSource(seed).uniform;
  const between = (low: number, high: number) => low + (high - low) * random();
  const takes: TimedTake[] = [];
  let atS = 0;
  for (let index = 0; index < count; index++) {
    atS += random() < 0.15 ? between(600, HOUR_S) : between(pauseS[0] as number, pauseS[1] as number);
    const lengthS = between(12, 90);
    takes.push({ id: `take ${index}`, startedAtMs: MORNING_MS + atS * 1000, stoppedAtMs: MORNING_MS + (atS + lengthS) * 1000 });
    atS += lengthS;
  }
  const made = Array.from({ length: devices }, (_, device) => {
    const [aheadS, driftPpm] = [between(-aheadH, aheadH) * HOUR_S, between(-ppm, ppm)];
    const own = (trueMs: number) => trueMs + aheadS * 1000 + (trueMs - MORNING_MS) * driftPpm * 1e-6;
    const [leadS, tailS] = [between(1, handS), between(1, handS)];
    const truth = new Map<string, string | null>();
    const files: TimedFile[] = [];
    const add = (takeId: string | null, startMs: number, endMs: number) => {
      const id = `device ${device} file ${files.length}`;
      truth.set(id, takeId);
      files.push({ id, startsAtMs: own(startMs), durationS: (endMs - startMs) / 1000, tied: null });
    };
    for (const take of takes) {
      if (random() < missed) continue;
      add(take.id, take.startedAtMs - between(0, 2 * leadS) * 1000 + between(-2, 0) * 1000, (take.stoppedAtMs as number) + between(0, 2 * tailS) * 1000);
    }
    for (let tries = 0; files.length < each && tries < 5000; tries++) {
      const startMs = MORNING_MS + between(0, atS) * 1000;
      const clear = takes.every(({ startedAtMs, stoppedAtMs }) => Math.abs(startedAtMs - startMs) > 45_000 && Math.abs((stoppedAtMs as number) - startMs) > 45_000);
      if (clear) add(null, startMs, startMs + between(3, 25) * 1000);
    }
    return { aheadS, driftPpm, files, truth };
  });
  return { takes, devices: made };
}

/** How many of the files of a day are where they belong, and the surest that is wrong. */
function outcome({ takes, devices }: Day): { right: number; of: number; surestWrong: number } {
  let [right, of, surestWrong] = [0, 0, 0];
  for (const { files, truth } of devices) {
    for (const { fileId, takeId, confidence } of placeByClock(files, takes).places) {
      of++;
      if (takeId === truth.get(fileId)) right++;
      else surestWrong = Math.max(surestWrong, confidence);
    }
  }
  return { right, of, surestWrong };
}

describe('files of recorders whose clocks are wrong', () => {
  it.each(Array.from({ length: 30 }, (_, index) => index + 1))(
    'day %i: of 200 files of four recorders, up to 26 h off and drifting 40 ppm, 95 in 100 find their take, and none is wrong and sure',
    (seed) => {
      const { right, of, surestWrong } = outcome(day(seed));
      expect(of).toBe(200);
      expect(right / of).toBeGreaterThanOrEqual(0.95);
      expect(surestWrong).toBeLessThanOrEqual(0.9);
    },
  );

  it('in a hurry, pauses shorter than what a recorder runs on for, those that it is surer than 90 % of are right', () => {
    let [sure, right] = [0, 0];
    for (let seed = 1; seed <= 20; seed++) {
      const { takes, devices } = day(seed, { pauseS: [20, 90], handS: 40 });
      for (const { files, truth } of devices) {
        const told = placeByClock(files, takes).places.filter(({ confidence }) => confidence > 0.9);
        sure += told.length;
        right += told.filter(({ fileId, takeId }) => truth.get(fileId) === takeId).length;
      }
    }
    expect(sure).toBeGreaterThan(1000);
    expect(right / sure).toBeGreaterThan(0.99);
  });

  it('a file that runs on over several takes says over which', () => {
    const { takes, devices } = day(12, { devices: 1, missed: 0, ppm: 0 });
    const [{ files }] = devices as [Day['devices'][number]];
    const [first, , third] = files as [TimedFile, TimedFile, TimedFile];
    const long = { ...first, id: 'long', durationS: (third.startsAtMs - first.startsAtMs) / 1000 + third.durationS };
    const { places } = placeByClock([long, ...files.slice(3)], takes);
    expect(places[0]?.over).toEqual(['take 0', 'take 1', 'take 2']);
    expect(places[0]?.confidence).toBeLessThan(0.9);
    expect(places[1]?.over).toEqual([]);
  });

  it('the clock that is found is the true one, to a few seconds: how early a recorder was started nobody knows', () => {
    const { takes, devices } = day(5, { ppm: 0 });
    for (const { aheadS, files } of devices) {
      const { clock } = placeByClock(files, takes);
      expect(clock?.sure).toBeGreaterThan(0.99);
      expect(Math.abs((clock?.aheadS ?? Number.NaN) - aheadS)).toBeLessThan(6);
    }
  });

  it('a clock that was never set, years off, is found as well', () => {
    const { takes, devices } = day(6, { devices: 1 });
    const [{ files, truth }] = devices as [Day['devices'][number]];
    const yearsMs = 16 * 365 * 24 * HOUR_S * 1000;
    const { places } = placeByClock(
      files.map((file) => ({ ...file, startsAtMs: file.startsAtMs - yearsMs })),
      takes,
    );
    expect(places.filter(({ fileId, takeId }) => truth.get(fileId) === takeId).length / places.length).toBeGreaterThanOrEqual(0.95);
  });

  it('files of another day altogether are of no take that anybody is sure of, nor is it sure that they are of none', () => {
    for (let seed = 100; seed < 120; seed++) {
      const { takes } = day(seed);
      const { devices } = day(seed + 1000, { devices: 2, files: 12, takes: 12, missed: 0 });
      for (const { files } of devices) expect(placeByClock(files, takes).places.filter(({ confidence }) => confidence > 0.9)).toEqual([]);
    }
  });

  it('one file and one take say nothing where the clock may be anything, and much where it is right', () => {
    const take = { id: 'take', startedAtMs: MORNING_MS, stoppedAtMs: MORNING_MS + 40_000 };
    const file = (aheadS: number): TimedFile => ({ id: 'file', startsAtMs: MORNING_MS - 4000 + aheadS * 1000, durationS: 48, tied: null });
    expect(placeByClock([file(0)], [take]).places[0]).toMatchObject({ takeId: 'take' });
    expect(placeByClock([file(0)], [take]).places[0]?.confidence).toBeGreaterThan(0.9);
    const off = placeByClock([file(11_111)], [take]).places[0];
    expect(off?.takeId === 'take' ? off.confidence : 0).toBeLessThan(0.9);
  });

  it('takes that follow each other alike, every two minutes for as long, could be shifted: then none is sure', () => {
    const takes = Array.from({ length: 10 }, (_, index) => ({
      id: `take ${index}`,
      startedAtMs: MORNING_MS + index * 120_000,
      stoppedAtMs: MORNING_MS + index * 120_000 + 30_000,
    }));
    const files = Array.from({ length: 5 }, (_, index): TimedFile => ({ id: `file ${index}`, startsAtMs: MORNING_MS + 8999_000 + index * 120_000, durationS: 34, tied: null }));
    for (const { confidence } of placeByClock(files, takes).places) expect(confidence).toBeLessThan(0.5);
    // One that somebody ties moves all the others along.
    const tied = files.map((file, index) => (index === 2 ? { ...file, tied: { takeId: 'take 6', by: 'hand' as const } } : file));
    const { places } = placeByClock(tied, takes);
    expect(places.map(({ takeId }) => takeId)).toEqual(['take 4', 'take 5', 'take 6', 'take 7', 'take 8']);
    for (const { confidence } of places) expect(confidence).toBeGreaterThan(0.9);
  });

  it('of a recorder that ran on all day nothing is sure but that its clock may be right; set, it says over which takes it ran', () => {
    const { takes } = day(13);
    const startMs = MORNING_MS - 20_000;
    const long: TimedFile = { id: 'long', startsAtMs: startMs, durationS: ((takes[39]?.stoppedAtMs as number) - startMs) / 1000 + 300, tied: null };
    const found = placeByClock([long], takes);
    expect(found.clock === null || found.clock.sure < 0.9).toBe(true);
    expect(found.places[0]?.over).toEqual([]);
    expect(found.places[0]?.takeId === null ? 0 : found.places[0]?.confidence).toBeLessThan(0.9);
    expect(placeByClock([long], takes, 0).places[0]?.over).toHaveLength(40);
  });

  it('a clock that somebody set holds', () => {
    const { takes, devices } = day(9, { devices: 1 });
    const [{ files, aheadS, truth }] = devices as [Day['devices'][number]];
    const set = placeByClock(files, takes, aheadS);
    expect(set.clock?.aheadS).toBe(aheadS);
    expect(set.places.filter(({ fileId, takeId }) => truth.get(fileId) === takeId).length / files.length).toBeGreaterThan(0.9);
    const wrong = placeByClock(files, takes, aheadS + 7 * HOUR_S);
    expect(wrong.places.filter(({ takeId }) => takeId !== null).length).toBeLessThan(files.length / 2);
  });

  it('a name that says another take than the clock is doubted; what a hand said stands', () => {
    const { takes, devices } = day(10, { devices: 1, missed: 0 });
    const [{ files, truth }] = devices as [Day['devices'][number]];
    const named = (by: 'hand' | 'name') =>
      placeByClock(
        files.map((file, index) => (index === 3 ? { ...file, tied: { takeId: 'take 20', by } } : file)),
        takes,
      ).places[3];
    expect(named('name')?.takeId).toBe(truth.get(files[3]?.id as string));
    expect(named('hand')).toMatchObject({ takeId: 'take 20', confidence: 1 });
    expect(named('hand')?.others[0]?.takeId).toBe(truth.get(files[3]?.id as string));
  });

  it('both halves of a file that was split in the middle of a take are of that take', () => {
    const { takes, devices } = day(11, { devices: 1, files: 40, missed: 0 });
    const [{ files }] = devices as [Day['devices'][number]];
    const [whole, ...rest] = files as [TimedFile, ...TimedFile[]];
    const half = whole.durationS / 2;
    const split = [{ ...whole, id: 'first half', durationS: half }, { ...whole, id: 'second half', startsAtMs: whole.startsAtMs + half * 1000, durationS: half }, ...rest];
    const { places } = placeByClock(split, takes);
    expect(places.slice(0, 2).map(({ takeId }) => takeId)).toEqual(['take 0', 'take 0']);
  });

  it('says nothing where the log has no times', () => {
    const file = { id: 'file', startsAtMs: MORNING_MS, durationS: 5, tied: null };
    expect(placeByClock([file], [])).toEqual({ clock: null, places: [{ fileId: 'file', takeId: null, confidence: 0, startsAtMs: MORNING_MS, others: [], over: [] }] });
  });
});
