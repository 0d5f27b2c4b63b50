import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
import type { AudioFile } from '../core/domain/recording.ts';
import { concat, mixed, whiteNoise } from '../core/testing/signals.ts';
import { dryClip } from '../demo/dryClip.ts';
import { writeRecorderFiles } from './audio.ts';
import { ask, smallTrial } from './smallTrial.ts';

const RATE_HZ = 48_000;

/** A take of two candidates with the same words, one over more noise. */
export async function twoOfOneTake(address: string, folder: string): Promise<string> {
  const { trialId } = await smallTrial(address);
  await bringTake(address, folder, trialId, 1);
  return `/trials/${trialId}`;
}

/** Brings the file of a slate in; the noise of no two is the same. @param times how often the words are said */
export async function bringTake(address: string, folder: string, trialId: string, slate: number, times = 1): Promise<void> {
  const name = `S00${slate}_Cormorant.wav`;
  const voice = concat(...Array.from({ length: times }, () => dryClip('netmaker-plosives', RATE_HZ)));
  const lengthS = voice.length / RATE_HZ;
  const channels = [mixed(voice, whiteNoise(-72, lengthS, slate)), mixed(voice, whiteNoise(-48, lengthS, 6 + slate))].map((each) => each.subarray(0, voice.length));
  const [path] = await writeRecorderFiles(folder, [{ name, trackNames: ['QU', 'LO'], channels }]);
  await fetch(`${address}/api/trials/${trialId}/files?name=${name}`, { method: 'POST', body: await readFile(path!) });
  const states = async () => (await ask<AudioFile[]>(address, 'GET', `/trials/${trialId}/files`)).map(({ state }) => state);
  await expect.poll(states, { timeout: 60_000 }).toEqual(Array.from({ length: slate }, () => 'done'));
}
