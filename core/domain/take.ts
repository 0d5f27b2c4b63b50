import type { Condition } from './factor.ts';
import type { Control } from './plan.ts';

export const TAKE_FLAGS = ['wind', 'traffic', 'break-up', 'handling', 'spoiled'] as const;
export type TakeFlag = (typeof TAKE_FLAGS)[number];

export type TakeStatus = 'planned' | 'rolling' | 'done' | 'skipped';

export interface FlagMark {
  flag: TakeFlag;
  atMs: number;
}

/** Stages of gain that a chain may have, in signal order. */
export const GAIN_STAGES = ['transmitter', 'receiver', 'recorder'] as const;
export type GainStage = (typeof GAIN_STAGES)[number];
export type Gains = Partial<Record<GainStage, number>>;

/** One performance, slated once; it covers one setup per candidate. */
export interface Take {
  id: string;
  trialId: string;
  slate: number;
  /** 1 for the first performance of a slate, then 2, 3... for each time it was done again. */
  pass: number;
  position: number;
  condition: Condition;
  /** Chain ids of the candidates recorded in this take. */
  candidateIds: string[];
  status: TakeStatus;
  startedAtMs: number | null;
  stoppedAtMs: number | null;
  flags: FlagMark[];
  note: string;
  /** Gains by chain id. */
  gains: Record<string, Gains>;
  windMs: number | null;
  noiseDba: number | null;
  /** The plan's controls as they stood when the take was started. */
  controls: Control[];
  binnedAtMs: number | null;
}

/**
 * How a take is called, on the slate and in file names.
 * @example slateLabel({ slate: 7, pass: 2 }) // "07/2"
 */
export function slateLabel(take: Pick<Take, 'slate' | 'pass'>): string {
  const number = String(take.slate).padStart(2, '0');
  return take.pass > 1 ? `${number}/${take.pass}` : number;
}

/** A take that was flagged spoiled takes no part in any judgement. */
export function isSpoiled(take: Pick<Take, 'flags'>): boolean {
  return take.flags.some((mark) => mark.flag === 'spoiled');
}
