/** A file by the clock of the recorder that wrote it, and what is known of its take already. */
export interface TimedFile {
  id: string;
  startsAtMs: number;
  durationS: number;
  /** The take that it is tied to, and whether a hand or a name did it. */
  tied: { takeId: string; by: 'hand' | 'name' } | null;
}

/** A take as the field log has it. One that was never stopped has no end. */
export interface TimedTake {
  id: string;
  startedAtMs: number;
  stoppedAtMs: number | null;
}

/** Files of one recorder and the takes of a log in seconds from one moment, takes in the order of their start. */
export interface Timeline {
  originMs: number;
  files: readonly TimedFile[];
  fileStartS: Float64Array;
  fileEndS: Float64Array;
  takes: readonly TimedTake[];
  takeStartS: Float64Array;
  /** Not a number where the take was never stopped. */
  takeEndS: Float64Array;
  /** Middle of the lengths of the files. */
  usualLengthS: number;
  /** Within so long files are started by chance: as long as the files reach, and no longer than the log and an hour. */
  windowS: number;
}

/** @param takes at least one */
export function timelineOf(files: readonly TimedFile[], takes: readonly TimedTake[]): Timeline {
  const ordered = [...takes].sort((a, b) => a.startedAtMs - b.startedAtMs);
  const originMs = ordered[0]?.startedAtMs ?? 0;
  const seconds = (ms: number) => (ms - originMs) / 1000;
  const lastMs = ordered.reduce((last, { startedAtMs, stoppedAtMs }) => Math.max(last, stoppedAtMs ?? startedAtMs), originMs);
  return {
    originMs,
    files,
    fileStartS: Float64Array.from(files, ({ startsAtMs }) => seconds(startsAtMs)),
    fileEndS: Float64Array.from(files, ({ startsAtMs, durationS }) => seconds(startsAtMs) + durationS),
    takes: ordered,
    takeStartS: Float64Array.from(ordered, ({ startedAtMs }) => seconds(startedAtMs)),
    takeEndS: Float64Array.from(ordered, ({ stoppedAtMs }) => (stoppedAtMs === null ? Number.NaN : seconds(stoppedAtMs))),
    usualLengthS: Math.max(1, [...files].sort((a, b) => a.durationS - b.durationS)[files.length >> 1]?.durationS ?? 1),
    windowS: Math.min(seconds(lastMs) + 3600, files.length > 1 ? (reachMs(files) / 1000) * (files.length / (files.length - 1)) + 1 : Number.POSITIVE_INFINITY),
  };
}

/** From the first start of a file to the last. */
function reachMs(files: readonly TimedFile[]): number {
  const starts = files.map(({ startsAtMs }) => startsAtMs);
  return starts.reduce((last, each) => Math.max(last, each)) - starts.reduce((first, each) => Math.min(first, each));
}
