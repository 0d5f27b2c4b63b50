import { describe, expect, it } from 'vitest';
import { Cascade, lowPass } from '../../audio/biquad.ts';
import type { Correction, MarkedEvent } from '../../domain/correction.ts';
import { newId } from '../../domain/identity.ts';
import { reportOf, whiteNoise } from '../../testing/signals.ts';
import { voiced } from '../../testing/voiced.ts';
import type { AudioEvent } from '../report.types.ts';
import { correctionOf, shownEvents, withoutCorrected } from './corrected.ts';

const correction = (was: MarkedEvent | null, now: MarkedEvent | null): Correction => ({ id: newId(), was, now });
const event = (kind: AudioEvent['kind'], startS: number, endS: number): AudioEvent => ({ kind, startS, endS, severityDb: 6 });
const marked = (corrections: Correction[]) => ({ markedByChannel: [{ roomTone: null, corrections }] });
const mark = (kind: AudioEvent['kind'], startS: number, endS: number): MarkedEvent => ({ kind, startS, endS });

describe('what was found, once somebody has listened', () => {
  const found = [event('wind', 1, 2), event('click', 3, 3.001), event('rustle', 5, 5.4)];

  it('goes where it is said to be none, or something else', () => {
    expect(withoutCorrected(found, [correction(mark('wind', 1, 2), null)])).toEqual(found.slice(1));
    expect(withoutCorrected(found, [correction(mark('rustle', 5, 5.4), mark('handling', 5, 5.4))])).toEqual(found.slice(0, 2));
  });

  it('is meant still when another method found it with its edges a little elsewhere', () => {
    expect(withoutCorrected(found, [correction(mark('wind', 1.2, 2.3), null), correction(mark('click', 3.01, 3.012), null)])).toEqual(found.slice(2));
  });

  it('stays where another kind, or another moment, was meant', () => {
    expect(withoutCorrected(found, [correction(mark('handling', 1, 2), null), correction(mark('wind', 7, 8), null)])).toEqual(found);
  });

  it('is not counted twice where somebody marked it before it was found', () => {
    expect(withoutCorrected(found, [correction(null, mark('wind', 0.9, 2.1))])).toEqual(found.slice(1));
  });
});

describe('what a page shows before it was measured again', () => {
  const found = [event('wind', 1, 2), event('click', 3, 3.001)];

  it('is what was marked; how bad that is nobody knows yet', () => {
    const change = correction(mark('wind', 1, 2), mark('rustle', 1, 2.5));
    expect(shownEvents(found, [change])).toEqual([{ ...mark('rustle', 1, 2.5), severityDb: 0, correctionId: change.id, pending: true }, found[1]]);
  });

  it('is what was found again once the mark is taken away', () => {
    expect(shownEvents([...found, { ...event('rustle', 5, 6), correctionId: newId() }], [])).toEqual(found);
  });

  it('a second change goes on from the first, and says what it saw', () => {
    const id = newId();
    const first = correctionOf(found[0]!, mark('rustle', 1, 2), [], id);
    expect(first).toEqual({ correction: { id, was: mark('wind', 1, 2), now: mark('rustle', 1, 2) }, seen: null });
    const [shown] = shownEvents(found, [first.correction]);
    expect(correctionOf(shown!, null, [first.correction], newId())).toEqual({ correction: { id, was: mark('wind', 1, 2), now: null }, seen: first.correction });
  });
});

describe('every figure counts what somebody marked', () => {
  const talk = voiced(8, -60);
  const measured = (corrections: Correction[]) => reportOf([talk], marked(corrections)).channels[0]!;
  const before = measured([]);
  const [pauseFromS, pauseToS] = before.activity.pause.reduce((longest, span) => (span[1] - span[0] > longest[1] - longest[0] ? span : longest));

  it('a gust that was marked in a pause is an event by hand, is wind, and is no room tone', () => {
    const gust = mark('wind', pauseFromS, pauseToS);
    const after = measured([correction(null, gust)]);
    expect(after.events.filter(({ kind }) => kind === 'wind')).toEqual([{ ...gust, severityDb: expect.any(Number), correctionId: expect.any(String) }]);
    expect(after.activity.pause).not.toContainEqual([pauseFromS, pauseToS]);
    expect(after.character.windShare).toBeGreaterThan(before.character.windShare!);
  });

  it('noise that is said to be none is room tone again', () => {
    const rumble = whiteNoise(-10, 8, 7);
    new Cascade([lowPass(90, 0.7, 48_000), lowPass(90, 0.7, 48_000)]).process(rumble, rumble, rumble.length);
    const loud = talk.map((value, n) => (n / 48_000 > pauseFromS + 0.1 && n / 48_000 < pauseToS - 0.1 ? value + (rumble[n] as number) : value));
    const first = reportOf([loud]).channels[0]!;
    const heard = first.events.filter(({ startS, endS }) => startS < pauseToS && endS > pauseFromS);
    expect(heard.length).toBeGreaterThan(0);
    const corrections = heard.map(({ kind, startS, endS }) => correction(mark(kind, startS, endS), null));
    const after = reportOf([loud], marked(corrections)).channels[0]!;
    expect(after.events.filter(({ startS, endS }) => startS < pauseToS && endS > pauseFromS)).toEqual([]);
    expect(after.noise.floorDbfs!).toBeGreaterThan(first.noise.floorDbfs! + 3);
  });

  it('how bad it is is told from its sound: a break by its depth, a noise against the voice', () => {
    const broken = talk.map((value, n) => (n / 48_000 > 3 && n / 48_000 < 3.08 ? value / 100 : value));
    const severityOf = (event: MarkedEvent) => reportOf([broken], marked([correction(null, event)])).channels[0]!.events.find(({ correctionId }) => correctionId)!.severityDb;
    expect(severityOf(mark('dropout', 3, 3.08))).toBeGreaterThan(20);
    expect(severityOf(mark('clip', 4, 4.01))).toBe(0);
    expect(severityOf(mark('disturbance', pauseFromS + 0.1, pauseToS - 0.1))).toBeLessThan(-10);
  });
});
