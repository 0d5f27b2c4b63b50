import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { writeWav } from '../core/audio/writeWav.ts';
import { type OpenListening, openPiecesQuestion } from '../core/contract/openListening.ts';
import type { FileRow, RecordingRow } from '../core/contract/recordings.ts';
import { mixed, whiteNoise } from '../core/testing/signals.ts';
import { dryClip } from '../demo/dryClip.ts';
import { heardClips } from '../server/testing/heardClips.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-channels-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true });
});

const RATE_HZ = 48_000;
const scaled = (samples: Float64Array, db: number) => samples.map((value) => value * 10 ** (db / 20));
const write = async (name: string, channels: Float64Array[]) => {
  const path = join(folder, name);
  await writeFile(path, writeWav(channels, { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE_HZ }));
  return path;
};

test('a transmitter that clips, with its backup 12 dB lower, and a camera in stereo: told, used, heard and taken back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const voice = dryClip('netmaker-plosives', RATE_HZ);
  const loud = mixed(scaled(voice, 10), whiteNoise(-60, voice.length / RATE_HZ, 1));
  const main = loud.map((value) => Math.max(-0.9999, Math.min(0.9999, value)));
  const noise = (seed: number) => whiteNoise(-44, voice.length / RATE_HZ, seed);
  await page.goto(`${marvet.address}${at}/takes`);
  await page
    .getByLabel('Sound files')
    .setInputFiles([
      await write('S001_T01_QU.wav', [main, scaled(loud, -12)]),
      await write('S001_T01_camera.wav', [mixed(scaled(voice, -14), noise(2)), mixed(scaled(voice, -17), noise(3))]),
    ]);
  await expect(page.getByText('2 of 2 are here')).toBeVisible();
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  await expect.poll(async () => (await files()).filter(({ state }) => state === 'done').length, { timeout: 60_000 }).toBe(2);
  const rows = () => ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  const [transmitter] = (await rows()).filter(({ fileName, backup }) => fileName.includes('QU') && backup === null);

  // The main track is that of the candidate; what clips on it is whole on the backup, which is one press away.
  await page.getByRole('button', { name: /^Files/ }).click();
  await page.getByRole('button', { name: 'Match S001_T01_QU.wav' }).click();
  await expect(page.getByText('backup of channel 1, 12.0 dB lower')).toBeVisible();
  await page.getByLabel('Candidate of channel 1', { exact: true }).selectOption('Quoinholt');
  await page.getByRole('button', { name: 'Match', exact: true }).click();
  await page.goto(`${marvet.address}${at}/takes/${transmitter!.id}`);
  await expect(page.getByRole('region', { name: 'Backup track' })).toContainText(/Channel 1 clips at \d+ moments; all of them are whole on the backup/);
  await accessible(page);
  await page.getByRole('button', { name: 'Use the backup in its place' }).click();
  await expect(page.getByRole('button', { name: 'Use channel 1 again' })).toBeVisible();
  const used = async () => (await rows()).filter(({ fileName, setupId }) => fileName.includes('QU') && setupId !== null).map(({ channels }) => channels[0]);
  expect(await used()).toEqual([1]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(used).toEqual([0]);

  // Two channels of the camera are one recording, for the candidate and for the ear.
  await page.getByRole('link', { name: 'All takes' }).click();
  await page.getByRole('button', { name: /^Files/ }).click();
  await page.getByRole('button', { name: 'Match S001_T01_camera.wav' }).click();
  await page.getByLabel('Channels 1 and 2 are one stereo recording').check();
  await page.getByLabel('Candidate of channel 1', { exact: true }).selectOption('Lodestar');
  await page.getByRole('button', { name: 'Match', exact: true }).click();
  await expect.poll(async () => (await files()).filter(({ state }) => state === 'done').length, { timeout: 60_000 }).toBe(2);
  const camera = (await rows()).find(({ channels }) => channels.length === 2)!;
  await page.goto(`${marvet.address}${at}/takes/${camera.id}`);
  // What was chosen stood while its channels were joined.
  await expect(page.getByText('Lodestar')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Stereo' })).toContainText(/Correlation 0\.\d\d\. Summed to mono it loses \d\.\d dB/);
  await expect(page.getByRole('columnheader', { name: 'channel 1' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'channel 2' }).click();
  await expect(page.getByRole('columnheader', { name: 'channel 2' }).first()).toBeVisible();
  await accessible(page);

  // Heard beside the mono one, open, in two channels.
  const open = await ask<OpenListening>(marvet.address, 'POST', `${at}/open-listening`, { recordingIds: [camera.id, transmitter!.id] });
  const { clips } = await heardClips((address) => fetch(`${marvet.address}/api${address}`), `${at}/open-listening/pieces`, openPiecesQuestion(open));
  const [stereo, mono] = clips.map((channels) => channels.length);
  // Beside a stereo one every clip has two sides; those of one that was recorded in mono are alike.
  expect([stereo, mono]).toEqual([2, 2]);
  expect(clips.map(([left, right]) => Buffer.from(left!.buffer).equals(Buffer.from(right!.buffer)))).toEqual([false, true]);
});

test('a transmitter that writes its backup into a file of its own: told on both, used and taken back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const loud = mixed(scaled(dryClip('netmaker-plosives', RATE_HZ), 10), whiteNoise(-60, dryClip('netmaker-plosives', RATE_HZ).length / RATE_HZ, 1));
  const main = await write('S001_T01_QU.wav', [loud.map((value) => Math.max(-0.9999, Math.min(0.9999, value)))]);
  const lower = await write('S001_T01_QU_low.wav', [scaled(loud, -12)]);
  await page.goto(`${marvet.address}${at}/takes`);
  await page.getByLabel('Sound files').setInputFiles([main, lower]);
  const rows = async () => (await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`)).sort((a, b) => a.fileName.length - b.fileName.length);
  await expect.poll(async () => (await rows())[1]?.backup?.ofFile?.name, { timeout: 60_000 }).toBe('S001_T01_QU.wav');
  await expect(page.getByRole('row').getByText('backup of S001_T01_QU.wav, 12.0 dB lower')).toBeVisible();
  await page.goto(`${marvet.address}${at}/takes/${(await rows())[0]!.id}`);
  const told = page.getByRole('region', { name: 'Backup track' });
  await expect(told).toContainText(
    /There is a backup of S001_T01_QU\.wav, 12\.0 dB lower in S001_T01_QU_low\.wav.*S001_T01_QU\.wav clips at \d+ moments; all of them are whole on the backup/,
  );
  await told.getByRole('button', { name: 'Use the backup in its place' }).click();
  await expect(told.getByRole('button', { name: 'Use S001_T01_QU.wav again' })).toBeVisible();
  const used = async () => (await rows()).map(({ setupId }) => setupId !== null);
  expect(await used()).toEqual([false, true]);
  await page.goto(`${marvet.address}${at}/takes/${(await rows())[1]!.id}`);
  await told.getByRole('button', { name: 'Use S001_T01_QU.wav again' }).click();
  await expect.poll(used).toEqual([true, false]);
});
