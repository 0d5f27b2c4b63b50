import { existsSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BundledTrial } from '@marvet/core/formats/bundle';
import { fieldRecordingWav } from '@marvet/core/simulate/fieldRecording';
import { renderTake } from '@marvet/core/simulate/renderTake';
import { dryClip } from './dryClip.ts';
import { layFaults } from './faults.ts';
import { throughLink } from './hireLinks.ts';
import { HIRE_SHELF, hireClip, hireFileName, hireStation, lettersOfHire } from './hireShelf.ts';
import { CHAINS, chainId, SIMULATED } from './kit.ts';
import { LANDING_FILES } from './landingFiles.ts';
import { PLACES, SCRIPTS_BY_KEY, scriptId, stationId } from './places.ts';
import { SALTREACH } from './saltreach.ts';
import { fileNameOf } from './saltreachDay.ts';

const RATE_HZ = 48_000;
const LEAD_S = 0.6;
const VOICE_DB_SPL = 66;
/** A file of the demo: how it is called, whose it is, and what is on it. */
interface DemoFile {
  name: string;
  project: string;
  tape: string;
  take: BundledTrial['takes'][number];
  trackNames: string[];
  channels: () => Float64Array[];
}

/** Every file of the demo. */
export const DEMO_FILES: DemoFile[] = [
  ...SALTREACH.takes.map((take) => ({
    name: fileNameOf(take),
    project: SALTREACH.name,
    tape: 'DAY1',
    take,
    trackNames: take.setups.map((setup) => lettersOf(setup.candidateId)),
    channels: () => saltreachChannels(take),
  })),
  ...HIRE_SHELF.takes.map((take) => ({
    name: hireFileName(take),
    project: HIRE_SHELF.name,
    tape: 'HIRE',
    take,
    trackNames: take.setups.map((setup) => lettersOfHire(setup.candidateId)),
    channels: () => hireChannels(take),
  })),
];

/** Pieces of work of which the demo's files are made, counted from 0. */
export const DEMO_PARTS = DEMO_FILES.length + LANDING_FILES.length;

/** Renders one part of the demo into a folder, unless it is there; a file gets its name only when it is whole. */
export async function renderDemoPart(index: number, folder: string): Promise<void> {
  const landing = LANDING_FILES[index - DEMO_FILES.length];
  if (!landing) return renderDemoFile(index, folder);
  if (landing.names.every((name) => existsSync(join(folder, name)))) return;
  for (const [name, bytes] of await landing.make()) writeWhole(join(folder, name), bytes);
}

function writeWhole(path: string, bytes: Uint8Array): void {
  writeFileSync(`${path}.part`, bytes);
  renameSync(`${path}.part`, path);
}

function renderDemoFile(index: number, folder: string): void {
  const { name, project, tape, take, trackNames, channels } = DEMO_FILES[index] as DemoFile;
  const path = join(folder, name);
  if (existsSync(path)) return;
  const bytes = fieldRecordingWav({
    channels: channels(),
    sampleRateHz: RATE_HZ,
    project,
    scene: String(take.slate),
    take: String(take.pass),
    tape,
    note: take.note,
    trackNames,
    startedAtMs: take.startedAtMs ?? 0,
  });
  writeWhole(path, bytes);
}

function lettersOf(candidateId: string): string {
  return CHAINS.find((chain) => chain.id === candidateId)!.tape.letters;
}

/** What the five candidates heard of a take. */
function saltreachChannels(take: BundledTrial['takes'][number]): Float64Array[] {
  const [stationKey, place] = Object.entries(PLACES).find(([key]) => stationId(key) === take.condition.station)!;
  const [scriptKey, script] = Object.entries(SCRIPTS_BY_KEY).find(([key]) => scriptId(key) === take.condition.script)!;
  const seed = `saltreach/${take.slate}/${take.pass}`;
  const voice = script.clip ? dryClip(script.clip, RATE_HZ) : null;
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
  return channels;
}

/** The wire of one lavalier, heard once, and what seven links made of it. */
function hireChannels(take: BundledTrial['takes'][number]): Float64Array[] {
  const seed = `hire shelf/${take.slate}`;
  const clip = hireClip(take);
  const voice = clip === null ? null : dryClip(clip, RATE_HZ);
  const wired = { ...SIMULATED.get(chainId('QO'))!, radio: null, clothLossDb: 0, topLiftDb: 0, gainDbfs: -12 };
  const heard = (spoken: Float64Array | null, lengthS: number) =>
    renderTake({
      seed,
      sampleRateHz: RATE_HZ,
      voice: spoken,
      voiceDbSpl: VOICE_DB_SPL,
      leadS: LEAD_S,
      lengthS,
      distanceM: Number(take.condition.distance),
      screen: take.condition.windscreen ?? 'foam',
      place: PLACES[hireStation(take)]!.heard,
      candidates: [wired],
    }).channels[0] as Float64Array;
  const wire = heard(voice, voice ? Math.min(12, voice.length / RATE_HZ + 2 * LEAD_S) : 8);
  const split = { seed, rateHz: RATE_HZ, wire, noise: heard(null, 2), spoken: voice !== null, far: take.condition.distance === '40' };
  return take.setups.map((setup) => throughLink(lettersOfHire(setup.candidateId), split));
}
