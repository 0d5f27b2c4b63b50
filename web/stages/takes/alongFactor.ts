import type { Chain } from '@marvet/core/domain/chain';
import { CONDITION_KINDS, type ConditionKind } from '@marvet/core/domain/factor';
import type { Plan } from '@marvet/core/domain/plan';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { type FigurePoint, figureGrid } from '@marvet/core/takes/figureGrid';

/** A level on the axis: its name, and a value for each candidate under the candidate's id. Null is not measured. */
export type LevelRow = { level: string } & Record<string, string | number | null>;

/** A figure along the levels of one factor. */
export interface AlongFactor {
  kind: ConditionKind;
  /** What else it could be laid along. */
  varied: ConditionKind[];
  rows: LevelRow[];
}

/**
 * A figure along one factor, each value the median over everything else: along the one that is asked for,
 * else distance, else the first that differs; null where nothing does.
 */
export function alongFactor(points: FigurePoint[], plan: Pick<Plan, 'factors' | 'removedLevels'>, chains: readonly Pick<Chain, 'id'>[], asked: string | null): AlongFactor | null {
  const varied = CONDITION_KINDS.filter((kind) => new Set(points.map((point) => point.condition[kind])).size > 1);
  const kind = varied.find((each) => each === asked) ?? varied.find((each) => each === 'distance') ?? varied[0];
  if (!kind) return null;
  const cells = figureGrid(points, (point) => `${point.condition[kind]} ${point.candidateId}`);
  const levels = (plan.factors.find((factor) => factor.kind === kind)?.levels ?? []).filter((level) => points.some((point) => point.condition[kind] === level.id));
  const rows = levels.map((level) => ({
    level: levelLabel(plan, kind, level.id),
    ...Object.fromEntries(chains.map((chain) => [chain.id, cells.get(`${level.id} ${chain.id}`)?.median ?? null])),
  }));
  return { kind, varied, rows };
}
