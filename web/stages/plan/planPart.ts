import type { Chain } from '@marvet/core/domain/chain';
import type { FactorKind } from '@marvet/core/domain/factor';
import type { Item } from '@marvet/core/domain/item';
import type { PlanDraft } from '@marvet/core/domain/plan';
import type { StoredScript } from '@marvet/core/domain/script';
import type { StoredStation } from '@marvet/core/domain/station';
import type { Take } from '@marvet/core/domain/take';
import type { WorkedOutPlan } from '@marvet/core/plan/workOut';

/** Changes the plan. What takes something away says so in words, and is offered to be undone. */
export type ChangePlan = (patch: Partial<PlanDraft>, told?: string) => void;

/** What every part of the plan works with. */
export interface PlanPartProps {
  trialId: string;
  plan: PlanDraft;
  stations: StoredStation[];
  scripts: StoredScript[];
  /** Candidates only. */
  chains: Chain[];
  items: Item[];
  takes: Take[];
  /** Null while it is worked out for the first time, or when there are too many cells. */
  worked: WorkedOutPlan | null;
  onChange: ChangePlan;
}

/** The name of a factor in the middle of a sentence. */
export function factorName(plan: PlanDraft, kind: FactorKind): string {
  return plan.factors.find((factor) => factor.kind === kind)?.name.toLowerCase() ?? kind;
}
