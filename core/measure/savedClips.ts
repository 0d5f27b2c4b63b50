import type { BackupChannel } from './channelPairs.ts';
import type { FileReport } from './report.types.ts';

/** Clipping so near to another is the same moment. */
const SAME_MOMENT_S = 0.05;

/** How many moments clip on a channel, and how many of those are whole on its backup. */
export function savedClips({ channels }: Pick<FileReport, 'channels'>, { channel, of }: BackupChannel): { clipped: number; saved: number } {
  const clips = (index: number) => channels.find((each) => each.index === index)?.events.filter(({ kind }) => kind === 'clip') ?? [];
  const own = clips(channel);
  const main = clips(of);
  const saved = main.filter(({ startS, endS }) => !own.some((clip) => clip.startS < endS + SAME_MOMENT_S && clip.endS > startS - SAME_MOMENT_S));
  return { clipped: main.length, saved: saved.length };
}
