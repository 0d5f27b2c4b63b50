import { beforeAll, describe, expect, it, vi } from 'vitest';
import type { SwitcherCommand } from './switcherMessages.ts';

interface Processor {
  port: { onmessage(event: { data: SwitcherCommand }): void; postMessage(): void };
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

function playing(clips: Float32Array[]) {
  const processor = new made();
  const tell = (data: SwitcherCommand) => processor.port.onmessage({ data });
  tell({ kind: 'load', clips: clips.map((clip) => [clip]) });
  tell({ kind: 'play', playing: true });
  const hear = (frames: number) => {
    const output = new Float32Array(frames);
    processor.process([], [[output]]);
    return output;
  };
  return { tell, hear };
}

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
    let largest = 0;
    for (let frame = 1; frame < switched.length; frame++) largest = Math.max(largest, Math.abs(switched[frame]! - switched[frame - 1]!));
    expect(largest).toBeLessThan(1.05 / fade);
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
    let largest = 0;
    for (let frame = 1; frame < looped.length; frame++) largest = Math.max(largest, Math.abs(looped[frame]! - looped[frame - 1]!));
    expect(largest).toBeLessThan(0.02);
  });
});
