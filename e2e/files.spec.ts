import { cp, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import type { FileRow } from '../core/contract/recordings.ts';
import type { Take } from '../core/domain/take.ts';
import { fieldRecordingWav } from '../core/simulate/fieldRecording.ts';
import { mixed, whiteNoise } from '../core/testing/signals.ts';
import { dryClip } from '../demo/dryClip.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

const fixture = (name: string) => fileURLToPath(new URL(`../core/audio/decode/fixtures/${name}`, import.meta.url));
const NAMES = ['24.flac', 'tones.mp3', 'tones.m4a', 'tones.opus', 'two-tracks.mp4', 'camera.mov'];

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

test('a folder is taken as it is: its sound comes in, what lies beside it is left out and counted', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/takes?view=files`);
  const folder = await mkdtemp(join(tmpdir(), 'marvet-folder-'));
  await cp(fixture(''), folder, { recursive: true });
  await writeFile(join(folder, 'notes.txt'), 'gulls');
  await page.getByLabel('A folder with sound').setInputFiles(folder);
  await expect(page.getByText('1 file holds no sound by its ending and was left out')).toBeVisible();
  // Two of ten are the same sound in another wrapping.
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `/trials/${trialId}/files`);
  await expect.poll(async () => (await files()).filter(({ state }) => state === 'done').length, { timeout: 60_000 }).toBe(8);
  await expect(page.getByText(/10 of 10 are here/)).toBeVisible();
  await rm(folder, { recursive: true });
});

test('files of a recorder, a phone and a camera come in together, are measured, heard and compared, and say what they lost', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  await page.goto(`${marvet.address}${at}/takes?view=files`);
  await expect(page.getByText("or the sound of a camera's MP4 or MOV")).toBeVisible();
  await page.getByLabel('Sound files').setInputFiles([...NAMES.map(fixture), fileURLToPath(new URL('./smallTrial.ts', import.meta.url))]);
  await expect(page.getByText('smallTrial.ts: It is none of the files that are read')).toBeVisible();
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  await expect.poll(async () => (await files()).filter(({ state }) => state === 'done').length).toBe(NAMES.length);
  await page.goto(`${marvet.address}${at}/takes?view=files`);
  for (const words of ['FLAC, 24 bit 48 kHz', 'MP3, lossy, 48 kHz', 'AAC in MP4, lossy, 48 kHz', 'Opus in Ogg, lossy, 48 kHz', 'MOV, 16 bit 48 kHz'])
    await expect(page.getByRole('cell', { name: words }).first()).toBeVisible();
  await accessible(page);

  // A film's two tracks are three channels: one in stereo, and one more.
  const recordings = await ask<{ id: string; fileName: string; channels: number[] }[]>(marvet.address, 'GET', `${at}/recordings`);
  expect(recordings.flatMap(({ fileName, channels }) => (fileName === 'two-tracks.mp4' ? [channels.length] : [])).sort()).toEqual([1, 2]);
  const [flac, aac] = ['24.flac', 'tones.m4a'].map((name) => recordings.find(({ fileName, channels }) => fileName === name && channels[0] === 0)!.id);
  await page.goto(`${marvet.address}${at}/takes/${aac}`);
  await expect(page.getByText(/lossy: AAC leaves out/)).toBeVisible();
  const audio = page.getByLabel('This recording');
  await audio.evaluate((element: HTMLAudioElement) => element.play());
  await expect.poll(() => audio.evaluate((element: HTMLAudioElement) => element.currentTime)).toBeGreaterThan(0.2);
  // The two are the same tones: alike in level, and the difference says what it is worth.
  await page.goto(`${marvet.address}${at}/takes/pair/${aac}/${flac}`);
  await expect(page.getByText('what was left out when the file was made smaller is part of this difference')).toBeVisible();

  // In a take together, the verdict says so too.
  const [take] = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  for (const [index, name] of ['24.flac', 'tones.m4a'].entries()) {
    const file = (await files()).find((each) => each.name === name)!;
    const assignment = { takeId: take!.id, channels: [{ channelIndex: 0, setupId: take!.setups[index]!.id }] };
    await ask(marvet.address, 'PUT', `${at}/files/${file.id}/assignment`, assignment);
  }
  await page.goto(`${marvet.address}${at}/verdict`);
  await expect(page.getByText('From lossy files: Lodestar 1 of 1 (AAC).')).toBeVisible();
});

test('a round with a lossy file says that ears may tell its codec', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const voice = dryClip('ferrier-neutral', 48_000).slice(0, 4 * 48_000);
  const notes = { sampleRateHz: 48_000, project: '', scene: '1', take: '1', tape: '', note: '', trackNames: ['QU', 'LO'], startedAtMs: 0 };
  const wav = fieldRecordingWav({ ...notes, channels: [voice, mixed(voice, whiteNoise(-50, 4))] });
  await fetch(`${marvet.address}/api${at}/files?name=S001_T01.wav`, { method: 'POST', body: wav as never });
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  await expect.poll(async () => (await files())[0]?.state).toBe('done');
  // No coder of lossy sound is at hand for a file that is long enough to be heard: the page is told that this one is.
  await page.route(`**${at}/files`, async (route) => {
    const answer = await route.fetch();
    const rows = (await answer.json()) as FileRow[];
    await route.fulfill({ response: answer, json: rows.map((row) => ({ ...row, format: { ...row.format, lossy: true } })) });
  });
  await page.goto(`${marvet.address}${at}/listen`);
  await page.getByLabel('Takes').selectOption({ index: 1 });
  await expect(page.getByText('S001_T01.wav is a lossy file: what is heard of noise, air and small differences may be the codec.')).toBeVisible();
});
