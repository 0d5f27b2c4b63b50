import type { Chain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import { signed } from '../measure/catalogue.ts';
import { FULL_SCALE_SINE_DBFS, isActive, type LevelRun, runLevels, type VoiceHere } from './levels.ts';

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

/**
 * Gains that bring a voice to the target. Every link before the last is set as high as its headroom
 * lets it, since what is amplified early has less noise added to it later; the last then brings the
 * average to the target. Steps are whole decibels, as on the units.
 */
export function adviseGains(chain: Pick<Chain, 'links'>, items: ReadonlyMap<string, Item>, voice: VoiceHere, target: GainTarget): GainAdvice {
  const links = chain.links.map((link) => ({ ...link, settings: { ...link.settings } }));
  // A unit without a known range is still set: whether it has that gain is for the person to see.
  const settable = links.flatMap((link, index) => {
    const item = items.get(link.itemId);
    if (!item || !isActive(item)) return [];
    const known = item.gainMinDb !== null && item.gainMaxDb !== null;
    if (!known && item.kind === 'receiver') return [];
    return [{ index, known, low: item.gainMinDb ?? Number.NEGATIVE_INFINITY, high: item.gainMaxDb ?? Number.POSITIVE_INFINITY }];
  });
  const gainsDb: (number | null)[] = links.map(() => null);
  const why: string[] = [];
  const notes: string[] = [];
  const settingsOf = (index: number) => (links[index] as (typeof links)[number]).settings;
  if (settable.length === 0) why.push('no link has a gain to set');
  const wantedAt = ({ index }: (typeof settable)[number], last: boolean): number | null => {
    settingsOf(index).gainDb = 0;
    const stage = runLevels({ links }, items, voice).stages[index];
    if (!stage || stage.averageUnderClipDb === null || stage.peakHeadroomDb === null) return null;
    return last ? target.averageDbfs - FULL_SCALE_SINE_DBFS - stage.averageUnderClipDb : stage.peakHeadroomDb - target.headroomDb;
  };
  settable.forEach((each, order) => {
    const last = order === settable.length - 1;
    let wanted = wantedAt(each, last);
    if (wanted === null) return;
    if (last && wanted < each.low - 0.5) {
      // Too much arrives: what can be turned down before it is, the nearest first.
      for (const before of settable.slice(0, order).reverse()) {
        const now = settingsOf(before.index).gainDb ?? 0;
        const less = Math.max(before.low, Math.floor(now - (each.low - (wanted as number))));
        if (less >= now) continue;
        settingsOf(before.index).gainDb = less;
        gainsDb[before.index] = less;
        wanted = wantedAt(each, last) as number;
        if (wanted >= each.low - 0.5) break;
      }
    }
    const { name } = items.get((links[each.index] as (typeof links)[number]).itemId) as Item;
    const gainDb = Math.min(each.high, Math.max(each.low, last ? Math.round(wanted) : Math.floor(wanted)));
    settingsOf(each.index).gainDb = gainDb;
    gainsDb[each.index] = gainDb;
    if (!each.known) notes.push(`the range of gain of ${name} is not known: see whether it has ${signed(gainDb, 0)} dB`);
    if (wanted > each.high + 0.5 && last) why.push(`${name} would need ${wanted.toFixed(0)} dB, it has ${each.high} dB`);
    if (wanted < each.low - 0.5) why.push(`${name} cannot go below ${signed(each.low, 0)} dB, it would need ${signed(wanted, 0)} dB: use a pad`);
  });
  const run = runLevels({ links }, items, voice);
  // From the last gain on the target itself says how much is left.
  const lastGain = settable.at(-1)?.index ?? run.stages.length;
  const impliedDb = -target.averageDbfs - voice.peakOverAverageDb;
  run.stages.forEach(({ name, peakHeadroomDb, limited }, index) => {
    const wantedDb = index >= lastGain ? Math.min(target.headroomDb, impliedDb) : target.headroomDb;
    if (peakHeadroomDb !== null && peakHeadroomDb < wantedDb - 0.5)
      why.push(`${name} keeps ${signed(peakHeadroomDb, 0)} dB over the peaks, not ${wantedDb.toFixed(0)} dB${limited ? ': its limiter will be at work' : ''}`);
  });
  const reached = run.averageDbfs !== null && Math.abs(run.averageDbfs - target.averageDbfs) <= 0.5 && why.length === 0;
  if (run.averageDbfs === null) why.push('the level at the recorder cannot be told');
  return { gainsDb, run, reached, why: [...why, ...notes] };
}
