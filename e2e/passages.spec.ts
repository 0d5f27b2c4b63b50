import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { writeMarkers } from '../core/audio/chunks/cues.ts';
import { writeWav } from '../core/audio/writeWav.ts';
import type { FileRow, RecordingRow } from '../core/contract/recordings.ts';
import { slateLabel, type Take } from '../core/domain/take.ts';
import { withGaps } from '../core/simulate/dryVoice.ts';
import { mixed, whiteNoise } from '../core/testing/signals.ts';
import { dryClip } from '../demo/dryClip.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-passages-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true });
});

const RATE_HZ = 48_000;
const CLIPS = ['ferrier-neutral', 'netmaker-neutral', 'ferrier-plosives'];
const PAUSES_S = [3, 4];
const clips = CLIPS.map((name) => dryClip(name, RATE_HZ));
/** Where each passage begins and the one before it has ended. */
const begins = clips.map((_, index) => clips.slice(0, index).reduce((sum, clip, each) => sum + clip.length / RATE_HZ + (PAUSES_S[each] as number), 0));

/** Three passages one after the other, over the noise of a place. */
async function threePassages(name: string, markers: { atS: number; label: string }[]): Promise<string> {
  const voice = withGaps(clips, PAUSES_S, RATE_HZ);
  const { cue, adtl } = writeMarkers(markers, RATE_HZ);
  const chunks = [
    { id: 'cue ', body: cue },
    { id: 'LIST', body: adtl },
  ];
  const samples = mixed(voice, whiteNoise(-58, voice.length / RATE_HZ));
  const path = join(folder, name);
  await writeFile(path, writeWav([samples], { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE_HZ }, markers.length > 0 ? chunks : []));
  return path;
}

async function bringIn(page: Page, path: string): Promise<{ at: string; takes: Take[]; rows: () => Promise<RecordingRow[]>; files: () => Promise<FileRow[]> }> {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const takes = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  await page.goto(`${marvet.address}${at}/takes`);
  await page.getByLabel('Sound files').setInputFiles(path);
  await expect(page.getByText('1 of 1 are here')).toBeVisible();
  await page.getByRole('button', { name: /^Files/ }).click();
  await page.getByRole('link', { name: /^Passages of/ }).click();
  await expect(page.getByRole('heading', { name: /^Passages of/ })).toBeVisible();
  return {
    at,
    takes: [...takes].sort((a, b) => a.slate - b.slate),
    rows: async () => (await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`)).sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0)),
    files: () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`),
  };
}

test('passages are cut at the markers of the file, each of the take that its marker names, in the pause beside it', async ({ page }) => {
  // Pressed when it was remembered: a little after the words had begun.
  const path = await threePassages('announced.wav', [
    { atS: begins[1]! + 0.4, label: 'S003' },
    { atS: begins[2]! - 0.6, label: 'now the one with fur' },
  ]);
  const { takes, rows, files } = await bringIn(page, path);
  await page.getByLabel('Take of passage 1').selectOption(takes[0]!.id);
  await page.getByRole('button', { name: 'Cut at its 2 markers' }).click();
  await expect(page.getByRole('row', { name: /now the one with fur/ })).toBeVisible();
  await accessible(page);
  const keep = async () => {
    await page.getByRole('button', { name: 'Keep these passages' }).click();
    await expect(page.getByText('announced.wav has 3 passages; its bytes are as they were')).toBeVisible();
  };
  await keep();
  const cut = await rows();
  expect(cut.map(({ takeId }) => takeId)).toEqual([takes[0], takes[2], takes[3]].map((take) => take!.id));
  for (const [index, { startS }] of cut.entries()) {
    if (index === 0) continue;
    // In the pause, not in a word of either.
    expect(startS).toBeGreaterThan(begins[index]! - PAUSES_S[index - 1]!);
    expect(startS).toBeLessThan(begins[index]! + 0.05);
  }
  // One press takes it all back: one recording, of no take, as it came.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await rows()).map(({ startS, takeId }) => [startS, takeId])).toEqual([[null, null]]);
  await expect(page.getByLabel('Take of passage 1')).toHaveValue('');

  // Kept again, each passage is measured by itself.
  await page.getByLabel('Take of passage 1').selectOption(takes[0]!.id);
  await page.getByRole('button', { name: 'Cut at its 2 markers' }).click();
  await keep();
  await expect.poll(async () => (await files())[0]?.state, { timeout: 60_000 }).toBe('done');
  const measured = await rows();
  expect(measured.map(({ startS }) => startS)).toEqual(cut.map(({ startS }) => startS));
  for (const { table } of measured) expect(table).not.toBeNull();
});

test('passages are cut at pauses, moved and joined by keys, told where a take would stand twice, and heard', async ({ page }) => {
  const { takes, rows } = await bringIn(page, await threePassages('one-long.wav', []));
  await page.getByLabel('Take of passage 1').selectOption(takes[1]!.id);
  await page.getByRole('button', { name: 'Cut at 2 pauses' }).click();
  await expect(page.getByLabel('Take of passage 3')).toHaveValue(takes[3]!.id);

  // A passage is heard, to its end and no further.
  await page.getByRole('button', { name: 'Hear passage 2' }).click();
  const player = page.getByLabel('Channel 1 of one-long.wav');
  await expect.poll(() => player.evaluate((element: HTMLAudioElement) => element.currentTime)).toBeGreaterThan(begins[1]! - PAUSES_S[0]!);
  await player.evaluate((element: HTMLAudioElement) => element.pause());

  const edge = page.getByRole('slider', { name: 'Passage 2 begins' });
  const before = Number(await edge.getAttribute('aria-valuenow'));
  await edge.focus();
  await page.keyboard.press('PageUp');
  await expect(edge).toHaveAttribute('aria-valuenow', String(before + 0.5));

  await page.getByLabel('Take of passage 2').selectOption(takes[1]!.id);
  await expect(page.getByText('This take stands twice')).toHaveCount(2);
  await expect(page.getByRole('button', { name: 'Keep these passages' })).toBeDisabled();
  await page.getByRole('button', { name: 'Takes in their order' }).click();
  await page.getByRole('button', { name: 'Join passage 2 with the next' }).click();
  await page.getByRole('button', { name: 'Keep these passages' }).click();
  await expect.poll(async () => (await rows()).map(({ takeId }) => takeId)).toEqual([takes[1]!.id, takes[2]!.id]);
  expect((await rows())[1]!.startS).toBeCloseTo(before + 0.5, 6);

  // With the playhead: another cut, by key, and the page that is opened anew has them all.
  await page.getByRole('slider', { name: /^Level over time/ }).focus();
  await page.keyboard.press('Home');
  for (let step = 0; step < 2; step++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('c');
  await expect(page.getByLabel('Take of passage 2')).toHaveValue(takes[3]!.id);
  await page.getByLabel('Take of passage 2').selectOption('');
  await page.getByRole('button', { name: 'Keep these passages' }).click();
  // The first passage ends at the new cut; what follows it is of no take.
  await expect.poll(async () => (await rows())[0]!.endS).toBeLessThan(5);
  await page.reload();
  await expect(page.getByLabel(/^Take of passage/)).toHaveCount(3);
  await expect(page.getByLabel('Take of passage 2')).toHaveValue('');

  // Of a part, Inside says where it is from, and leads back.
  const last = (await rows()).at(-1)!;
  await page.goto(page.url().replace(/files\/.*$/, last.id));
  await expect(page.getByRole('heading', { name: `Take ${slateLabel(takes[2]!)}` })).toBeVisible();
  await expect(page.getByText('s of its file, cut out of its file as a passage')).toBeVisible();
  await page.getByRole('link', { name: 'Its passages' }).click();
  await expect(page.getByRole('heading', { name: 'Passages of one-long.wav' })).toBeVisible();
});
