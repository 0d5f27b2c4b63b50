import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { bufferSource } from '../core/audio/byteSource.ts';
import { readWavHeader } from '../core/audio/readWavHeader.ts';
import { unzipped } from '../server/testing/zips.ts';
import { accessible } from './accessible.ts';
import { twoOfOneTake } from './heardTakes.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-open-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

test('open listening shows the clip that is heard, and gives a reel: the same words of each, with their chapters', async ({ page }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  const ids = (await ask<{ id: string }[]>(marvet.address, 'GET', `${at}/recordings`)).map(({ id }) => id);
  await page.goto(`${marvet.address}${at}/listen?takes=${ids.join(',')}`);
  // The clip that is heard is seen, and heard where its picture is pressed; another clip at the same place.
  const picture = page.getByRole('slider', { name: /^Level of the clip that is heard/ });
  await expect(picture).toBeVisible();
  const box = (await picture.boundingBox()) as { width: number };
  await picture.click({ position: { x: 76 + (box.width - 84) / 2, y: 40 } });
  const position = async () => Number(await page.getByLabel('Position in seconds').inputValue());
  const lengthS = Number(await page.getByLabel('Position in seconds').getAttribute('max'));
  await expect.poll(async () => Math.abs((await position()) - lengthS / 2)).toBeLessThan(0.3);
  await page.keyboard.press('b');
  await expect(page.getByRole('button', { name: /^B/ })).toHaveAttribute('aria-pressed', 'true');
  expect(Math.abs((await position()) - lengthS / 2)).toBeLessThan(0.3);
  // Held against the other one: how far it is, and heard equalised to it at one press, at the same place.
  // A note where it is heard, kept with its recording; heard again at a press, binned and brought back.
  await page.getByLabel('What is heard in B here').fill('scrape of the coat');
  await page.keyboard.press('Enter');
  const noted = page.getByRole('region', { name: 'Notes on B' });
  await expect(noted.getByLabel(/^Note at/)).toHaveValue('scrape of the coat');
  await page.getByLabel('Position in seconds').fill('0');
  await noted.getByRole('button', { name: 'Hear scrape of the coat' }).click();
  await expect.poll(async () => Math.abs((await position()) - lengthS / 2)).toBeLessThan(0.4);
  await noted.getByRole('button', { name: 'Delete scrape of the coat' }).click();
  await expect(page.getByText('No note on B yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(noted.getByLabel(/^Note at/)).toHaveValue('scrape of the coat');
  await page.getByRole('button', { name: /^A/ }).click();
  await expect(page.getByText('No note on A yet.')).toBeVisible();
  await page.keyboard.press('b');
  await page.getByLabel('Listening level in dB').fill('-12');
  await page.getByLabel('Held against').selectOption('Quoinholt, take 01');
  await expect(page.getByText(/^Lodestar, take 01: [\d.]+ dB from it in tone, [\d.]+ dB once equalised; recorded [+−]?[\d.]+ dB against it$/)).toBeVisible();
  const turned = page.getByRole('button', { name: 'Equalised to Quoinholt, take 01' });
  await expect(turned).toBeEnabled();
  await page.keyboard.press('b');
  await expect(page.getByRole('figure', { name: 'Difference of Lodestar, take 01 from Quoinholt, take 01' })).toBeVisible();
  await expect(page.getByLabel('Listening level in dB')).toHaveValue('-12');
  await page.keyboard.press('b');
  await page.keyboard.press('=');
  await expect(turned).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('button', { name: /^B/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('a');
  await expect(page.getByRole('button', { name: /^A/ })).toHaveAttribute('aria-pressed', 'true');
  await turned.click();
  await expect(turned).toHaveAttribute('aria-pressed', 'false');
  await page.getByText('A reel to send to others').click();
  await page.getByLabel('Order').selectOption('phrase by phrase: the same words of each');
  await page.getByLabel('Between them').selectOption('the letter of the next, spoken');
  await page.getByLabel('Silence between, s').fill('0.5');
  await page.getByLabel('Silence between, s').blur();
  await expect(page.getByText(/^\d+ parts, \d+ s$/)).toBeVisible();
  await accessible(page);
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Fetch the reel' }).click()]);
  expect(download.suggestedFilename()).toMatch(/reel\.zip$/);
  const entries = await unzipped(await readFile(await download.path()));
  const { format } = readWavHeader(bufferSource(new Uint8Array(entries.get('reel.wav') as Buffer)));
  expect(format.markers?.map(({ label }) => label).slice(0, 2)).toEqual(['Quoinholt, take 01, phrase 1', 'Lodestar, take 01, phrase 1']);
  expect(entries.get('reel.vtt')?.toString()).toContain('Quoinholt, take 01, phrase 2');
  expect([...entries.keys()].at(-1)).toMatch(/^untouched files\/01 QU LO S001_Cormorant\.wav$/);

  // The page opens from a folder, without the server.
  const place = join(folder, 'reel.html');
  await writeFile(place, entries.get('reel.html') as Buffer);
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(`file://${place}`);
  // It brings its letters along.
  expect(await page.evaluate(async () => [...(await document.fonts.ready)].map(({ weight, status }) => `${weight} ${status}`))).toEqual(['400 loaded', '700 loaded']);
  await page.getByRole('button', { name: 'Play' }).click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  const seconds = async () => Number(await page.getByLabel('Position in seconds').inputValue());
  expect(await seconds()).toBeLessThan(3);
  await expect.poll(seconds).toBeGreaterThan(0.5);
  const before = await seconds();
  await page.keyboard.press('b');
  await expect(page.getByRole('button', { name: /^B/ })).toHaveAttribute('aria-pressed', 'true');
  const after = await seconds();
  expect(after).toBeGreaterThanOrEqual(before);
  expect(after - before).toBeLessThan(1.5);
  await page.getByRole('button', { name: 'Pause' }).click();
  await accessible(page);
  expect(asked).toEqual([`file://${place}`]);
});
