import { applyLog } from '@marvet/core/domain/logLine';
import type { Take } from '@marvet/core/domain/take';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { useSendLogMutation, useTakesQuery } from '../../data/work.ts';
import { fieldLogOf, type NewLine } from './fieldLog.ts';

/** Takes as they stand with every line written here, and how many lines still wait for the server. */
export interface FieldState {
  takes: Take[];
  waiting: number;
  reachable: boolean;
  /** Why a line could not be written, when it could not. */
  failure: string | null;
  write(line: LineOrAnswer): Promise<void>;
}

/**
 * A line, or what the line is to be once all lines before it are written: a key that is pressed twice in
 * a hurry then takes back what it did, instead of doing it twice.
 */
export type LineOrAnswer = NewLine | ((takes: readonly Take[]) => NewLine);

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
  const server = useRef(takes);
  server.current = takes;
  const last = useRef(Promise.resolve());
  const write = useCallback(
    (line: LineOrAnswer) => {
      const written = last.current
        .then(() => log.write(typeof line === 'function' ? line(applyLog(server.current ?? [], log.pending())) : line))
        .then(
          () => setFailure(null),
          (error: unknown) => setFailure(`This line was not written: ${(error as Error).message}. Write it on paper.`),
        );
      last.current = written;
      return written;
    },
    [log],
  );
  const shown = useMemo(() => applyLog(takes ?? [], pending), [takes, pending]);
  return { takes: shown, waiting: pending.length, reachable: log.reachable, failure, write };
}
