import { filled } from '../../audio/filled.ts';
import type { ChannelTracks } from '../tracks/channelTracks.ts';
import { FINE_FRAME_S, FRAME_S, quantile } from '../tracks/frames.ts';
import { meanBetween, runningSums } from '../tracks/runningSums.ts';
import { VOICING_HOP_S } from '../tracks/voicing.ts';

/** Under this a band holds nothing, whatever the file's noise. */
const LOWEST_DB = -110;

/** Columns of the high track from one to before another. */
const HIGH_GROUPS = [
  ['box', 0, 1],
  ['voice', 1, 4],
  ['upper', 4, 7],
  ['presence', 7, 11],
  ['hiss', 11, 13],
  ['air', 13, 16],
] as const;
const BANDS = ['sub', 'low', 'chest', ...HIGH_GROUPS.map(([name]) => name)] as const;
type Band = (typeof BANDS)[number];

const NEIGHBOURS: readonly (readonly [Band, Band])[] = [
  ['sub', 'low'],
  ['low', 'chest'],
  ['sub', 'chest'],
  ['chest', 'box'],
  ['low', 'voice'],
  ['box', 'voice'],
  ['voice', 'presence'],
  ['upper', 'hiss'],
  ['presence', 'hiss'],
  ['hiss', 'air'],
];
const MOVING: readonly Band[] = ['sub', 'low', 'chest', 'box', 'upper', 'hiss'];

/** What each column of {@link FrameFeatures.values} is, in order. Levels are in dB. */
export const FEATURE_NAMES: readonly string[] = [
  ...BANDS.map((band) => `${band} against the voice`),
  ...BANDS.map((band) => `${band} over its quiet`),
  ...NEIGHBOURS.map(([one, other]) => `${one} less ${other}`),
  ...MOVING.flatMap((band) => [`${band} risen`, `${band} falling`, `${band} unrest`]),
  ...(['low', 'chest', 'box', 'upper', 'hiss'] as const).map((band) => `${band} over its quiet, a second around`),
  ...(['low', 'box', 'hiss'] as const).map((band) => `${band} unrest, a second around`),
  'voicing',
  'voicing, most near by',
  'voicing, a second around',
  'crest',
];
export const FEATURES = FEATURE_NAMES.length;
/** Columns from one to before another: each band over its quiet. */
export const OVER_QUIET = [BANDS.length, 2 * BANDS.length] as const;

/** One row of figures for every frame of the high track. */
export interface FrameFeatures {
  timesS: Float64Array;
  hopS: number;
  /** Rows of {@link FEATURES} values. */
  values: Float32Array;
}

/**
 * What physics tells of a moment: where its sound lies, how it came and goes, how restless it is, whether
 * it repeats itself as a voice does. All levels are told against the take's own voice and its own quiet,
 * so that they mean the same whatever the gain.
 */
export function frameFeatures(tracks: ChannelTracks, startS: number): FrameFeatures {
  const { highBands } = tracks;
  const timesS = highBands.times();
  const { hopS } = highBands;
  const count = timesS.length;
  const levels = bandLevels(tracks, startS);
  const values = new Float32Array(count * FEATURES);
  if (count === 0) return { timesS, hopS, values };
  const voiced = levels.get('voice') as Float64Array;
  const voiceDb = quantile(Float64Array.from(voiced).sort(), 0.9);
  let column = 0;
  const put = (of: (frame: number) => number) => {
    for (let frame = 0; frame < count; frame++) values[frame * FEATURES + column] = of(frame);
    column++;
  };
  const quietDb = new Map(BANDS.map((band) => [band, quietOf(levels.get(band) as Float64Array)]));
  const sums = new Map(BANDS.map((band) => [band, runningSums(levels.get(band) as Float64Array)]));
  const unrest = new Map(BANDS.map((band) => [band, runningSums(changes(levels.get(band) as Float64Array))]));
  const level = (band: Band) => levels.get(band) as Float64Array;
  const near = Math.max(1, Math.round(0.1 / hopS));
  const far = Math.max(2, Math.round(0.5 / hopS));
  const before = [Math.round(0.18 / hopS), Math.max(2, Math.round(0.03 / hopS))] as const;
  for (const band of BANDS) put((frame) => (level(band)[frame] as number) - voiceDb);
  for (const band of BANDS) put((frame) => (level(band)[frame] as number) - (quietDb.get(band) as number));
  for (const [one, other] of NEIGHBOURS) put((frame) => (level(one)[frame] as number) - (level(other)[frame] as number));
  for (const band of MOVING) {
    const own = level(band);
    const sum = sums.get(band) as Float64Array;
    const rest = unrest.get(band) as Float64Array;
    put((frame) => (own[frame] as number) - meanBetween(sum, frame - before[0], frame - before[1] + 1));
    put((frame) => (own[frame] as number) - meanBetween(sum, frame + before[1], frame + before[0] + 1));
    put((frame) => meanBetween(rest, frame - near, frame + near + 1));
  }
  for (const band of ['low', 'chest', 'box', 'upper', 'hiss'] as const) {
    const sum = sums.get(band) as Float64Array;
    put((frame) => meanBetween(sum, frame - far, frame + far + 1) - (quietDb.get(band) as number));
  }
  for (const band of ['low', 'box', 'hiss'] as const) {
    const rest = unrest.get(band) as Float64Array;
    put((frame) => meanBetween(rest, frame - far, frame + far + 1));
  }
  const voicing = tracks.voicing.view();
  const at = (frame: number) => Math.min(voicing.length - 1, Math.max(0, Math.round(((timesS[frame] as number) - startS) / VOICING_HOP_S - 0.5)));
  const own = filled(count, (frame) => voicing[at(frame)] ?? 0);
  const voicingSum = runningSums(own);
  put((frame) => own[frame] as number);
  put((frame) => {
    let most = 0;
    for (let other = Math.max(0, frame - near); other <= Math.min(count - 1, frame + near); other++) most = Math.max(most, own[other] as number);
    return most;
  });
  put((frame) => meanBetween(voicingSum, frame - far, frame + far + 1));
  const fine = tracks.weighted.fine();
  put((frame) => crestDb(fine, Math.round(((timesS[frame] as number) - startS) / FINE_FRAME_S)));
  return { timesS, hopS, values };
}

/** Level of each band in every frame of the high track, in dB. */
function bandLevels(tracks: ChannelTracks, startS: number): Map<Band, Float64Array> {
  const { highBands } = tracks;
  const times = highBands.times();
  const width = highBands.bands.length;
  const levels = new Map<Band, Float64Array>();
  for (const [name, track] of [
    ['sub', tracks.sub],
    ['low', tracks.low],
    ['chest', tracks.chest],
  ] as const) {
    const powers = track.view();
    const mean = (time: number) => {
      const first = Math.max(0, Math.round((time - startS) / FRAME_S) - 1);
      return ((powers[first] ?? 0) + (powers[first + 1] ?? 0)) / 2;
    };
    levels.set(
      name,
      times.map((time) => dbOf(mean(time))),
    );
  }
  for (const [name, from, to] of HIGH_GROUPS) levels.set(name, highBands.sums(Math.min(from, width), Math.min(to, width)).map(dbOf));
  return levels;
}

const dbOf = (power: number) => Math.max(LOWEST_DB, 10 * Math.log10(Math.max(power, 1e-12)));

/** Level that a tenth of the frames stay under, those of digital silence apart. */
function quietOf(levels: Float64Array): number {
  const heard = levels.filter((level) => level > LOWEST_DB).sort();
  return heard.length > 0 ? quantile(heard, 0.1) : LOWEST_DB;
}

function changes(levels: Float64Array): Float64Array {
  return levels.map((level, frame) => Math.abs(level - (levels[Math.max(0, frame - 1)] as number)));
}

/** How far the loudest 2 ms of a frame lie over its mean. */
function crestDb(fine: Float64Array, middle: number): number {
  let most = 0;
  let sum = 0;
  let count = 0;
  for (let index = Math.max(0, middle - 6); index < Math.min(fine.length, middle + 6); index++) {
    const power = fine[index] as number;
    if (power > most) most = power;
    sum += power;
    count++;
  }
  return sum > 0 ? 10 * Math.log10((most * count) / sum) : 0;
}
