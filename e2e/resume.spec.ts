import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { filled } from '../core/audio/filled.ts';
import { writeWav } from '../core/audio/writeWav.ts';
import type { FileRow } from '../core/contract/recordings.ts';
import { dryClip } from '../demo/dryClip.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-resume-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true });
});

const RATE_HZ = 48_000;
/** Four minutes, some 35 MB: five pieces. */
async function longFile(name: string): Promise<string> {
  const voice = dryClip('ferrier-neutral', RATE_HZ);
  const samples = filled(240 * RATE_HZ, (frame) => voice[frame % voice.length] as number);
  const path = join(folder, name);
  await writeFile(path, writeWav([samples], { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE_HZ }));
  return path;
}
const PIECES = '**/files/arriving?*';
const fromByteOf = (url: string) => Number(new URL(url).searchParams.get('fromByte'));

async function opened(page: Page) {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  await page.goto(`${marvet.address}${at}/takes`);
  return { files: () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`) };
}

test('a server that dies in the middle of a large file: it goes on by itself from where it was', async ({ page }) => {
  const { files } = await opened(page);
  const sent: number[] = [];
  await page.route(PIECES, async (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    sent.push(fromByteOf(route.request().url()));
    if (sent.length === 3) await marvet.kill();
    await route.continue();
  });
  await page.getByLabel('Sound files').setInputFiles(await longFile('S001_T01_QU.wav'));
  await expect(page.getByText('the server cannot be reached; it goes on by itself')).toBeVisible();
  await marvet.start();
  await expect(page.getByText('1 of 1 are here')).toBeVisible();
  await expect.poll(async () => (await files()).map(({ name, sizeBytes }) => [name, sizeBytes])).toEqual([['S001_T01_QU.wav', 44 + 240 * RATE_HZ * 3]]);
  // Nothing that was acknowledged was sent again.
  expect(sent.filter((fromByte) => fromByte === 0)).toHaveLength(1);
  expect(sent.length).toBeLessThanOrEqual(6);
});

test('a page that is closed in the middle of a large file: dropped anew, it is sent on from there', async ({ page }) => {
  const { files } = await opened(page);
  const path = await longFile('S002_T01_QU.wav');
  let pieces = 0;
  await page.route(PIECES, async (route) => {
    // From the third piece on nothing goes through.
    if (route.request().method() === 'PUT' && ++pieces > 2) return;
    await route.continue();
  });
  await page.getByLabel('Sound files').setInputFiles(path);
  await expect.poll(() => pieces).toBe(3);
  await page.unroute(PIECES);
  await page.reload();
  const first = page.waitForRequest((request) => request.method() === 'PUT' && request.url().includes('/files/arriving'));
  await page.getByLabel('Sound files').setInputFiles(path);
  // What came of the third piece before the page went away counts too.
  expect(fromByteOf((await first).url())).toBeGreaterThanOrEqual(2 * (8 << 20));
  await expect(page.getByText('1 of 1 are here')).toBeVisible();
  expect((await files()).map(({ name }) => name)).toEqual(['S002_T01_QU.wav']);
});
