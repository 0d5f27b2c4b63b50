// @vitest-environment jsdom
import type { PairGroup } from '@marvet/core/measure/report.types';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { NoiseTaken } from './NoiseTaken.tsx';

afterEach(cleanup);
const PAIR: PairGroup = {
  latencyMs: 2,
  driftPpm: 0,
  polarity: 1,
  levelDiffDb: 0,
  bandDiffDb: [],
  spectralDistanceDb: 0.4,
  eqMatch: [],
  matchedDistanceDb: 0.4,
  coherentSnrDb: 20,
  denoise: null,
  sameNoise: null,
};
const onHear = vi.fn();
const shown = (pair: Partial<PairGroup>) =>
  render(
    <MemoryRouter>
      <NoiseTaken pair={{ ...PAIR, ...pair }} onHear={onHear} />
    </MemoryRouter>,
  );

describe('one take against another', () => {
  it('what noise reduction took is told in one sentence and in figures', () => {
    shown({ denoise: { noiseReductionDb: 11.6, voiceLossDb: [], wordEdgeLossDb: 3.1, musicalNoise: 0.72, moments: [] } });
    expect(screen.getByText('Noise is 12 dB lower against the voice; 3 dB of the faint ends of words went with it, and what is left warbles.')).toBeTruthy();
    expect(screen.getByRole('row', { name: /Noise, against the voice 11.6 dB/ })).toBeTruthy();
    expect(screen.getByRole('row', { name: /Warble of the noise left 0.72/ })).toBeTruthy();
  });

  it('moments to hear come with the same moment before', () => {
    const moment = { kind: 'swallowed' as const, startS: 2.31, endS: 2.5, amount: 9.6 };
    shown({ denoise: { noiseReductionDb: 11.6, voiceLossDb: [], wordEdgeLossDb: 3.1, musicalNoise: 0.1, moments: [moment] } });
    expect(screen.getByText('a word’s end lost 10 dB')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Hear 2.31 s processed' }));
    expect(onHear).toHaveBeenLastCalledWith('processed', moment);
    fireEvent.click(screen.getByRole('button', { name: 'Hear 2.31 s before' }));
    expect(onHear).toHaveBeenLastCalledWith('reference', moment);
  });

  it('of two microphones nothing of the kind is said, of the same noise that nothing was taken', () => {
    shown({});
    expect(screen.queryByText(/Noise is/)).toBeNull();
    expect(screen.queryByText('What noise reduction took')).toBeNull();
    shown({ sameNoise: true });
    expect(screen.getByText('Both have the same noise: nothing was taken of it.')).toBeTruthy();
  });
});
