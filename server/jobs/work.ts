import { createHash } from 'node:crypto';
import type { Allocation } from '@marvet/core/decide/allocate/gear';
import type { RankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import type { Effects } from '@marvet/core/decide/effects/effects';
import type { Job, JobKind } from '@marvet/core/domain/job';
import type { PlanDraft } from '@marvet/core/domain/plan';
import type { ClipTone } from '@marvet/core/listen/blindClip';
import type { RoundCut } from '@marvet/core/listen/cutRound';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import { type LevelSeries, METHOD_VERSION } from '@marvet/core/measure/report.types';
import type { BuiltPlan, PlanContext } from '@marvet/core/plan/buildPlan';
import type { PlacedByClock } from '@marvet/core/takes/places/placeByClock';
import { LRUCache } from 'lru-cache';
import type { BlobStore } from '../audio/blobs.ts';
import type { Store } from '../store/store.ts';
import { type AgainstReference, againstHandler, openAgainst } from './against.ts';
import { backupHandler, openBackups } from './backupFiles.ts';
import type { EventBus } from './events.ts';
import { type Measuring, measureHandler, openMeasuring } from './measuring.ts';
import { BULK_AT_ONCE, type WorkerPool } from './pool.ts';
import { type JobHandler, type JobRunner, openRunner } from './runner.ts';
import type { AllocationTask, ClipTask, CutTask, DoubtTask, EffectsTask, JobTask, LevelsTask, PairTask, PieceTask, PlacesTask, ToneTask } from './tasks.ts';

/** Clips and pairs in memory are bounded by their bytes; what falls out is made again when it is asked for. */
const KEPT_BYTES = 160 << 20;

/** All work beside the answers: measuring in the background, and what a person waits for. */
export interface Work {
  runner: JobRunner;
  measuring: Measuring;
  against: AgainstReference;
  pair(trialId: string, subjectId: string, task: Omit<PairTask, 'kind'>): Promise<ComparedPair>;
  cut(trialId: string, task: Omit<CutTask, 'kind'>): Promise<RoundCut>;
  clip(roundId: string, task: Omit<ClipTask, 'kind'>): Promise<Uint8Array>;
  /** How much a clip is moved so that it is as loud behind filters as without. */
  tone(subjectId: string, task: Omit<ToneTask, 'kind'>): Promise<ClipTone>;
  /** A piece of clips, made anew each time and at once. */
  piece(task: Omit<PieceTask, 'kind'>, signal: AbortSignal): Promise<Uint8Array>;
  places(trialId: string, task: Omit<PlacesTask, 'kind'>): Promise<PlacedByClock[]>;
  levels(trialId: string, task: Omit<LevelsTask, 'kind'>): Promise<LevelSeries>;
  doubt(trialId: string, task: Omit<DoubtTask, 'kind'>): Promise<RankDoubt>;
  /** Who gets what. */
  allocation(trialId: string, task: Omit<AllocationTask, 'kind'>): Promise<Allocation>;
  effects(trialId: string, task: Omit<EffectsTask, 'kind'>): Promise<Effects[]>;
  plan(trialId: string, plan: PlanDraft, context: PlanContext): Promise<BuiltPlan>;
}

export function openWork(store: Store, blobs: BlobStore, pool: WorkerPool, events: EventBus): Work {
  const tasks = new Map<string, JobTask>();
  const waitedFor: JobHandler = {
    resumes: false,
    async run(job: Job, signal, onProgress) {
      const task = tasks.get(job.key);
      if (!task) throw new Error('Nobody waits for this any more');
      return pool.run(task, signal, onProgress);
    },
  };
  const handlers: Record<JobKind, JobHandler> = {
    measure: measureHandler(store, blobs, pool, events, {
      again: (fileId) => measuring.request([fileId]),
      look: (trialId, takeIds) => against.look(trialId, takeIds),
      lower: (fileId) => backups.look(fileId),
    }),
    against: againstHandler(store, blobs, pool, events),
    backup: backupHandler(store, blobs, pool, events),
    pair: waitedFor,
    cut: waitedFor,
    clip: waitedFor,
    tone: waitedFor,
    plan: waitedFor,
    places: waitedFor,
    levels: waitedFor,
    doubt: waitedFor,
    effects: waitedFor,
    allocation: waitedFor,
  };
  const runner = openRunner(store, handlers, BULK_AT_ONCE);
  const measuring = openMeasuring(store, runner);
  const backups = openBackups(store, runner);
  const against = openAgainst(store, runner, events);

  const kept = new LRUCache<string, object>({ maxSize: KEPT_BYTES, sizeCalculation: sizeOf });
  const underWay = new Map<string, Promise<unknown>>();

  /** The same work asked for twice at once is done once; its result is kept while there is room. */
  async function result<Result>(trialId: string | null, subjectId: string, key: string, task: JobTask, keep: boolean): Promise<Result> {
    const known = kept.get(key);
    if (known) return known as Result;
    const going = underWay.get(key);
    if (going) return going as Promise<Result>;
    tasks.set(key, task);
    const doing = runner.waitFor({ kind: task.kind, trialId, subjectId, key }).finally(() => {
      tasks.delete(key);
      underWay.delete(key);
    });
    underWay.set(key, doing);
    const made = await doing;
    if (keep) kept.set(key, made as object);
    return made as Result;
  }

  return {
    runner,
    measuring,
    against,
    pair: (trialId, subjectId, task) => result(trialId, subjectId, `pair v${METHOD_VERSION} ${JSON.stringify(task)}`, { kind: 'pair', ...task }, true),
    cut: (trialId, task) => result(trialId, trialId, `cut ${JSON.stringify(task)}`, { kind: 'cut', ...task }, true),
    clip: (roundId, task) => result(null, roundId, `clip ${JSON.stringify(task)}`, { kind: 'clip', ...task }, true),
    tone: (subjectId, task) => result(null, subjectId, `tone ${hashOf(task)}`, { kind: 'tone', ...task }, true),
    piece: (task, signal) => pool.run({ kind: 'piece', ...task }, signal),
    places: (trialId, task) => result(trialId, trialId, `places ${trialId} ${JSON.stringify(task)}`, { kind: 'places', ...task }, true),
    levels: (trialId, task) => result(trialId, trialId, `levels ${task.path}`, { kind: 'levels', ...task }, true),
    doubt: (trialId, task) => result(trialId, trialId, `doubt ${hashOf(task)}`, { kind: 'doubt', ...task }, true),
    effects: (trialId, task) => result(trialId, trialId, `effects ${hashOf(task)}`, { kind: 'effects', ...task }, true),
    allocation: (trialId, task) => result(trialId, trialId, `allocation ${hashOf(task)}`, { kind: 'allocation', ...task }, true),
    plan: (trialId, plan, context) => result(trialId, trialId, `plan ${trialId} ${JSON.stringify(plan)} ${JSON.stringify(context)}`, { kind: 'plan', plan, context }, false),
  };
}

/** Values of thousands of recordings are too long for a key. */
const hashOf = (task: object) => createHash('sha256').update(JSON.stringify(task)).digest('hex');

function sizeOf(value: object): number {
  return value instanceof Uint8Array ? value.byteLength + 1 : JSON.stringify(value).length + 1;
}
