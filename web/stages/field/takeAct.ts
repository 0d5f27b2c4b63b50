import type { Control } from '@marvet/core/domain/plan';
import { type Gains, slateLabel, type Take } from '@marvet/core/domain/take';
import type { FieldState } from './useFieldLog.ts';

/** What the one large button needs to know. */
export interface Acting {
  take: Take;
  next: Take | undefined;
  controls: Control[];
  /** Kit's gains by setup. */
  gains: Record<string, Gains>;
  log: FieldState;
  /** Keeps this take in sight. */
  onHold: () => void;
  onNext: () => void;
}

/** Starts the take, stops it, or goes on to the next. */
export function actOn({ take, controls, gains, log, onHold, onNext }: Acting): void {
  if (take.status !== 'planned' && take.status !== 'rolling') {
    onNext();
    return;
  }
  // The address holds on to this take, so that it stays in sight once it is done.
  onHold();
  void log.write(take.status === 'planned' ? { kind: 'start', takeId: take.id, controls, gains } : { kind: 'stop', takeId: take.id });
}

export function actText(take: Take, next: Take | undefined): string {
  if (take.status === 'planned') return 'Start take';
  if (take.status === 'rolling') return 'Stop';
  return next ? `Next: ${slateLabel(next)}` : 'All slates are done';
}

export function stateText(take: Take): string {
  const seconds = take.startedAtMs !== null && take.stoppedAtMs !== null ? ` ${Math.round((take.stoppedAtMs - take.startedAtMs) / 1000)} s` : '';
  return { planned: 'Next', rolling: 'Rolling', done: `Done${seconds}`, skipped: 'Skipped' }[take.status];
}
