import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { resample } from '@marvet/core/audio/resample';
import type { BundledTrial } from '@marvet/core/formats/bundle';
import { fieldRecordingWav } from '@marvet/core/simulate/fieldRecording';
import { renderTake } from '@marvet/core/simulate/renderTake';
import { layFaults } from './faults.ts';
import { CHAINS, SIMULATED } from './kit.ts';
import { PLACES, SCRIPTS_BY_KEY, scriptId, stationId } from './places.ts';
import { SALTREACH } from './saltreach.ts';
import { fileNameOf } from './saltreachDay.ts';

const RATE_HZ = 48_000;
const LEAD_S = 0.6;
const VOICE_DB_SPL = 66;
const clips = new Map<string, Float64Array>();

function dryClip(name: string): Float64Array {
  let clip = clips.get(name);
  if (!clip) {
    const source = bufferSource(readFileSync(new URL(`./voices/${name}.wav`, import.meta.url)));
    const layout = readWavHeader(source);
    clip = resample(readChannel(source, layout, 0), layout.format.sampleRateHz, RATE_HZ);
    clips.set(name, clip);
  }
  return clip;
}

/** Renders one take of the demo into a folder, unless it is there; a file gets its name only when it is whole. */
export function renderDemoTake(index: number, folder: string): void {
  const take = SALTREACH.takes[index] as BundledTrial['takes'][number];
  const path = join(folder, fileNameOf(take));
  if (existsSync(path)) return;
  const [stationKey, place] = Object.entries(PLACES).find(([key]) => stationId(key) === take.condition.station)!;
  const [scriptKey, script] = Object.entries(SCRIPTS_BY_KEY).find(([key]) => scriptId(key) === take.condition.script)!;
  const seed = `saltreach/${take.slate}/${take.pass}`;
  const voice = script.clip ? dryClip(script.clip) : null;
  const windMs = take.windMs ?? place.heard.windMs;
  const { channels } = renderTake({
    seed,
    sampleRateHz: RATE_HZ,
    voice,
    voiceDbSpl: VOICE_DB_SPL,
    leadS: LEAD_S,
    lengthS: voice ? Math.min(12, voice.length / RATE_HZ + 2 * LEAD_S) : script.script.lengthS,
    distanceM: Number(take.condition.distance),
    screen: take.condition.windscreen ?? 'bare',
    place: { ...place.heard, windMs },
    candidates: take.setups.map((setup) => SIMULATED.get(setup.candidateId)!),
  });
  const lettersOf = (id: string) => CHAINS.find((chain) => chain.id === id)!.tape.letters;
  channels.forEach((samples, channel) => {
    layFaults(samples, lettersOf(take.setups[channel]!.candidateId), {
      seed,
      rateHz: RATE_HZ,
      leadS: LEAD_S,
      voice,
      stationKey,
      scriptKey,
      screen: take.condition.windscreen ?? 'bare',
    });
  });
  const bytes = fieldRecordingWav({
    channels,
    sampleRateHz: RATE_HZ,
    project: SALTREACH.name,
    scene: String(take.slate),
    take: String(take.pass),
    tape: 'DAY1',
    note: take.note,
    trackNames: take.setups.map((setup) => lettersOf(setup.candidateId)),
    startedAtMs: take.startedAtMs ?? 0,
  });
  writeFileSync(`${path}.part`, bytes);
  renameSync(`${path}.part`, path);
}
