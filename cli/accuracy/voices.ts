import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { resample } from '@marvet/core/audio/resample';

/** The dry clips that ship with the app, at 48 kHz, by talker. */
export function dryVoices(): Float64Array[][] {
  const folder = fileURLToPath(new URL('../../core/simulate/voices/', import.meta.url));
  const byTalker = new Map<string, Float64Array[]>();
  for (const name of readdirSync(folder).sort()) {
    if (!name.endsWith('.wav')) continue;
    const source = bufferSource(readFileSync(folder + name));
    const layout = readWavHeader(source);
    const talker = name.split('-')[0] as string;
    byTalker.set(talker, [...(byTalker.get(talker) ?? []), resample(readChannel(source, layout, 0), layout.format.sampleRateHz, 48_000)]);
  }
  return [...byTalker.values()];
}
