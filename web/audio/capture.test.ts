import fc from 'fast-check';
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CaptureCommand, CaptureReport, CaptureSetting } from './captureMessages.ts';

interface Processor {
  port: { onmessage(event: { data: CaptureCommand }): void };
  process(inputs: Float32Array[][]): boolean;
}

const BLOCK = 128;
let made: new (options: { processorOptions: CaptureSetting }) => Processor;
let told: CaptureReport[] = [];
let frame = 0;
beforeAll(async () => {
  // The scope of the audio thread, as far as the recorder uses it.
  vi.stubGlobal('sampleRate', 48_000);
  Object.defineProperty(globalThis, 'currentFrame', { get: () => frame, configurable: true });
  vi.stubGlobal(
    'AudioWorkletProcessor',
    class {
      port = { onmessage: () => undefined, postMessage: (report: CaptureReport) => told.push(report) };
    },
  );
  vi.stubGlobal('registerProcessor', (_name: string, processor: typeof made) => {
    made = processor;
  });
  await import('./capture.worklet.ts');
});
beforeEach(() => {
  told = [];
  frame = 0;
});

/** Channels that count their own samples: channel c has c + frame / 1000. */
const block = (channels: number, from: number) =>
  Array.from({ length: channels }, (_, channel) => Float32Array.from({ length: BLOCK }, (_each, index) => (from + index) / 1000 + channel));

function run(processor: Processor, blocks: number, channelsOfInputs: number[]): void {
  for (let count = 0; count < blocks; count++, frame += BLOCK) {
    let first = 0;
    processor.process(
      channelsOfInputs.map((channels) => {
        const own = block(first + channels, frame).slice(first);
        first += channels;
        return own;
      }),
    );
  }
}
const pieces = () => told.filter((report): report is Extract<CaptureReport, { kind: 'piece' }> => report.kind === 'piece');
const joined = (place: number) => pieces().flatMap(({ channels }) => [...(channels[place] as Float32Array)]);
const counted = (channel: number, from: number, count: number) => Array.from({ length: count }, (_, index) => Math.fround((from + index) / 1000 + channel));

describe('the recorder on the audio thread', () => {
  it('hands on every sample of the chosen channels once, in pieces of one length, whatever the length', () => {
    fc.assert(
      fc.property(fc.integer({ min: 130, max: 700 }), fc.integer({ min: 1, max: 30 }), (pieceFrames, blocks) => {
        told = [];
        frame = 0;
        const processor = new made({ processorOptions: { channelsOfInputs: [2, 2], pieceFrames } });
        processor.port.onmessage({ data: { kind: 'record', channels: [3, 0] } });
        run(processor, blocks, [2, 2]);
        processor.port.onmessage({ data: { kind: 'stop' } });
        expect(joined(0)).toEqual(counted(3, 0, blocks * BLOCK));
        expect(joined(1)).toEqual(counted(0, 0, blocks * BLOCK));
        const all = pieces();
        expect(all.map(({ last }) => last)).toEqual(all.map((_each, index) => index === all.length - 1));
        for (const { channels } of all.slice(0, -1)) expect(channels.map(({ length }) => length)).toEqual([pieceFrames, pieceFrames]);
      }),
    );
  });

  it('what the browser left out is silence of that length, and is told', () => {
    const processor = new made({ processorOptions: { channelsOfInputs: [1], pieceFrames: 300 } });
    processor.port.onmessage({ data: { kind: 'record', channels: [0] } });
    run(processor, 2, [1]);
    frame += 1000;
    run(processor, 1, [1]);
    processor.port.onmessage({ data: { kind: 'stop' } });
    expect(joined(0)).toEqual([...counted(0, 0, 256), ...Array(1000).fill(0), ...counted(0, 1256, 128)]);
    expect(told).toContainEqual({ kind: 'gap', frames: 1000 });
  });

  it('nothing is handed on before it records, nor after; levels are told all the time', () => {
    const processor = new made({ processorOptions: { channelsOfInputs: [1], pieceFrames: 300 } });
    run(processor, 25, [1]);
    processor.port.onmessage({ data: { kind: 'record', channels: [0] } });
    processor.port.onmessage({ data: { kind: 'stop' } });
    run(processor, 25, [1]);
    expect(joined(0)).toEqual([]);
    expect(told.filter(({ kind }) => kind === 'levels').length).toBeGreaterThan(1);
  });

  it.each([
    ['three samples at full scale', [0, 1, 1, 1, 0], true],
    ['two samples at full scale', [0, 1, 1, 0, 1], false],
    ['a loud sine', [0.99, 0.995, 0.99, 0.9, 0.5], false],
  ] as const)('%s: clipped %s', (_what, samples, clipped) => {
    const processor = new made({ processorOptions: { channelsOfInputs: [1], pieceFrames: 300 } });
    const loud = new Float32Array(BLOCK);
    loud.set(samples);
    processor.process([[loud]]);
    frame += BLOCK;
    run(processor, 0, [1]);
    for (let count = 0; count < 20; count++, frame += BLOCK) processor.process([[new Float32Array(BLOCK)]]);
    const [levels] = told.filter((report): report is Extract<CaptureReport, { kind: 'levels' }> => report.kind === 'levels');
    expect(levels!.clipped[0] === 1).toBe(clipped);
    expect(levels!.peaks[0]).toBeCloseTo(Math.max(...samples), 5);
  });
});
