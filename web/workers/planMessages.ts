import type { PlanDraft } from '@marvet/core/domain/plan';
import type { WorkedOutPlan, WorkOutContext } from '@marvet/core/plan/workOut';

/** What the page asks of the plan worker. */
export interface PlanRequest {
  plan: PlanDraft;
  context: WorkOutContext;
}

/** How far it is, and what came out. */
export type PlanReply = { kind: 'progress'; share: number } | { kind: 'done'; result: WorkedOutPlan | { tooManyCells: number } };
