import { applyLog, type LogLine } from '@marvet/core/domain/logLine';
import type { Take } from '@marvet/core/domain/take';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import type { ApiTrouble } from '../../data/api.ts';
import { keep, kept } from '../../data/keep.ts';
import { useSendLogMutation, useTakesQuery } from '../../data/work.ts';
import { FieldLog, type NewLine, type RefusedLine } from './fieldLog.ts';
import { browserLines } from './lineStore.ts';

/** Takes as they stand with every line written here, and how many lines still wait for the server. */
export interface FieldState {
  takes: Take[];
  waiting: number;
  /** Lines that the server has not acknowledged yet, oldest first. */
  pending: readonly LogLine[];
  reachable: boolean;
  /** By how much this device's clock is behind the laptop's; its lines are put right as they arrive. */
  clockBehindMs: number;
  refused: readonly RefusedLine[];
  /** Why a line could not be written, when it could not. */
  failure: string | null;
  write(line: LineOrAnswer): Promise<void>;
  mend(line: LogLine): Promise<void>;
  drop(id: string): Promise<void>;
}

/**
 * A line, or what the line is to be once all lines before it are written: a key that is pressed twice in
 * a hurry then takes back what it did, instead of doing it twice. Null writes nothing.
 */
export type LineOrAnswer = NewLine | ((takes: readonly Take[]) => NewLine | null);

/** Not let in, out of its role, or too many at once: the lines themselves are good. */
const NOT_NOW = [401, 403, 408, 429];

const store = browserLines();
const logs = new Map<string, FieldLog>();
/** One clock a device, whatever trial it logs. */
const clock = { behindMs: () => kept('clock', { behindMs: 0 }).behindMs, keep: (behindMs: number) => keep('clock', { behindMs }) };

/** The log of a trial; one a page, so that every view sees the same lines. */
function fieldLogOf(trialId: string): FieldLog {
  const log = logs.get(trialId) ?? new FieldLog(trialId, store, clock);
  logs.set(trialId, log);
  return log;
}

export function useFieldLog(trialId: string): FieldState {
  const log = fieldLogOf(trialId);
  const { data: takes, refetch } = useTakesQuery(trialId);
  const [send] = useSendLogMutation();
  const [failure, setFailure] = useState<string | null>(null);
  const pending = useSyncExternalStore(log.subscribe, log.pending);
  const refused = useSyncExternalStore(log.subscribe, log.refused);
  useEffect(
    () =>
      log.start({
        async send(lines, clock) {
          const { data, error } = await send({ trialId, lines, ...clock });
          if (data) return { reached: true, refused: data.refused, clockBehindMs: data.clockBehindMs };
          const { status, message } = error as ApiTrouble;
          // What the server cannot take as a whole is set aside as a whole; a server in trouble, or one that this device is not let in to, is asked again.
          return status >= 400 && status < 500 && !NOT_NOW.includes(status)
            ? { reached: true, refused: lines.map(({ id }) => ({ id, why: message })), clockBehindMs: log.clockBehindMs }
            : { reached: false };
        },
        async refresh() {
          const askedMs = Date.now();
          let answer = await refetch();
          // What was under way before may know nothing of the lines yet.
          if ((answer.startedTimeStamp ?? 0) < askedMs) answer = await refetch();
          if (answer.isError) throw new Error('The takes could not be fetched');
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
        .then(async () => {
          const meant = typeof line === 'function' ? line(applyLog(server.current ?? [], log.pending())) : line;
          if (meant) await log.write(meant);
        })
        .then(
          () => setFailure(null),
          (error: unknown) => setFailure(`This line was not written: ${(error as Error).message}. Write it on paper.`),
        );
      last.current = written;
      return written;
    },
    [log],
  );
  const mend = useCallback((line: LogLine) => log.mend(line), [log]);
  const drop = useCallback((id: string) => log.drop(id), [log]);
  const shown = useMemo(() => applyLog(takes ?? [], pending), [takes, pending]);
  return { takes: shown, waiting: pending.length, pending, reachable: log.reachable, clockBehindMs: log.clockBehindMs, refused, failure, write, mend, drop };
}
