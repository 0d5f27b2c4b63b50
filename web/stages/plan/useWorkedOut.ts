import type { PlanDraft } from '@marvet/core/domain/plan';
import type { WorkedOutPlan, WorkOutContext } from '@marvet/core/plan/workOut';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { PlanReply } from '../../workers/planMessages.ts';

/** A plan as far as it is worked out. The last result stays until the next is there. */
export interface WorkingOut {
  result: WorkedOutPlan | { tooManyCells: number } | null;
  /** 0 to 1 while it is worked out; null when nothing is going on. */
  share: number | null;
  cancelled: boolean;
  trouble: string | null;
  cancel: () => void;
  again: () => void;
}

/** Works a plan out in a worker of its own each time that it changes; a change stops the one before. */
export function useWorkedOut(plan: PlanDraft, context: WorkOutContext): WorkingOut {
  const [state, setState] = useState<Omit<WorkingOut, 'cancel' | 'again'>>({ result: null, share: 0, cancelled: false, trouble: null });
  const [run, setRun] = useState(0);
  const [stopped, setStopped] = useState<string | null>(null);
  // The server answers with new objects for the same plan; only what they say starts the work again.
  const asked = useMemo(() => JSON.stringify({ plan, context }), [plan, context]);
  const attempt = `${run} ${asked}`;
  useEffect(() => {
    if (stopped === attempt) return undefined;
    const worker = new Worker(new URL('../../workers/plan.worker.ts', import.meta.url), { type: 'module' });
    setState((before) => ({ ...before, share: 0, cancelled: false, trouble: null }));
    worker.onmessage = ({ data }: MessageEvent<PlanReply>) => {
      if (data.kind === 'progress') setState((before) => ({ ...before, share: data.share }));
      else setState({ result: data.result, share: null, cancelled: false, trouble: null });
    };
    worker.onerror = (event) => setState((before) => ({ ...before, share: null, trouble: event.message || 'The plan could not be worked out' }));
    worker.postMessage(JSON.parse(asked));
    return () => worker.terminate();
  }, [asked, attempt, stopped]);
  const cancel = useCallback(() => {
    setStopped(attempt);
    setState((before) => ({ ...before, share: null, cancelled: true }));
  }, [attempt]);
  const again = useCallback(() => setRun((before) => before + 1), []);
  return { ...state, cancel, again };
}
