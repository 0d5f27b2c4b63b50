import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import { signed } from '../measure/catalogue.ts';
import { isActive, type LevelRun, runLevels } from './levels.ts';

/** What a mixer aims at: the average voice at the last link, and what peaks leave free at every link before it. */
export interface GainTarget {
  averageDbfs: number;
  headroomDb: number;
}

/** A gain for a link, and where the voice comes to lie with all of them. */
export interface GainAdvice {
  /** By link; null where there is nothing to set or no range is known. */
  gainsDb: (number | null)[];
  run: LevelRun;
  /** Whether the target is met within half a decibel and every link keeps the headroom. */
  reached: boolean;
  /** What stands in the way, in sentences. */
  why: string[];
}

type VoiceHere = Parameters<typeof runLevels>[2];

/**
 * Gains that bring a voice to the target. Every link before the last is set as high as its headroom
 * lets it, since what is amplified early has less noise added to it later; the last then brings the
 * average to the target. Steps are whole decibels, as on the units.
 */
export function adviseGains(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>, voice: VoiceHere, target: GainTarget): GainAdvice {
  const links = chain.links.map((link) => ({ ...link, settings: { ...link.settings } }));
  const settable = links.flatMap((link, index) => {
    const item = items.get(link.itemId);
    return item && isActive(item) && item.gainMinDb !== null && item.gainMaxDb !== null ? [{ index, low: item.gainMinDb, high: item.gainMaxDb }] : [];
  });
  const gainsDb: (number | null)[] = links.map(() => null);
  const why: string[] = [];
  if (settable.length === 0) why.push('no link has a known range of gain');
  settable.forEach(({ index, low, high }, order) => {
    const settings = (links[index] as (typeof links)[number]).settings;
    settings.gainDb = 0;
    const now = runLevels({ links }, items, voice);
    const stage = now.stages[index];
    if (!stage || stage.averageUnderClipDb === null || stage.peakHeadroomDb === null) return;
    const last = order === settable.length - 1;
    const wanted = last ? target.averageDbfs - stage.averageUnderClipDb : stage.peakHeadroomDb - target.headroomDb;
    settings.gainDb = Math.min(high, Math.max(low, last ? Math.round(wanted) : Math.floor(wanted)));
    gainsDb[index] = settings.gainDb;
    if (wanted > high + 0.5 && last) why.push(`${stage.name} would need ${wanted.toFixed(0)} dB, it has ${high} dB`);
    if (wanted < low - 0.5) why.push(`${stage.name} cannot go below ${signed(low, 0)} dB, it would need ${signed(wanted, 0)} dB: use a pad`);
  });
  const run = runLevels({ links }, items, voice);
  // From the last gain on the target itself says how much is left.
  const lastGain = settable.at(-1)?.index ?? run.stages.length;
  const impliedDb = -target.averageDbfs - voice.peakOverAverageDb;
  run.stages.forEach(({ name, peakHeadroomDb }, index) => {
    const wantedDb = index >= lastGain ? Math.min(target.headroomDb, impliedDb) : target.headroomDb;
    if (peakHeadroomDb !== null && peakHeadroomDb < wantedDb - 0.5) why.push(`${name} keeps ${signed(peakHeadroomDb, 0)} dB over the peaks, not ${wantedDb} dB`);
  });
  const reached = run.averageDbfs !== null && Math.abs(run.averageDbfs - target.averageDbfs) <= 0.5 && why.length === 0;
  if (run.averageDbfs === null) why.push('the level at the recorder cannot be told');
  return { gainsDb, run, reached, why };
}
