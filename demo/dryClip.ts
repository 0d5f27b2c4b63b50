import { readFileSync } from 'node:fs';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { resample } from '@marvet/core/audio/resample';

const clips = new Map<string, Float64Array>();

/** A dry voice that ships with the demo, at a rate, by its name. */
export function dryClip(name: string, rateHz: number): Float64Array {
  const key = `${name} ${rateHz}`;
  const known = clips.get(key);
  if (known) return known;
  const source = bufferSource(readFileSync(new URL(`../core/simulate/voices/${name}.wav`, import.meta.url)));
  const layout = readWavHeader(source);
  const clip = resample(readChannel(source, layout, 0), layout.format.sampleRateHz, rateHz);
  clips.set(key, clip);
  return clip;
}
