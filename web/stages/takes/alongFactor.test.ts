import { emptyPlan } from '@marvet/core/plan/followRecords';
import type { FigurePoint } from '@marvet/core/takes/figureGrid';
import { describe, expect, it } from 'vitest';
import { alongFactor } from './alongFactor.ts';

const plan = emptyPlan();
const chains = [{ id: 'QO' }, { id: 'LB' }];
const point = (candidateId: string, distance: string, value: number, windscreen = 'bare') =>
  ({ candidateId, condition: { station: 's', script: 'x', windscreen, distance }, value }) as FigurePoint;

describe('a figure along a factor', () => {
  it('lies along distance in the order of the plan; a candidate that was not measured there has a gap, not nought', () => {
    const along = alongFactor([point('QO', '40', 12), point('QO', '1', 30), point('LB', '1', 26)], plan, chains, null)!;
    expect(along.kind).toBe('distance');
    expect(along.rows).toEqual([
      { level: '1 m', QO: 30, LB: 26 },
      { level: '40 m', QO: 12, LB: null },
    ]);
  });

  it('counts only what was recorded at every level: a distance that was tried in the quiet alone does not look better for it', () => {
    const points = [point('QO', '1', 10, 'bare'), point('QO', '1', 20, 'foam'), point('QO', '1', 60, 'fur'), point('QO', '10', 50, 'fur')];
    const along = alongFactor(points, plan, chains, 'distance')!;
    expect(along.sharedConditions).toBe(1);
    expect(along.rows.map((row) => row.QO)).toEqual([60, 50]);
  });

  it('of several conditions at every level each value is the median', () => {
    const points = ['bare', 'foam', 'fur'].flatMap((screen, index) => [point('QO', '1', [10, 20, 90][index]!, screen), point('QO', '10', index, screen)]);
    expect(alongFactor(points, plan, chains, 'distance')).toMatchObject({ sharedConditions: 3, rows: [{ QO: 20 }, { QO: 1 }] });
  });

  it('where nothing was recorded at every level all counts, and it is said that it is unlike', () => {
    const points = [point('QO', '1', 10, 'bare'), point('QO', '1', 20, 'foam'), point('QO', '10', 5, 'fur')];
    expect(alongFactor(points, plan, chains, 'distance')).toMatchObject({ sharedConditions: 0, rows: [{ QO: 15 }, { QO: 5 }] });
  });

  it('what is asked for and does not differ is not drawn; where nothing differs there is no chart', () => {
    const points = [point('QO', '1', 10, 'bare'), point('QO', '1', 20, 'fur')];
    expect(alongFactor(points, plan, chains, 'distance')).toMatchObject({ kind: 'windscreen', varied: ['windscreen'] });
    expect(alongFactor([point('QO', '1', 10), point('LB', '1', 20)], plan, chains, null)).toBeNull();
    expect(alongFactor([], plan, chains, null)).toBeNull();
  });
});
