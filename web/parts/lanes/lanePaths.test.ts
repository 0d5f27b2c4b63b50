import { describe, expect, it } from 'vitest';
import { levelPath, ticks } from './lanePaths.ts';

const series = (values: number[]) => ({ stepS: 0.05, rmsDbfs: values }) as never;
const x = (seconds: number) => seconds * 100;
const y = (db: number) => -db;

describe('the level as a path', () => {
  it('is closed over its base, a point for each step in sight', () => {
    const path = levelPath(series([-20, -30, -40]), 0, 0.15, x, y, 90);
    expect(path).toMatch(/^M0\.0,90 L.* L15\.0,90 Z$/);
    expect(path.match(/L/g)).toHaveLength(4);
    expect(path).toContain('2.5,20.0');
  });

  it('keeps the highest of what is too near to be told apart: a click is not smoothed away', () => {
    const values = Array.from({ length: 30_000 }, () => -60);
    values[12_345] = -3;
    const path = levelPath(series(values), 0, 1500, x, y, 90);
    expect(path.split('L').length).toBeLessThan(1500);
    expect(path).toContain(',3.0');
  });
});

describe('moments on the axis', () => {
  it.each([
    [0, 10, 10, ['0 s', '1 s', '2 s']],
    [1, 2, 10, ['1.0 s', '1.1 s', '1.2 s']],
    [0, 3600, 6, ['0 s', '600 s', '1200 s']],
  ])('%f to %f s', (from, to, most, first) => {
    const found = ticks(from, to, most + 1);
    expect(found.slice(0, 3).map((tick) => tick.text)).toEqual(first);
    expect(found.length).toBeLessThanOrEqual(most + 2);
    for (const { atS } of found) expect(atS).toBeGreaterThanOrEqual(from);
  });
});
