import type { AudioFile } from '../../domain/recording.ts';

/** What says when a file began: its header, or when it was last written, less its length. */
export type TimeBy = 'header' | 'last written';

type Dated = Pick<AudioFile, 'modifiedAtMs'> & { format: Pick<AudioFile['format'], 'startsAt' | 'durationS'> };

/** When a file began by the clock of its recorder, in the zone of this computer where the file names none; null where nothing says. */
export function fileTime({ format, modifiedAtMs }: Dated): { startMs: number; by: TimeBy } | null {
  const startMs = format.startsAt === null ? Number.NaN : Date.parse(format.startsAt);
  if (!Number.isNaN(startMs)) return { startMs, by: 'header' };
  return modifiedAtMs === null ? null : { startMs: modifiedAtMs - format.durationS * 1000, by: 'last written' };
}
