import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { bufferSource } from '../core/audio/byteSource.ts';
import { readChannel } from '../core/audio/readSamples.ts';
import { readWavHeader } from '../core/audio/readWavHeader.ts';
import type { AudioFile } from '../core/domain/recording.ts';
import { mixed, whiteNoise } from '../core/testing/signals.ts';
import { dryClip } from '../demo/dryClip.ts';
import { unzipped } from '../server/testing/zips.ts';
import { accessible } from './accessible.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-comparing-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const RATE_HZ = 48_000;

/** A take of two candidates with the same words, one over more noise. */
async function twoOfOneTake(): Promise<string> {
  const { trialId } = await smallTrial(marvet.address);
  const voice = dryClip('netmaker-plosives', RATE_HZ);
  const lengthS = voice.length / RATE_HZ;
  const channels = [mixed(voice, whiteNoise(-72, lengthS, 1)), mixed(voice, whiteNoise(-48, lengthS, 7))].map((each) => each.subarray(0, voice.length));
  const [path] = await writeRecorderFiles(folder, [{ name: 'S001_Cormorant.wav', trackNames: ['QU', 'LO'], channels }]);
  await fetch(`${marvet.address}/api/trials/${trialId}/files?name=S001_Cormorant.wav`, { method: 'POST', body: await readFile(path!) });
  await expect.poll(async () => (await ask<AudioFile[]>(marvet.address, 'GET', `/trials/${trialId}/files`))[0]?.state, { timeout: 60_000 }).toBe('done');
  return `/trials/${trialId}`;
}

async function newRound(page: Page, at: string, how: string, comparisons: string): Promise<void> {
  await page.goto(`${marvet.address}${at}/listen`);
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Make the round' }) });
  await form.getByLabel('Takes').selectOption({ index: 1 });
  await form.getByLabel('How').selectOption(how);
  await form.getByLabel(/^Comparisons/).fill(comparisons);
  await form.getByLabel(/^Comparisons/).blur();
  await accessible(page);
}

async function takeSeat(page: Page, name: string): Promise<void> {
  await page.getByLabel('Listener').fill(name);
  await page.getByLabel('Listened on').fill('closed headphones');
  await page.getByRole('button', { name: 'Listen blind' }).click();
  await expect(page.getByRole('heading', { name: 'Blind listening' })).toBeVisible();
}

const apart = (a: Float64Array, b: Float64Array) => a.reduce((sum, value, index) => sum + Math.abs(value - (b[index] as number)), 0);

/** The clips that the page was given, as an ear that hears everything would. */
async function clipsOf(page: Page, number: number): Promise<Float64Array[]> {
  const listenerId = new URL(page.url()).pathname.split('/').at(-1);
  const source = bufferSource(new Uint8Array(await (await fetch(`${marvet.address}/api/listen/${listenerId}/comparisons/${number}`)).arrayBuffer()));
  const layout = readWavHeader(source);
  return Array.from({ length: layout.format.channels }, (_, channel) => readChannel(source, layout, channel));
}

test('whether X is A or B: what it can find is told before, it is heard and answered by key, and told apart at the end', async ({ page }) => {
  const at = await twoOfOneTake();
  await newRound(page, at, 'same', '4');
  await expect(page.getByText('4 comparisons by one listener prove nothing, whatever is answered: guessing gets all of them too often. Choose more.')).toBeVisible();
  await page.getByLabel('Comparisons').fill('6');
  await page.getByLabel('Comparisons').blur();
  await expect(page.getByText(/Of 6 comparisons by one listener 6 must be right/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Orla');
  for (let number = 0; number < 6; number++) {
    await expect(page.getByText(`Comparison ${number + 1} of 6`)).toBeVisible();
    await expect(page.getByRole('button', { name: /^(Play|Pause)/ })).toBeEnabled();
    if (number === 0) {
      await accessible(page);
      await expect(page.getByText('Is X the recording that A is, or the one that B is?')).toBeVisible();
      await page.getByLabel('Listening level in dB').fill('-12');
      await page.keyboard.press('Space');
    }
    // How loud it is, and that it plays, stays from one to the next.
    await expect(page.getByLabel('Listening level in dB')).toHaveValue('-12');
    await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
    await page.keyboard.press('x');
    await expect(page.getByRole('button', { name: /^X/ })).toHaveAttribute('aria-pressed', 'true');
    const [a, b, x] = (await clipsOf(page, number)) as [Float64Array, Float64Array, Float64Array];
    const isA = apart(x, a) < apart(x, b);
    await page.keyboard.press(isA ? '1' : '2');
    await expect(page.getByRole('radio', { name: isA ? 'A' : 'B' })).toBeChecked();
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('All comparisons are answered')).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('region', { name: /^What came of/ })).toContainText(/Quoinholt and Lodestar\.|Lodestar and Quoinholt\./);
  await expect(page.getByRole('region', { name: /^What came of/ })).toContainText('Told apart: 6 of 6 right, and who guesses gets as many in 1.6 % of tests.');
  await accessible(page);
});

test('which is better, by pointer and on a phone: a choice each way round is no preference', async ({ page, browser }) => {
  const at = await twoOfOneTake();
  await newRound(page, at, 'better', '6');
  await expect(page.getByText(/Of 6 comparisons by one listener 6 must go one way to be more than chance/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Tam');
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await context.newPage();
  await phone.goto(page.url());
  for (let number = 0; number < 6; number++) {
    await expect(phone.getByText(`Comparison ${number + 1} of 6`)).toBeVisible();
    await expect(phone.getByRole('button', { name: 'Next' })).toBeDisabled();
    await phone.locator('.picks').getByText('A', { exact: true }).click();
    await phone.getByRole('button', { name: 'Next' }).click();
  }
  await phone.getByRole('button', { name: 'Finish' }).click();
  await expect(phone.getByText('Thank you.')).toBeVisible();
  await context.close();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('region', { name: /^What came of/ })).toContainText(
    'No preference is shown: 3 of 6 choices each, and without one they lie so far apart in 100 % of tests.',
  );
});

test('checks are hidden among clips with points: the listener meets two more, and the host sees how steady they were', async ({ page }) => {
  const at = await twoOfOneTake();
  await page.goto(`${marvet.address}${at}/listen`);
  await page.getByLabel('Takes').selectOption({ index: 1 });
  await page.getByLabel('one clip twice, under two letters').check();
  await page.getByLabel('one clip made worse on purpose').check();
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Orla');
  await expect(page.getByRole('button', { name: /^(Play|Pause)/ })).toBeEnabled();
  for (const letter of ['A', 'B', 'C', 'D'])
    await page
      .getByRole('radiogroup', { name: `Words are clear, clip ${letter}` })
      .getByText('6', { exact: true })
      .click();
  // A letter is heard by its key though an answer has the focus.
  await page.keyboard.press('d');
  await expect(page.getByRole('region', { name: 'Clips' }).getByRole('button', { name: /^D/ })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('row', { name: /hidden: the same once more/ })).toHaveCount(1);
  await expect(page.getByRole('row', { name: /hidden: made worse on purpose/ })).toHaveCount(1);
  await expect(page.getByText('The same clip twice: 0.0 points apart. The one made worse: under 0 % of the others. Less steady than one would build on')).toBeVisible();
  await accessible(page);
});

test('which is which is guessed once the scores are closed, and counted against chance once the host closes the round', async ({ page }) => {
  const at = await twoOfOneTake();
  await page.goto(`${marvet.address}${at}/listen`);
  await page.getByLabel('Takes').selectOption({ index: 1 });
  await page.getByLabel('Identities open').selectOption('once I close the round');
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Orla');
  for (const letter of ['A', 'B'])
    await page
      .getByRole('radiogroup', { name: `Words are clear, clip ${letter}` })
      .getByText('6', { exact: true })
      .click();
  for (const ear of ['Left ear', 'Right ear', 'Middle']) await page.getByRole('button', { name: ear }).click();
  expect(await page.content()).not.toContain('Quoinholt');
  await page.getByRole('button', { name: 'Guess which is which' }).click();
  await page.getByLabel('Clip A is').selectOption('Quoinholt');
  await page.getByLabel('Clip B is').selectOption('Quoinholt');
  // A candidate is one clip only: taken for another it is free where it was.
  await expect(page.getByLabel('Clip A is').locator('option:checked')).toHaveText('not guessed yet');
  await page.getByLabel('Clip A is').selectOption('Lodestar');
  await accessible(page);
  await page.getByRole('button', { name: 'Keep the guess and finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByText('Done. What was answered opens once you close the round.')).toBeVisible();
  await expect(page.getByRole('region', { name: /^Guesses in/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Close the round' }).click();
  await expect(page.getByText('Identities open for good, and nobody listens in this round any more.')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Close it and open identities' }).click();
  await expect(page.getByRole('region', { name: /^Guesses in/ })).toContainText(
    /Which is which: [02] of 2 guessed right; who guesses blindly gets as many in (100|50) % of cases: which is which is not heard\./,
  );
});

test('open listening shows the clip that is heard, and gives a reel: the same words of each, with their chapters', async ({ page }) => {
  const at = await twoOfOneTake();
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
  await page.getByLabel('Held against').selectOption('Quoinholt, take 01');
  await expect(page.getByText(/^Lodestar, take 01: [\d.]+ dB from it in tone, [\d.]+ dB once equalised; recorded [+−]?[\d.]+ dB against it$/)).toBeVisible();
  const turned = page.getByRole('button', { name: 'Equalised to Quoinholt, take 01' });
  await expect(turned).toBeEnabled();
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
  await page.getByLabel('Silence between, s').fill('0.5');
  await page.getByLabel('Silence between, s').blur();
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
