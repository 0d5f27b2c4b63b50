import { onsetsOf } from '@marvet/core/simulate/dryVoice';
import { randomSource, seedOf } from '@marvet/core/simulate/random';
import { layClick, layPlosive, layRustle, layThump } from '@marvet/core/simulate/touches';

/** What is known of a take when its faults are laid. */
export interface FaultyTake {
  seed: string;
  rateHz: number;
  leadS: number;
  voice: Float64Array | null;
  stationKey: string;
  scriptKey: string;
  screen: string;
}

/** Peak of a fault in the file; the simulator speaks of sound pressure, where 94 dB is full scale here. */
const peakDbfs = (level: number) => 94 + level;

/**
 * Faults of the five chains that do not come from place or radio: the plug of FT does not lock and
 * clicks, a shirt rubs over LB, breath hits what hangs close under the chin, the boom is held by hand.
 */
export function layFaults(samples: Float64Array, letters: string, take: FaultyTake): void {
  const random = randomSource(seedOf(take.seed, letters, 'faults'));
  const { rateHz } = take;
  const lengthS = samples.length / rateHz;
  if (letters === 'FT' && take.stationKey === 'loft') {
    for (const share of [0.3, 0.72]) layClick(samples, rateHz, share * lengthS, 0.25, random);
  }
  if (letters === 'LB' && take.screen === 'bare' && take.voice) layRustle(samples, rateHz, 0.45 * lengthS, 0.5, peakDbfs(-26), 'cotton', random);
  if (letters === 'BM' && take.screen === 'bare') layThump(samples, rateHz, 0.2, peakDbfs(-16), random);
  if (letters === 'WH' && take.scriptKey === 'plosives' && take.voice) {
    for (const onsetS of onsetsOf(take.voice, rateHz).slice(0, 3)) layPlosive(samples, rateHz, take.leadS + onsetS - 0.01, peakDbfs(-8), random);
  }
}
