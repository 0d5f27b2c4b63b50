import { Biquad } from '../audio/biquad.ts';
import { matchSection } from '../measure/pair/eqMatch.ts';
import type { MatchFilter } from '../measure/report.types.ts';
import { asLoudAs } from './asLoud.ts';

/** A clip through the filters that bring it nearest to a reference, and as loud as it was: what filters add in level is no difference of tone. */
export function equalised(channels: readonly Float64Array[], filters: readonly MatchFilter[], sampleRateHz: number): Float64Array[] {
  if (filters.length === 0) return [...channels];
  return channels.map((samples) => {
    const filtered = Float64Array.from(samples);
    for (const filter of filters) new Biquad(matchSection(filter, sampleRateHz)).process(filtered, filtered, filtered.length);
    return asLoudAs(samples, filtered, sampleRateHz);
  });
}
