import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { writeWav } from '@marvet/core/audio/writeWav';
import { blindClips, CLIP_RATE_HZ } from '@marvet/core/listen/blindClip';
import { type ComparedPair, measurePair } from '@marvet/core/measure/pair/pair';
import { fileTrack } from '@marvet/core/measure/pair/track';
import { type MeasuredFile, measureFile } from '@marvet/core/measure/report';
import { type BuiltPlan, buildPlan } from '@marvet/core/plan/buildPlan';
import { withFileSource } from '../audio/fileSource.ts';
import type { ClipsTask, MeasureTask, PairTask, PlanTask } from './tasks.ts';

const PROGRESS_EVERY_MS = 150;
/** Nobody compares clips longer than this; it bounds memory. */
const LONGEST_CLIP_S = 120;

/** Entry of every worker thread: measures a file, compares two recordings, makes the clips of a listening round, or orders the takes of a plan. */
export default function work(task: MeasureTask | PairTask | ClipsTask | PlanTask): MeasuredFile | ComparedPair | Uint8Array[] | BuiltPlan {
  switch (task.kind) {
    case 'measure':
      return measure(task);
    case 'pair':
      return pair(task);
    case 'clips':
      return clips(task);
    case 'plan':
      return buildPlan(task.plan, task.context);
  }
}

function pair({ channel, reference }: PairTask): ComparedPair {
  const warnings: string[] = [];
  return withFileSource(channel.path, (own) =>
    withFileSource(reference.path, (other) => ({
      pair: measurePair(fileTrack(own, readWavHeader(own), channel.channel), fileTrack(other, readWavHeader(other), reference.channel), (message) => warnings.push(message)),
      warnings,
    })),
  );
}

function measure(task: MeasureTask): MeasuredFile {
  let told = 0;
  return withFileSource(task.path, (source) =>
    measureFile(source, task.options, (share) => {
      const now = Date.now();
      if (now - told >= PROGRESS_EVERY_MS) {
        told = now;
        task.progress.postMessage(share);
      }
    }),
  );
}

function clips(task: ClipsTask): Uint8Array[] {
  const sources = task.sources.map(({ path, channel, ...rest }) =>
    withFileSource(path, (source) => {
      const layout = readWavHeader(source);
      const { sampleRateHz } = layout.format;
      const frames = Math.min(layout.format.frames, LONGEST_CLIP_S * sampleRateHz);
      const samples = readChannel(source, { ...layout, format: { ...layout.format, frames } }, channel);
      return { ...rest, samples, sampleRateHz };
    }),
  );
  return blindClips(sources, task.sameClock).map((samples) => writeWav([samples], { encoding: 'pcm', bitDepth: 24, sampleRateHz: CLIP_RATE_HZ }));
}
