import type { ByteSource } from '../../audio/byteSource.ts';
import { readBlocks } from '../../audio/readSamples.ts';
import type { WavLayout } from '../../audio/wavFormat.ts';
import type { LevelSeries } from '../../measure/report.types.ts';

const FINEST_STEP_S = 0.05;
/** A day-long file is drawn more coarsely. */
const MOST_STEPS = 100_000;
const SILENCE_DBFS = -120;

/**
 * How loud a whole file is over time: the mean power of its loudest channel at each step, so that a word on any of them is seen.
 * @param onProgress share that is read, 0 to 1
 * @returns steps of 0.05 s, longer ones for files of more than 80 minutes; -120 dBFS is silence
 */
export function fileLevels(source: ByteSource, layout: WavLayout, onProgress: (share: number) => void = () => undefined): LevelSeries {
  const { sampleRateHz, frames, durationS, channels } = layout.format;
  const stepFrames = Math.max(1, Math.round(sampleRateHz * Math.max(FINEST_STEP_S, durationS / MOST_STEPS)));
  const rmsDbfs: number[] = [];
  const squares = new Float64Array(channels);
  let filled = 0;
  let read = 0;
  const close = () => {
    const loudest = squares.reduce((most, sum) => Math.max(most, sum), 0);
    rmsDbfs.push(loudest > 0 ? Math.max(SILENCE_DBFS, Math.round(100 * Math.log10(loudest / filled)) / 10) : SILENCE_DBFS);
    squares.fill(0);
    filled = 0;
  };
  readBlocks(source, layout, (block, count) => {
    for (let from = 0; from < count; ) {
      const to = Math.min(count, from + stepFrames - filled);
      for (let channel = 0; channel < channels; channel++) {
        const samples = block[channel] as Float64Array;
        let sum = squares[channel] as number;
        for (let frame = from; frame < to; frame++) sum += (samples[frame] as number) ** 2;
        squares[channel] = sum;
      }
      filled += to - from;
      from = to;
      if (filled === stepFrames) close();
    }
    read += count;
    onProgress(read / Math.max(1, frames));
  });
  if (filled > 0) close();
  return { stepS: stepFrames / sampleRateHz, rmsDbfs };
}
