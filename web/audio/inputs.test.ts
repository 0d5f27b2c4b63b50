import { describe, expect, it, vi } from 'vitest';

vi.mock('./capture.worklet.ts?worker&url', () => ({ default: '' }));
const { whatBrowserDoes } = await import('./inputs.ts');

const plain = { label: 'Interface', sampleRate: 48_000, sampleSize: 24, channelCount: 4, echoCancellation: false, noiseSuppression: false, autoGainControl: false };

describe('what a browser does to the sound is said', () => {
  it('nothing, where it says that nothing is on', () => {
    const { fair, sentences } = whatBrowserDoes([plain], 48_000);
    expect(fair).toBe(true);
    expect(sentences).toEqual([
      'No processing was asked for, and the browser says that none is on.',
      'Interface: 4 channels, 48,000 Hz, 24 bit.',
      'Recorded at 48,000 Hz, 24 bit, uncompressed.',
    ]);
  });

  it('what it does all the same is named, and spoils the comparison', () => {
    const { fair, sentences } = whatBrowserDoes([{ ...plain, autoGainControl: true, noiseSuppression: true }], 48_000);
    expect(fair).toBe(false);
    expect(sentences[0]).toContain('noise suppression on Interface, automatic gain on Interface');
  });

  it('two inputs, one at another rate: converted, and drifting', () => {
    const { sentences } = whatBrowserDoes([plain, { ...plain, label: 'Second', sampleRate: 44_100, channelCount: 1 }], 48_000);
    expect(sentences).toContain('Second: 1 channel, 44,100 Hz, 24 bit.');
    expect(sentences).toContain('Second is converted to that rate by the browser.');
    expect(sentences.at(-1)).toContain('drift apart');
  });
});
