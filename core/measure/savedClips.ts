import type { AudioEvent } from './report.types.ts';

/** Clipping so near to another is the same moment. */
const SAME_MOMENT_S = 0.05;

/** How many moments clip on a main track, and how many of those are whole on its backup; events of both on one time. */
export function savedClips(main: readonly AudioEvent[], backup: readonly AudioEvent[]): { clipped: number; saved: number } {
  const clips = (events: readonly AudioEvent[]) => events.filter(({ kind }) => kind === 'clip');
  const own = clips(backup);
  const ofMain = clips(main);
  const saved = ofMain.filter(({ startS, endS }) => !own.some((clip) => clip.startS < endS + SAME_MOMENT_S && clip.endS > startS - SAME_MOMENT_S));
  return { clipped: ofMain.length, saved: saved.length };
}
