// @vitest-environment jsdom
import type { PairGroup } from '@marvet/core/measure/report.types';
import { cleanup, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it } from 'vitest';
import { PairFigures } from './PairFigures.tsx';

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
};
const shown = (pair: Partial<PairGroup>) =>
  render(
    <MemoryRouter>
      <PairFigures compared={{ pair: { ...PAIR, ...pair }, warnings: [] }} />
    </MemoryRouter>,
  );

describe('one take against another', () => {
  it('what noise reduction took is told in one sentence and in figures', () => {
    shown({ denoise: { noiseReductionDb: 11.6, voiceLossDb: [], wordEdgeLossDb: 3.1, musicalNoise: 0.72 } });
    expect(screen.getByText('Noise is 12 dB lower against the voice; 3 dB of the faint ends of words went with it, and what is left warbles.')).toBeTruthy();
    expect(screen.getByRole('row', { name: /Noise taken off, against the voice 11.6 dB/ })).toBeTruthy();
    expect(screen.getByRole('row', { name: /Warble of the noise left 0.72/ })).toBeTruthy();
  });

  it('of two microphones, or the same noise, nothing of the kind is said', () => {
    shown({});
    expect(screen.queryByText(/Noise is/)).toBeNull();
    expect(screen.queryByText(/Noise taken off/)).toBeNull();
  });
});
