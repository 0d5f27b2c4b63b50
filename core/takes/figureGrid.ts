import { median } from 'simple-statistics';
import type { Condition } from '../domain/factor.ts';

/** One measured candidate in one condition. */
export interface FigurePoint {
  recordingId: string;
  candidateId: string;
  condition: Condition;
  value: number;
}

/** A cell of the grid: the median of its values, and where they come from. */
export interface FigureCell {
  median: number;
  points: FigurePoint[];
}

/** Groups points by a key, each group with its median. */
export function figureGrid(points: readonly FigurePoint[], keyOf: (point: FigurePoint) => string): Map<string, FigureCell> {
  const groups = new Map<string, FigurePoint[]>();
  for (const point of points) groups.set(keyOf(point), [...(groups.get(keyOf(point)) ?? []), point]);
  return new Map([...groups].map(([key, group]) => [key, { median: median(group.map((point) => point.value)), points: group }]));
}

/** Where a value lies between the least and the most of all, 0 to 1; 0.5 where all are alike. */
export function placeInRange(value: number, values: readonly number[]): number {
  const least = Math.min(...values);
  const most = Math.max(...values);
  return most > least ? (value - least) / (most - least) : 0.5;
}
