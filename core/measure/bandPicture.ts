import { THIRD_OCTAVE_HZ } from '../audio/bands.ts';
import { GrowingBytes } from '../audio/growingBytes.ts';
import type { BandPicture } from './report.types.ts';
import type { BandTrack } from './tracks/bandTrack.ts';
import { type ChannelTracks, EXTRA_COLUMNS } from './tracks/channelTracks.ts';

/** Steps of 50 ms, longer ones in files of more than ten minutes. */
const STEP_S = 0.05;
const MOST_STEPS = 12_000;
export const LOWEST_PICTURE_DBFS = -120;
/** Half decibels from {@link LOWEST_PICTURE_DBFS} up fill a byte. */
export const PICTURE_STEP_DB = 0.5;

/** Third-octave levels over time, coarse enough to be kept with every recording and drawn. */
export class BandPictures {
  private readonly bytes = new GrowingBytes();
  private readonly stepS: number;
  private steps = 0;
  private bands = 0;

  constructor(lengthS: number) {
    this.stepS = STEP_S * Math.max(1, Math.ceil(lengthS / STEP_S / MOST_STEPS));
  }

  /** Takes up a chapter; times of its tracks count from its start. */
  settle(tracks: ChannelTracks, startS: number, endS: number): void {
    const parts: [BandTrack, number][] = [
      [tracks.lowBands, 0],
      [tracks.midBands, 0],
      [tracks.highBands, EXTRA_COLUMNS],
    ];
    this.bands = parts.reduce((sum, [track, first]) => sum + track.bands.length - first, 0);
    const end = Math.round(endS / this.stepS);
    const at = parts.map(() => 0);
    const times = parts.map(([track]) => track.times());
    for (; this.steps < end; this.steps++) {
      const middleS = (this.steps + 0.5) * this.stepS - startS;
      parts.forEach(([track, first], part) => {
        const own = times[part] as Float64Array;
        // The frame whose middle lies nearest.
        while ((at[part] as number) + 1 < own.length && Math.abs((own[(at[part] as number) + 1] as number) - middleS) <= Math.abs((own[at[part] as number] as number) - middleS))
          at[part] = (at[part] as number) + 1;
        for (let band = first; band < track.bands.length; band++) {
          const power = own.length === 0 ? 0 : track.power(at[part] as number, band);
          const db = 10 * Math.log10(Math.max(power, 1e-15));
          this.bytes.push(Math.max(0, Math.min(255, Math.round((db - LOWEST_PICTURE_DBFS) / PICTURE_STEP_DB))));
        }
      });
    }
  }

  finish(): BandPicture {
    return { stepS: this.stepS, bandsHz: THIRD_OCTAVE_HZ.slice(0, this.bands), levels: this.bytes.base64() };
  }
}
