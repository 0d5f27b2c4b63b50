import type { PlanDraft } from '@marvet/core/domain/plan';
import { useCallback, useRef, useState } from 'react';
import { useSavePlanMutation } from '../../app/api/work.ts';

/**
 * The plan as it is being changed. A change shows at once and the next builds on it, whatever the
 * server answers in between; when all are saved the plan is what the server says, and a refused change
 * is taken back.
 */
export function usePlanDraft(trialId: string, saved: PlanDraft): { draft: PlanDraft; change: (patch: Partial<PlanDraft>) => void; error: unknown } {
  const [save, { error }] = useSavePlanMutation();
  const [own, setOwn] = useState<PlanDraft | null>(null);
  const latest = useRef<PlanDraft | null>(null);
  const pending = useRef(0);
  const change = useCallback(
    (patch: Partial<PlanDraft>) => {
      const draft = { ...(latest.current ?? saved), ...patch };
      latest.current = draft;
      setOwn(draft);
      pending.current++;
      void save({ trialId, draft }).finally(() => {
        pending.current--;
        if (pending.current > 0) return;
        latest.current = null;
        setOwn(null);
      });
    },
    [save, saved, trialId],
  );
  return { draft: own ?? saved, change, error };
}
