import type { Chain } from '@marvet/core/domain/chain';
import { CONDITION_KINDS, type ConditionKind, conditionKey } from '@marvet/core/domain/factor';
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
  /** How many conditions, apart from this factor, were recorded at every level; only these count. 0 where there are none: then all count. */
  sharedConditions: number;
}

/**
 * A figure along one factor: along the one that is asked for, else distance, else the first that differs;
 * null where nothing does. Each value is the median over what was recorded at every level, since a level
 * that was recorded in the quiet place alone would look better for that.
 */
export function alongFactor(points: FigurePoint[], plan: Pick<Plan, 'factors' | 'removedLevels'>, chains: readonly Pick<Chain, 'id'>[], asked: string | null): AlongFactor | null {
  const varied = CONDITION_KINDS.filter((kind) => new Set(points.map((point) => point.condition[kind])).size > 1);
  const kind = varied.find((each) => each === asked) ?? varied.find((each) => each === 'distance') ?? varied[0];
  if (!kind) return null;
  const shared = atEveryLevel(points, kind);
  const counted = shared.size > 0 ? points.filter((point) => shared.has(restOf(point, kind))) : points;
  const cells = figureGrid(counted, (point) => `${point.condition[kind]} ${point.candidateId}`);
  const levels = (plan.factors.find((factor) => factor.kind === kind)?.levels ?? []).filter((level) => points.some((point) => point.condition[kind] === level.id));
  const rows = levels.map((level) => ({
    level: levelLabel(plan, kind, level.id),
    ...Object.fromEntries(chains.map((chain) => [chain.id, cells.get(`${level.id} ${chain.id}`)?.median ?? null])),
  }));
  return { kind, varied, rows, sharedConditions: shared.size };
}

/** Conditions, apart from one factor, that were recorded at all of its levels. */
function atEveryLevel(points: readonly FigurePoint[], kind: ConditionKind): Set<string> {
  const levels = new Set(points.map((point) => point.condition[kind]));
  const recordedAt = new Map<string, Set<string | undefined>>();
  for (const point of points) {
    const rest = restOf(point, kind);
    recordedAt.set(rest, (recordedAt.get(rest) ?? new Set()).add(point.condition[kind]));
  }
  return new Set([...recordedAt].flatMap(([rest, at]) => (at.size === levels.size ? [rest] : [])));
}

function restOf({ condition }: FigurePoint, kind: ConditionKind): string {
  return conditionKey({ ...condition, [kind]: '' });
}
