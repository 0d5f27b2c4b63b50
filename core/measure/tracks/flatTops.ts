import { type SampleBlock, STRETCH } from '../../audio/kernels/sampleBlock.types.ts';

const SHORTEST_RUN = 3;
/** Runs nearer than this belong to one spell of clipping. */
const SPELL_GAP_S = 0.05;
const MOST_SPELLS = 20_000;

/** A spell of flat tops: from its first to its last sample, and how far over the top the wave would have gone. */
export interface FlatSpell {
  startSample: number;
  endSample: number;
  /** By a parabola through the slopes on either side of the flat, relative to the top. */
  overshoot: number;
}

/** Flat tops on one side of the wave, found while the extreme is still being learnt. */
class Side {
  extreme = 0;
  runs = 0;
  samples = 0;
  spells: FlatSpell[] = [];
  private run = 0;
  private start = 0;
  private slope = 0;
  private last = 0;

  constructor(private readonly sign: 1 | -1) {}

  scan(samples: Float64Array, from: number, to: number, position: number): void {
    for (let index = from; index < to; index++) {
      const value = (samples[index] as number) * this.sign;
      if (value < this.extreme) {
        if (this.run >= SHORTEST_RUN) this.close(value, position + index);
        this.run = 0;
      } else if (value > this.extreme) {
        this.extreme = value;
        this.runs = 0;
        this.samples = 0;
        this.spells = [];
        this.begin(value, position + index);
      } else if (value > 0) {
        if (this.run === 0) this.begin(value, position + index);
        else this.run++;
        if (this.run === SHORTEST_RUN) {
          this.runs++;
          this.samples += SHORTEST_RUN;
        } else if (this.run > SHORTEST_RUN) this.samples++;
      }
      this.last = value;
    }
  }

  /** A stretch that stays under the extreme ends a run. */
  pass(samples: Float64Array, from: number, to: number, position: number): void {
    if (this.run >= SHORTEST_RUN) this.close((samples[from] as number) * this.sign, position + from);
    this.run = 0;
    this.last = (samples[to - 1] as number) * this.sign;
  }

  private begin(value: number, sample: number): void {
    this.run = 1;
    this.start = sample;
    this.slope = value - this.last;
  }

  close(next: number, endSample: number): void {
    const slope = (this.slope + this.extreme - next) / 2;
    this.spells.push({ startSample: this.start, endSample, overshoot: (slope * this.run) / 4 / this.extreme });
  }
}

/**
 * Runs of three or more equal consecutive samples at the channel's highest or lowest value. Kept with
 * their places, since a run counts only if nothing later goes further.
 */
export class FlatTops {
  readonly above = new Side(1);
  readonly below = new Side(-1);
  private position = 0;

  /** @param block whose extremes are those of these samples */
  push({ samples, most, least }: SampleBlock, frames: number): void {
    const { above, below } = this;
    for (let from = 0, stretch = 0; from < frames; from += STRETCH, stretch++) {
      const to = Math.min(frames, from + STRETCH);
      if ((most[stretch] as number) >= above.extreme) above.scan(samples, from, to, this.position);
      else above.pass(samples, from, to, this.position);
      if (-(least[stretch] as number) >= below.extreme) below.scan(samples, from, to, this.position);
      else below.pass(samples, from, to, this.position);
    }
    this.position += frames;
    for (const side of [above, below]) if (side.spells.length > MOST_SPELLS) side.spells = merged(side.spells);
  }

  /** Spells of clipping on the sides whose extreme lies over a level, in order of time; runs within `gapS` are one. */
  spells(lowestExtreme: number, sampleRateHz: number, gapS = SPELL_GAP_S): FlatSpell[] {
    const all = [this.above, this.below].filter((side) => side.extreme > lowestExtreme).flatMap((side) => side.spells);
    return joined(
      all.sort((a, b) => a.startSample - b.startSample),
      gapS * sampleRateHz,
    );
  }
}

/** Bounds memory on a file that clips without end: spells a second apart or less become one. */
const merged = (spells: readonly FlatSpell[]) => joined(spells, 48_000);

function joined(flats: readonly FlatSpell[], gapSamples: number): FlatSpell[] {
  const out: FlatSpell[] = [];
  for (const flat of flats) {
    const last = out.at(-1);
    if (last && flat.startSample - last.endSample <= gapSamples) {
      last.endSample = Math.max(last.endSample, flat.endSample);
      last.overshoot = Math.max(last.overshoot, flat.overshoot);
    } else out.push({ ...flat });
  }
  return out;
}
