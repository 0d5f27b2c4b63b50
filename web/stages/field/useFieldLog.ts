import { applyLog } from '@marvet/core/domain/logLine';
import type { Take } from '@marvet/core/domain/take';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useSendLogMutation, useTakesQuery } from '../../app/api/work.ts';
import { fieldLogOf, type NewLine } from './fieldLog.ts';

/** Takes as they stand with every line written here, and how many lines still wait for the server. */
export interface FieldState {
  takes: Take[];
  waiting: number;
  reachable: boolean;
  /** Why a line could not be written, when it could not. */
  failure: string | null;
  write(line: NewLine): Promise<void>;
}

export function useFieldLog(trialId: string): FieldState {
  const log = fieldLogOf(trialId);
  const { data: takes, refetch } = useTakesQuery(trialId);
  const [send] = useSendLogMutation();
  const [failure, setFailure] = useState<string | null>(null);
  const pending = useSyncExternalStore(log.subscribe, log.pending);
  useEffect(
    () =>
      log.start({
        async send(lines) {
          const { error } = await send({ trialId, lines });
          if (error && 'code' in error && error.code !== 'unreachable') setFailure(error.message ?? null);
          return !error;
        },
        async refresh() {
          await refetch();
        },
      }),
    [log, send, refetch, trialId],
  );
  const write = useCallback(
    (line: NewLine) =>
      log.write(line).then(
        () => setFailure(null),
        (error: unknown) => setFailure(`This line was not written: ${(error as Error).message}. Write it on paper.`),
      ),
    [log],
  );
  const shown = useMemo(() => applyLog(takes ?? [], pending), [takes, pending]);
  return { takes: shown, waiting: pending.length, reachable: log.reachable, failure, write };
}
