import { beforeAll, describe, expect, it, vi } from 'vitest';
import type { SwitcherCommand, SwitcherReport } from './switcherMessages.ts';

interface Processor {
  port: { onmessage(event: { data: SwitcherCommand }): void; postMessage(report: SwitcherReport): void };
  process(inputs: Float32Array[][], outputs: Float32Array[][]): boolean;
}

const RATE = 48_000;
let made: new () => Processor;
beforeAll(async () => {
  // The scope of the audio thread, as far as the switcher uses it.
  vi.stubGlobal('sampleRate', RATE);
  vi.stubGlobal(
    'AudioWorkletProcessor',
    class {
      port = { onmessage: () => undefined, postMessage: () => undefined };
    },
  );
  vi.stubGlobal('registerProcessor', (_name: string, processor: new () => Processor) => {
    made = processor;
  });
  await import('./switcher.worklet.ts');
});

const level = (value: number, frames = RATE) => new Float32Array(frames).fill(value);

/** @param pieceFrames the clips come in pieces of so many samples, of which the first is there */
function playing(clips: Float32Array[], pieceFrames = clips[0]!.length) {
  const processor = new made();
  const reports: SwitcherReport[] = [];
  processor.port.postMessage = (report) => reports.push(report);
  const tell = (data: SwitcherCommand) => processor.port.onmessage({ data });
  const give = (piece: number) => tell({ kind: 'piece', piece, clips: clips.map((clip) => [clip.slice(piece * pieceFrames, (piece + 1) * pieceFrames)]) });
  tell({ kind: 'begin', clips: clips.length, frames: clips[0]!.length, pieceFrames });
  give(0);
  tell({ kind: 'play', playing: true });
  const hear = (frames: number) => {
    const output = new Float32Array(frames);
    processor.process([], [[output]]);
    return output;
  };
  return { tell, hear, give, last: () => reports.at(-1)! };
}

const largestStep = (samples: Float32Array) => samples.reduce((most, value, at) => (at === 0 ? most : Math.max(most, Math.abs(value - samples[at - 1]!))), 0);

describe('switching between clips', () => {
  it('takes 5 ms, without a gap and without a step that could be heard', () => {
    const { tell, hear } = playing([level(0.5), level(-0.5)]);
    hear(4800);
    tell({ kind: 'hear', clip: 1 });
    const switched = hear(960);
    const fade = 0.005 * RATE;
    // One becomes the other in a straight line over 240 frames; the largest step is that of the line.
    expect(switched[fade / 2]).toBeCloseTo(0, 2);
    expect(switched[fade]).toBeCloseTo(-0.5, 2);
    expect(largestStep(switched)).toBeLessThan(1.05 / fade);
  });

  it('stays at the same sample of the clip', () => {
    const ramp = Float32Array.from({ length: RATE }, (_, frame) => frame / RATE);
    const { tell, hear } = playing([ramp, ramp]);
    hear(9600);
    tell({ kind: 'hear', clip: 1 });
    const switched = hear(480);
    // Two clips that are alike: the switch between them is not to be seen at all.
    switched.forEach((value, frame) => expect(value).toBeCloseTo((9600 + frame) / RATE, 5));
  });

  it('starts and loops without a click', () => {
    const { tell, hear } = playing([level(1)]);
    expect(hear(10)[0]).toBeLessThan(0.01);
    tell({ kind: 'loop', startFrame: 0, endFrame: 4800 });
    const looped = hear(9600);
    expect(largestStep(looped)).toBeLessThan(0.02);
  });

  it('goes elsewhere without a click', () => {
    const { tell, hear, last } = playing([Float32Array.from({ length: RATE }, (_, frame) => (frame < 12_000 ? 0.8 : -0.8))]);
    hear(960);
    tell({ kind: 'seek', frame: 24_000 });
    expect(last().frame).toBe(24_000);
    expect(largestStep(hear(1920))).toBeLessThan(0.02);
    tell({ kind: 'loop', startFrame: 4800, endFrame: 9600 });
    const back = hear(1920);
    expect(largestStep(back)).toBeLessThan(0.02);
    expect(back.at(-1)).toBeCloseTo(0.8, 5);
  });
});

describe('clips that come in pieces', () => {
  const ramp = Float32Array.from({ length: RATE }, (_, frame) => frame / RATE);

  it('are one sound where they meet', () => {
    const { hear, give } = playing([ramp], 4800);
    for (const piece of [2, 1]) give(piece);
    hear(480);
    hear(10_000).forEach((value, frame) => expect(value).toBeCloseTo((480 + frame) / RATE, 5));
  });

  it('are waited for without a click, at the same place, and go on when they are there', () => {
    const { hear, give, last } = playing([level(0.5), level(0.5)], 4800);
    const before = hear(9600);
    expect(largestStep(before)).toBeLessThan(0.02);
    expect(before.at(-1)).toBe(0);
    expect(last()).toMatchObject({ frame: 4800, waiting: true, playing: true });
    give(1);
    const after = hear(2400);
    expect(largestStep(after)).toBeLessThan(0.02);
    expect(after.at(-1)).toBeCloseTo(0.5, 5);
    expect(last()).toMatchObject({ waiting: false });
  });

  it('are waited for where a seek leads to one that is not there, or to one that was dropped', () => {
    const { tell, hear, give, last } = playing([ramp], 4800);
    hear(480);
    tell({ kind: 'seek', frame: 24_000 });
    hear(2400);
    expect(last()).toMatchObject({ frame: 24_000, waiting: true });
    give(5);
    give(6);
    expect(hear(2400).at(-1)).toBeCloseTo((24_000 + 2399) / RATE, 5);
    tell({ kind: 'drop', piece: 0 });
    tell({ kind: 'seek', frame: 100 });
    hear(2400);
    expect(last()).toMatchObject({ frame: 100, waiting: true });
  });

  it('of a loop whose start is not there are waited for at its start', () => {
    const { tell, hear, give, last } = playing([level(0.5)], 4800);
    for (const piece of [5, 6]) give(piece);
    tell({ kind: 'seek', frame: 24_000 });
    hear(960);
    tell({ kind: 'drop', piece: 0 });
    tell({ kind: 'loop', startFrame: 0, endFrame: 28_800 });
    const looped = hear(9600);
    expect(largestStep(looped)).toBeLessThan(0.02);
    expect(last()).toMatchObject({ frame: 0, waiting: true });
    give(0);
    give(1);
    expect(hear(2400).at(-1)).toBeCloseTo(0.5, 5);
  });
});
