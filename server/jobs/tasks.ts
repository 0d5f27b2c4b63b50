import type { MessagePort } from 'node:worker_threads';
import type { PlanDraft } from '@marvet/core/domain/plan';
import type { ClipSource } from '@marvet/core/listen/blindClip';
import type { MeasureOptions } from '@marvet/core/measure/report.types';
import type { PlanContext } from '@marvet/core/plan/buildPlan';

/** Work for a worker thread. */
export interface MeasureTask {
  kind: 'measure';
  path: string;
  options: MeasureOptions;
  /** Gets the share done, 0 to 1, a few times a second. */
  progress: MessagePort;
}

/** Two recordings compared, aligned first. */
export interface PairTask {
  kind: 'pair';
  channel: { path: string; channel: number };
  reference: { path: string; channel: number };
}

/** A plan turned into takes in their order. */
export interface PlanTask {
  kind: 'plan';
  plan: PlanDraft;
  context: PlanContext;
}

export interface ClipsTask {
  kind: 'clips';
  sources: (Omit<ClipSource, 'samples' | 'sampleRateHz'> & { path: string; channel: number })[];
  sameClock: boolean;
}
