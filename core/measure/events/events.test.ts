import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { EventKind } from '../../domain/measureId.ts';
import { convolved } from '../../simulate/convolve.ts';
import { roomResponse } from '../../simulate/imageRoom.ts';
import { randomSource } from '../../simulate/random.ts';
import { layClick, layPlosive, layRustle, layThump } from '../../simulate/touches.ts';
import { windNoise } from '../../simulate/windNoise.ts';
import { concat, mixed, reportOf, silence, sine, whiteNoise } from '../../testing/signals.ts';
import { voiced } from '../../testing/voiced.ts';

const RATE_HZ = 48_000;
const eventsOf = (signal: Float64Array) => reportOf([signal]).channels[0]!.events;
const found = (signal: Float64Array, kind: EventKind) => eventsOf(signal).filter((event) => event.kind === kind);
const near = (events: { startS: number; endS: number }[], atS: number) => events.some((event) => event.startS - 0.06 <= atS && event.endS + 0.06 >= atS);
const clean = voiced(10);

describe('events', () => {
  it('none on a clean voice, on a tone or on noise', () => {
    for (const signal of [clean, sine(440, -20, 4), whiteNoise(-40, 4, 8), silence(3)]) expect(eventsOf(signal)).toEqual([]);
  });

  it.each([
    ['in a word', 2.45],
    ['in a pause', 3.6],
  ])('a break of 30 ms %s is a dropout, with its edges, and nothing else', (_where, atS) => {
    const signal = Float64Array.from(clean);
    const start = Math.round(atS * RATE_HZ);
    signal.fill(0, start, start + Math.round(0.03 * RATE_HZ));
    const events = eventsOf(signal);
    expect(events.map((event) => event.kind)).toEqual(['dropout']);
    expect(Math.abs(events[0]!.startS - atS)).toBeLessThan(0.006);
    expect(Math.abs(events[0]!.endS - atS - 0.03)).toBeLessThan(0.008);
    expect(events[0]!.severityDb).toBeGreaterThan(20);
  });

  it('a break among clipped words is a dropout all the same', () => {
    const clipped = clean.map((x) => Math.max(-0.4, Math.min(0.4, 4 * x)));
    const start = Math.round(2.45 * RATE_HZ);
    clipped.fill(0, start, start + Math.round(0.03 * RATE_HZ));
    expect(found(clipped, 'dropout').map(({ startS }) => Math.round(startS * 100) / 100)).toEqual([2.45]);
    expect(found(clipped, 'clip').length).toBeGreaterThan(2);
  });

  it('strong low noise, whose waves pass through zero all the time, has no breaks', () => {
    const random = randomSource(31);
    let low = 0;
    const blown = clean.map((x) => {
      low += 0.02 * (random.normal() - low);
      return x + 2 * low;
    });
    expect(found(blown, 'dropout')).toEqual([]);
  });

  it('digital silence before and after a take is no dropout', () => {
    expect(eventsOf(concat(silence(1), clean, silence(1)))).toEqual([]);
  });

  it('finds clicks of a few samples wherever they fall', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 9.5, noNaN: true }), fc.integer({ min: 1, max: 9999 }), (atS, seed) => {
        const signal = Float64Array.from(clean);
        layClick(signal, RATE_HZ, atS, 0.2, randomSource(seed));
        const clicks = found(signal, 'click');
        expect(clicks.length).toBe(1);
        expect(near(clicks, atS)).toBe(true);
      }),
      { numRuns: 10 },
    );
  });

  it('the sharp start of a sound is no click: a drum, a door, an instrument', () => {
    const random = randomSource(8);
    const drums = Float64Array.from(clean);
    for (let atS = 0.4; atS < 9.4; atS += 0.7) {
      for (let index = 0; index < 0.2 * RATE_HZ; index++) {
        const at = Math.round(atS * RATE_HZ) + index;
        const hit = index < 3 ? 0.3 : 0.03;
        drums[at] = (drums[at] as number) + hit * Math.exp(-index / (0.05 * RATE_HZ)) * random.normal();
      }
    }
    expect(found(drums, 'click')).toEqual([]);
  });

  it('flat tops are one spell of clipping, wherever the ceiling is', () => {
    const flat = clean.map((x, index) => (index / RATE_HZ < 5 ? Math.max(-0.3, Math.min(0.3, 2 * x)) : 0.5 * x));
    const clips = found(flat, 'clip');
    expect(clips.length).toBeGreaterThan(0);
    expect(clips.every((event) => event.endS < 5.1)).toBe(true);
    expect(found(clean, 'clip')).toEqual([]);
  });

  it('a thump in a pause is handling, and so is one in the middle of a word', () => {
    const signal = Float64Array.from(clean);
    const at = [1.6, 2.48].map((startS, index) => layThump(signal, RATE_HZ, startS, 94 - (index === 0 ? 20 : 6), randomSource(index + 4)).startS);
    const events = eventsOf(signal);
    for (const startS of at)
      expect(
        near(
          events.filter((event) => event.kind === 'handling' || event.kind === 'plosive'),
          startS,
        ),
      ).toBe(true);
    expect(
      near(
        events.filter((event) => event.kind === 'handling'),
        1.6,
      ),
    ).toBe(true);
  });

  it('a blast of air where a word begins is a plosive', () => {
    const signal = Float64Array.from(clean);
    layPlosive(signal, RATE_HZ, 4.02, 94 - 12, randomSource(6));
    expect(near(found(signal, 'plosive'), 4.05)).toBe(true);
  });

  it('a low burst far under the voice is not worth a name', () => {
    const signal = Float64Array.from(clean);
    layThump(signal, RATE_HZ, 1.6, 94 - 46, randomSource(4));
    expect(eventsOf(signal)).toEqual([]);
  });

  it('a gap may lie under the blast: the voice comes 50 ms after it', () => {
    const signal = Float64Array.from(clean);
    layPlosive(signal, RATE_HZ, 3.97, 94 - 12, randomSource(6));
    expect(near(found(signal, 'plosive'), 4)).toBe(true);
    expect(found(signal, 'handling')).toEqual([]);
  });

  it.each([2, 3, 4])('gusts on a bare microphone are wind, and no handling (%i)', (seed) => {
    const { signal: air, gusts } = windNoise({ speedMs: 5, screen: 'bare', sensitivityDb: 0 }, clean.length, RATE_HZ, randomSource(seed));
    const loudest = air.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
    const signal = clean.map((x, index) => x + (0.4 * (air[index] as number)) / loudest);
    const wind = found(signal, 'wind');
    for (const gust of gusts) expect(near(wind, (gust.startS + gust.endS) / 2)).toBe(true);
    expect(found(signal, 'handling')).toEqual([]);
  });

  it('crackling cloth between words is rustle, and no word', () => {
    const signal = Float64Array.from(clean);
    layRustle(signal, RATE_HZ, 5.45, 0.4, 94 - 22, 'nylon', randomSource(3));
    expect(near(found(signal, 'rustle'), 5.6)).toBe(true);
    expect(reportOf([signal]).channels[0]!.activity.speech.length).toBe(reportOf([clean]).channels[0]!.activity.speech.length);
  });

  it('hiss that does not crackle, as a long S, is no rustle', () => {
    const hiss = whiteNoise(-34, 0.25, 9);
    const signal = Float64Array.from(clean);
    hiss.forEach((x, index) => {
      const fade = Math.sin((Math.PI * index) / hiss.length);
      const at = Math.round(2.2 * RATE_HZ) + index;
      signal[at] = signal[at]! + x * fade;
    });
    expect(found(signal, 'rustle')).toEqual([]);
  });

  it('pauses are outside events', () => {
    const signal = Float64Array.from(clean);
    layRustle(signal, RATE_HZ, 5.45, 0.4, 94 - 22, 'nylon', randomSource(3));
    const { activity, events } = reportOf([signal]).channels[0]!;
    for (const [start, end] of activity.pause) for (const event of events) expect(event.endS <= start + 1e-9 || event.startS >= end - 1e-9).toBe(true);
  });

  it('gain changes nothing but clipping', () => {
    const signal = Float64Array.from(clean);
    layThump(signal, RATE_HZ, 1.6, 94 - 20, randomSource(4));
    layClick(signal, RATE_HZ, 3.5, 0.1, randomSource(2));
    const places = (factor: number) => eventsOf(signal.map((x) => x * factor)).map(({ kind, startS }) => `${kind} ${startS.toFixed(3)}`);
    expect(places(0.25)).toEqual(places(1));
  });
});

describe('in a hall of two seconds', () => {
  it.each([1, 2, 3])('where the room tone shows only once the tails have rung out, nothing breaks (%i)', (seed) => {
    const words = concat(
      silence(0.6),
      ...Array.from({ length: 6 }, (_, index) => [whiteNoise(-24, 0.35 + 0.1 * (index % 3), seed * 10 + index), silence(index === 2 ? 2.6 : 0.5)]).flat(),
      silence(2.5),
    );
    const response = roomResponse(
      { sizeM: [18, 11, 6], absorption: Array(6).fill(0.14), talkerM: [7, 5, 1.5], microphoneM: [8.2, 5, 1.6], pattern: { pressureShare: 0.5, tubeM: 0 } },
      RATE_HZ,
      randomSource(seed),
    );
    const heard = mixed(convolved(words, response), whiteNoise(-72, words.length / RATE_HZ, seed + 50));
    expect(reportOf([heard]).channels[0]!.events.filter(({ kind }) => kind === 'dropout')).toEqual([]);
    // The same with three mutes in it: those are found.
    for (const atS of [1.5, 3.2, 5.1]) heard.fill(0, Math.round(atS * RATE_HZ), Math.round((atS + 0.03) * RATE_HZ));
    expect(reportOf([heard]).channels[0]!.events.filter(({ kind }) => kind === 'dropout')).toHaveLength(3);
  });
});
