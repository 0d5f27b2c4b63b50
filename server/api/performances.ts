import type { PerformanceSource } from '@marvet/core/contract/recordings';
import { isPart, recordingLengthS } from '@marvet/core/domain/recording';
import type { Take } from '@marvet/core/domain/take';
import type { Span } from '@marvet/core/measure/report.types';
import { findPerformance } from '@marvet/core/takes/performance';
import type { AudioFileRow, RecordingRow, TrialRow } from '../store/records.ts';

/** Files begin before the log's start when the recorder was running already; more than this apart is another clock. */
const SAME_CLOCK_MS = 120_000;
const DAY_MS = 86_400_000;

/** The part of a recording that is judged, and why; null until words were found. */
export function performanceOf(
  recording: Pick<RecordingRow, 'performance' | 'report' | 'startS' | 'endS' | 'cutBy' | 'logStartS'>,
  file: Pick<AudioFileRow, 'format' | 'slateSpoken'>,
  take: Pick<Take, 'startedAtMs'> | null,
  trial: Pick<TrialRow, 'slatesSpoken'>,
): { span: Span; by: PerformanceSource } | null {
  const { report } = recording;
  if (!report) return recording.performance ? { span: recording.performance, by: 'hand' } : null;
  const lengthS = recordingLengthS(recording, file.format.durationS);
  const beganS = recording.logStartS ?? logStartS(file.format.timeReferenceS, take?.startedAtMs ?? null, file.format.durationS);
  // What follows a switch began long before: it is judged from its first word on.
  const logS = beganS === null || beganS - (recording.startS ?? 0) <= 0 ? null : beganS - (recording.startS ?? 0);
  return findPerformance({
    speech: report.activity.speech,
    lengthS,
    marked: recording.performance,
    logStartS: logS,
    logIsRough: recording.cutBy === 'log',
    // The slate is spoken at the head of the take, not where something was switched.
    slateSpoken: (recording.startS === null || isPart(recording.cutBy)) && (file.slateSpoken ?? trial.slatesSpoken ?? false),
  });
}

/**
 * Where in a file the log says that its take began: only where the file's own time of day, in this
 * computer's zone or in universal time, and the log agree within two minutes. Null otherwise.
 */
export function logStartS(timeReferenceS: number | null, startedAtMs: number | null, durationS: number): number | null {
  if (timeReferenceS === null || startedAtMs === null) return null;
  const started = new Date(startedAtMs);
  const midnights = [new Date(started.getFullYear(), started.getMonth(), started.getDate()).getTime(), startedAtMs - (startedAtMs % DAY_MS)];
  for (const midnightMs of midnights) {
    const intoMs = startedAtMs - (midnightMs + timeReferenceS * 1000);
    // A start before the file began says nothing of where in it the performance is.
    if (intoMs > 500 && intoMs < Math.min(SAME_CLOCK_MS, durationS * 1000)) return intoMs / 1000;
  }
  return null;
}
