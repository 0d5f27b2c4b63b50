import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { mixed, whiteNoise } from '../core/testing/signals.ts';
import { accessible } from './accessible.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-reference-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const RATE_HZ = 48_000;
const LENGTH_S = 8;
const WORDS_S = [0.5, 1.7, 2.9, 4.1, 5.3, 6.5];
const SWALLOWED_S = [3.2, 3.4] as const;

/** Words that die away over a bed of noise; and the same with the noise taken down between them and one faint end swallowed. */
function trackAndProcessed(): [Float64Array, Float64Array] {
  const secondsOf = (index: number) => index / RATE_HZ;
  const words = whiteNoise(-20, LENGTH_S, 4).map((x, index) => {
    const sinceS = Math.min(...WORDS_S.map((atS) => secondsOf(index) - atS).filter((s) => s >= 0));
    return sinceS < 1 ? x * 10 ** (-3.2 * sinceS) : 0;
  });
  const plain = mixed(whiteNoise(-62, LENGTH_S, 3), words);
  const processed = plain.map((x, index) => {
    const atS = secondsOf(index);
    if (atS >= SWALLOWED_S[0] && atS < SWALLOWED_S[1]) return 0.1 * x;
    return WORDS_S.some((wordS) => atS >= wordS + 0.75 && atS < wordS + 1.2) ? 0.25 * x : x;
  });
  return [plain, processed];
}

test('a track with noise reduction is judged against the track without, and what it cost is heard', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  const [path] = await writeRecorderFiles(folder, [{ name: 'S001_T01.wav', trackNames: ['QU', 'LO'], channels: trackAndProcessed() }]);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  await page.getByLabel('Sound files').setInputFiles(path!);
  await expect(page.getByRole('region', { name: 'Table of recordings' }).getByText('−').first()).toBeVisible({ timeout: 60_000 });

  await page.getByRole('link', { name: 'Question' }).click();
  await page.getByRole('button', { name: 'Criterion', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Noise gone');
  await dialog.getByLabel('Measure', { exact: true }).selectOption({ label: 'Noise taken off the reference (dB)' });
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Noise gone needs a reference')).toBeVisible();
  await page.getByLabel('Reference').selectOption({ label: 'Quoinholt' });
  await expect(page.getByText('Noise gone needs a reference')).toBeHidden();
  await page.reload();
  await expect(page.getByLabel('Reference').locator('option:checked')).toHaveText('Quoinholt');

  await page.getByRole('link', { name: 'Takes' }).click();
  await page
    .getByRole('row', { name: /Lodestar/ })
    .getByRole('link')
    .click();
  const taken = page.getByRole('row', { name: /Noise taken off the reference/ });
  await expect(taken).toContainText('12 dB', { timeout: 30_000 });
  await page.getByRole('link', { name: 'Look at the pair' }).click();
  await expect(page.getByText(/^Noise is 12 dB lower against the voice/)).toBeVisible({ timeout: 30_000 });
  const moments = page.getByRole('table', { name: 'Moments to hear' });
  await expect(moments.getByRole('row')).toHaveCount(1);
  await expect(moments).toContainText('a word’s end lost');
  await accessible(page);

  const playing = (name: RegExp) => page.getByLabel(name).evaluate((audio: HTMLAudioElement) => ({ atS: audio.currentTime, paused: audio.paused }));
  await moments.getByRole('button', { name: /processed$/ }).click();
  await expect.poll(async () => (await playing(/^01 Lodestar$/)).atS).toBeGreaterThan(SWALLOWED_S[0] - 0.7);
  expect((await playing(/^01 Quoinholt$/)).atS).toBe(0);
  await moments.getByRole('button', { name: /before$/ }).click();
  await expect.poll(async () => (await playing(/^01 Quoinholt$/)).atS).toBeGreaterThan(SWALLOWED_S[0] - 0.7);
});
