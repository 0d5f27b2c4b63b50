import type { PlanDraft } from '@marvet/core/domain/plan';
import type { ClipSource } from '@marvet/core/listen/blindClip';
import type { RoundCut, RoundSource } from '@marvet/core/listen/cutRound';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import type { MeasuredFile } from '@marvet/core/measure/report';
import type { MeasureOptions } from '@marvet/core/measure/report.types';
import type { BuiltPlan, PlanContext } from '@marvet/core/plan/buildPlan';

/** From where to where in a file, in seconds; null is its start, or its end. */
export type FileSpan = [startS: number | null, endS: number | null];

/** One channel of a stored file, or a stretch of it. */
export interface ChannelPlace {
  path: string;
  channel: number;
  span: FileSpan;
}

/** A file measured, as a whole or in stretches, each with what is marked in it. */
export interface MeasureTask {
  kind: 'measure';
  path: string;
  parts: { span: FileSpan; options: MeasureOptions }[];
}

/** Two recordings compared, aligned first. */
export interface PairTask {
  kind: 'pair';
  channel: ChannelPlace;
  reference: ChannelPlace;
}

/** A plan turned into takes in their order. */
export interface PlanTask {
  kind: 'plan';
  plan: PlanDraft;
  context: PlanContext;
}

/** The recordings of a listening round, cut to clips that begin at the same syllable. */
export interface CutTask {
  kind: 'cut';
  sources: (ChannelPlace & Omit<RoundSource, 'track'>)[];
}

/** One clip of a listening round. */
export interface ClipTask extends ChannelPlace, ClipSource {
  kind: 'clip';
}

export type AnyTask = MeasureTask | PairTask | CutTask | ClipTask | PlanTask;

export type ResultOf<Task extends AnyTask> = Task extends MeasureTask
  ? MeasuredFile[]
  : Task extends PairTask
    ? ComparedPair
    : Task extends CutTask
      ? RoundCut
      : Task extends ClipTask
        ? Uint8Array
        : BuiltPlan;

/** What a thread answers: a result, or why there can be none. */
export type Answer = { ok: true; result: unknown } | { ok: false; message: string };
