import type { DenoiseMoment } from '../report.types.ts';
import type { BothSpectra } from './bothSpectra.ts';

/** A faint end of a word that lost this much is worth hearing. */
const SWALLOWED_DB = 4;
const LEAST_FRAMES = 3;
/** Noise that warbles is heard over a third of a second and more. */
const WARBLE_FRAMES = 16;
const WARBLE = 0.5;
const MOST_OF_A_KIND = 4;

/** Powers of both at one moment of the reference. */
export interface Frame extends BothSpectra<Float32Array> {
  /** Where it begins, on the reference's clock. */
  atS: number;
  /** Of the reference, in dB. */
  level: number;
}

/** What is known when moments are looked for. */
interface Taken {
  /** Frames of noise, and of faint ends of words, in order of time. */
  noise: readonly Frame[];
  edges: readonly Frame[];
  frameS: number;
  /** What is gone of one frame. */
  lossDb: (frame: Frame) => number;
  /** Logarithm of the kurtosis of some frames, after against before. */
  warble: (frames: readonly Frame[]) => number;
}

/** Where to hear what noise reduction cost: the ends of words that lost most, and the noise that warbles most. */
export function denoiseMoments({ noise, edges, frameS, lossDb, warble }: Taken): DenoiseMoment[] {
  const lossOf = new Map(edges.map((frame) => [frame, lossDb(frame)]));
  const lost = edges.filter((frame) => (lossOf.get(frame) as number) > SWALLOWED_DB);
  const swallowed = runs(lost, frameS).flatMap((run): DenoiseMoment[] => {
    if (run.length < LEAST_FRAMES) return [];
    return [{ kind: 'swallowed', ...spanOf(run, frameS), amount: run.reduce((sum, frame) => sum + (lossOf.get(frame) as number), 0) / run.length }];
  });
  const warbling = runs(noise, frameS).flatMap((run): DenoiseMoment[] => {
    if (run.length < WARBLE_FRAMES) return [];
    const amount = warble(run);
    return amount > WARBLE ? [{ kind: 'warble', ...spanOf(run, frameS), amount }] : [];
  });
  return [...worst(swallowed), ...worst(warbling)].sort((a, b) => a.startS - b.startS);
}

const spanOf = (run: readonly Frame[], frameS: number) => ({ startS: (run[0] as Frame).atS, endS: (run.at(-1) as Frame).atS + frameS });

const worst = (moments: DenoiseMoment[]) => moments.sort((a, b) => b.amount - a.amount).slice(0, MOST_OF_A_KIND);

/** Frames in runs that have no gap longer than a frame. Stretches that overlap bring the same frame twice: once is enough. */
function runs(frames: readonly Frame[], frameS: number): Frame[][] {
  const result: Frame[][] = [];
  let last = Number.NEGATIVE_INFINITY;
  for (const frame of [...frames].sort((a, b) => a.atS - b.atS)) {
    if (frame.atS - last < frameS / 4) continue;
    if (frame.atS - last <= 1.5 * frameS) result.at(-1)?.push(frame);
    else result.push([frame]);
    last = frame.atS;
  }
  return result;
}
