import { type BiquadCoefficients, cascadeDb, highShelf, peaking } from '../../audio/biquad.ts';
import type { MatchFilter } from '../report.types.ts';

const RATE_HZ = 96_000;
const MOST_FILTERS = 5;
const LARGEST_GAIN_DB = 12;
/** A further filter must make at least this much of a difference. */
const LEAST_GAIN_DB = 0.1;
const QS = [0.7, 1.4, 2.8] as const;
const SHELF_Q = Math.SQRT1_2;

/** RMS of values once their mean is taken off. */
export function levelFreeRms(values: readonly number[]): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
}

/** A match filter as a section at a rate; a low shelf is a high shelf the other way round, and not lifted: its level is another matter. */
export function matchSection({ type, frequencyHz, gainDb, q }: MatchFilter, sampleRateHz: number): BiquadCoefficients {
  if (type === 'peaking') return peaking(frequencyHz, gainDb, q, sampleRateHz);
  return highShelf(frequencyHz, type === 'highShelf' ? gainDb : -gainDb, sampleRateHz);
}

/** Gain of a match filter at a frequency, in dB. A low shelf is a high shelf the other way round, lifted. */
export function matchFilterDb(filter: MatchFilter, frequencyHz: number): number {
  return cascadeDb([matchSection(filter, RATE_HZ)], frequencyHz, RATE_HZ) + (filter.type === 'lowShelf' ? filter.gainDb : 0);
}

/**
 * At most five filters that bring band differences nearest to none, whatever the level: each time the
 * one that helps most is added, then all are adjusted in turn by gain, frequency and width.
 * @param bandsHz centres of the bands
 * @param differenceDb this channel less the reference in each band
 */
export function eqMatch(bandsHz: readonly number[], differenceDb: readonly number[]): { filters: MatchFilter[]; before: number; after: number } {
  const before = levelFreeRms(differenceDb);
  let filters: MatchFilter[] = [];
  let after = before;
  const distance = (chosen: readonly MatchFilter[]) =>
    levelFreeRms(bandsHz.map((hz, band) => (differenceDb[band] as number) + chosen.reduce((sum, filter) => sum + matchFilterDb(filter, hz), 0)));
  while (filters.length < MOST_FILTERS) {
    let best: MatchFilter | null = null;
    let bestDistance = after;
    for (const candidate of candidates(bandsHz)) {
      for (const gainDb of [-9, -6, -3, -1.5, 1.5, 3, 6, 9]) {
        const filter = { ...candidate, gainDb };
        const reached = distance([...filters, filter]);
        if (reached < bestDistance) {
          best = filter;
          bestDistance = reached;
        }
      }
    }
    if (!best) break;
    const adjusted = adjust([...filters, best], distance);
    const reached = distance(adjusted);
    if (after - reached < LEAST_GAIN_DB) break;
    filters = adjusted;
    after = reached;
  }
  return { filters, before, after };
}

function candidates(bandsHz: readonly number[]): Omit<MatchFilter, 'gainDb'>[] {
  return bandsHz.flatMap((frequencyHz, band) => [
    ...(band % 2 === 0 ? QS.map((q) => ({ type: 'peaking' as const, frequencyHz, q })) : []),
    ...(band % 3 === 0 ? (['lowShelf', 'highShelf'] as const).map((type) => ({ type, frequencyHz, q: SHELF_Q })) : []),
  ]);
}

/** Small steps of every setting, as long as they help. */
function adjust(start: readonly MatchFilter[], distance: (filters: readonly MatchFilter[]) => number): MatchFilter[] {
  let filters = start.map((filter) => ({ ...filter }));
  let reached = distance(filters);
  for (let step = 1; step > 0.1; step /= 2) {
    for (let again = true, rounds = 0; again && rounds < 12; rounds++) {
      again = false;
      for (let index = 0; index < filters.length; index++) {
        for (const change of changes(filters[index] as MatchFilter, step)) {
          const tried = filters.with(index, change);
          const result = distance(tried);
          if (result < reached - 1e-4) {
            filters = tried;
            reached = result;
            again = true;
          }
        }
      }
    }
  }
  return filters;
}

function changes(filter: MatchFilter, step: number): MatchFilter[] {
  const gain = (by: number) => ({ ...filter, gainDb: Math.max(-LARGEST_GAIN_DB, Math.min(LARGEST_GAIN_DB, filter.gainDb + by)) });
  const frequency = (by: number) => ({ ...filter, frequencyHz: Math.max(50, Math.min(16_000, filter.frequencyHz * 2 ** by)) });
  const width = (by: number) => ({ ...filter, q: Math.max(0.4, Math.min(6, filter.q * 2 ** by)) });
  return [gain(step), gain(-step), frequency(step / 4), frequency(-step / 4), ...(filter.type === 'peaking' ? [width(step / 2), width(-step / 2)] : [])];
}
