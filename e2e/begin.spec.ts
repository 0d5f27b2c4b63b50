import { rm } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { writeWav } from '../core/audio/writeWav.ts';
import type { FileRow, RecordingRow } from '../core/contract/recordings.ts';
import type { Chain } from '../core/domain/chain.ts';
import type { Take } from '../core/domain/take.ts';
import { whiteNoise } from '../core/testing/signals.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask } from './smallTrial.ts';
import { filesOf, MICROPHONES, threeMicrophones } from './yesterday.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await threeMicrophones();
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const files = () => filesOf(folder);

/** The trial that a page stands in. */
const trialOf = (page: Page) => /trials\/([^/]+)/.exec(page.url())?.[1] ?? '';

test('twelve files of three microphones lie side by side and are heard, matched, within two minutes and eight actions', async ({ page }) => {
  const startedMs = Date.now();
  await page.goto(marvet.address);
  const drop = page.getByRole('region', { name: 'Begin with recordings' });
  await expect(drop).toBeVisible();
  await accessible(page);
  // 1: the files. Names, takes and tapes are found.
  await drop.getByLabel('Sound files').setInputFiles(files());
  await expect(page.getByText('12 of 12 are here')).toBeVisible();
  const table = page.getByRole('region', { name: 'Recordings to be laid out' });
  // How long listening takes depends on the machine; the job as a whole has its two minutes.
  await expect(page.getByRole('button', { name: 'Lay them side by side' })).toBeVisible({ timeout: 100_000 });
  await expect(page.getByRole('region', { name: 'Microphones' })).toContainText('3 microphones');
  for (const name of Object.keys(MICROPHONES)) await expect(page.getByLabel(`Name of ${name}`)).toHaveValue(name);
  for (const take of [1, 2, 3, 4]) {
    const own = await table.getByLabel(`Take of boom_${take}.wav`).inputValue();
    for (const name of ['lav A', 'camera']) await expect(table.getByLabel(`Take of ${name}_${take}.wav`)).toHaveValue(own);
  }
  await accessible(page);
  // 2: a name of its own. 3: laid out.
  await page.getByLabel('Name of boom').fill('Boom, short');
  await page.getByRole('button', { name: 'Lay them side by side' }).click();
  const tray = page.getByRole('region', { name: 'Tray' });
  await expect(tray).toContainText('Whether it is fair cannot be told. Not known: windscreen and distance.');
  // 4: to the listening. 5 and 6: played, and switched by key.
  await tray.getByRole('button', { name: /^Listen/ }).click();
  const open = page.getByRole('region', { name: 'Clips' });
  await open.getByRole('button', { name: 'Play' }).click();
  await page.keyboard.press('c');
  await expect(open.getByRole('button', { name: /^C/ })).toHaveAttribute('aria-pressed', 'true');
  await expect(open.getByRole('button', { name: 'Pause' })).toBeVisible();
  expect(Date.now() - startedMs).toBeLessThan(120_000);
  await accessible(page);

  const at = `/trials/${trialOf(page)}`;
  const takes = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  const chains = await ask<Chain[]>(marvet.address, 'GET', `${at}/chains`);
  const recordings = await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  expect(chains.map(({ name }) => name).sort()).toEqual(['Boom, short', 'camera', 'lav A']);
  expect(new Set(chains.map(({ tape }) => tape.letters)).size).toBe(3);
  expect(takes.map(({ setups }) => setups.length)).toEqual([3, 3, 3, 3]);
  for (const { fileName, takeId, setupId } of recordings) {
    const [, name, number] = /^(.*)_(\d)\.wav$/.exec(fileName) as RegExpExecArray;
    const together = recordings.filter((each) => each.fileName.endsWith(`_${number}.wav`));
    expect(new Set(together.map((each) => each.takeId))).toEqual(new Set([takeId]));
    const setup = takes.find(({ id }) => id === takeId)?.setups.find(({ id }) => id === setupId);
    const chain = chains.find(({ id }) => id === setup?.candidateId);
    expect(chain?.name).toBe(name === 'boom' ? 'Boom, short' : name);
  }
  const kept = await ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  expect(new Set(kept.map(({ matchedBy }) => matchedBy))).toEqual(new Set(['sound']));
  // Blind as well, on what was chosen to be judged, and ranked.
  await page.getByRole('button', { name: 'Make the round' }).click();
  await expect(page.getByText(/3 clips at/)).toBeVisible();
  await page.goto(`${marvet.address}${at}/verdict`);
  await expect(page.getByText('Boom, short').first()).toBeVisible();

  // What nobody wrote down is filled in afterwards: how far the boom was, in all takes at once.
  const boom = recordings.find(({ fileName }) => fileName === 'boom_1.wav')!;
  await page.goto(`${marvet.address}${at}/takes/${boom.id}`);
  await expect(page.getByText(/^Nobody wrote down: station, distance, windscreen, script/i)).toBeVisible();
  await accessible(page);
  await page.getByLabel('the same of all other takes where it is not known').check();
  await page.getByLabel(/^Distance, Boom, short/i).selectOption('1 m');
  await expect(page.getByText(/^Distance of 4 takes: 1 m/i)).toBeVisible();
  const distances = async () => (await ask<Take[]>(marvet.address, 'GET', `${at}/takes`)).map(({ setups }) => setups.flatMap(({ levels }) => levels.distance ?? []).sort());
  expect(await distances()).toEqual(Array.from({ length: 4 }, () => ['1', 'not known', 'not known']));
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await distances()).flat()).toEqual([]);
});

test('names that are read otherwise, a file that is left out, and one that is put with another', async ({ page }) => {
  await page.goto(marvet.address);
  await page.getByRole('region', { name: 'Begin with recordings' }).getByLabel('Sound files').setInputFiles(files().slice(0, 5));
  // How long listening takes depends on the machine; the job as a whole has its two minutes.
  await expect(page.getByRole('button', { name: 'Lay them side by side' })).toBeVisible({ timeout: 100_000 });
  const table = page.getByRole('region', { name: 'Recordings to be laid out' });
  // Two of one microphone in a take are told before anything is made.
  await table.getByLabel('Microphone of camera_1.wav, channel 1').selectOption('boom');
  await expect(page.getByText('boom stands twice in a take')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Lay them side by side' })).toBeDisabled();
  await table.getByLabel('Microphone of camera_1.wav, channel 1').selectOption('left out');
  await table.getByLabel('Take of boom_1.wav').selectOption('one of its own');
  const lay = page.getByRole('button', { name: 'Lay them side by side' });
  await lay.click();
  await expect(page.getByText(/3 takes of 2 microphones/)).toBeVisible();
  // What was sent is told by where it lies now, not by where it lay when it came.
  const sent = page.getByRole('region', { name: 'Bring files in' });
  // Four at least: the one that is left out lies in a take where it was found to be of its moment by then.
  await expect(sent.getByText('in its take', { exact: true }).nth(3)).toBeVisible();
  // One press takes it back: all of it lies loose, to be laid out anew.
  const there = () => ask<Take[]>(marvet.address, 'GET', `/trials/${trialOf(page)}/takes`);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(there).toEqual([]);
  await expect(sent.getByText('no take yet', { exact: true })).toHaveCount(5);
  await page.getByRole('button', { name: /^Lay out/ }).click();
  await table.getByLabel('Microphone of camera_1.wav, channel 1').selectOption('left out');
  await table.getByLabel('Take of boom_1.wav').selectOption('one of its own');
  await lay.click();
  await expect.poll(async () => (await there()).length).toBe(3);
  const at = `/trials/${trialOf(page)}`;
  const takes = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  expect(takes.map(({ setups }) => setups.length).sort()).toEqual([1, 1, 2]);
  const left = (await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`)).find(({ fileName }) => fileName === 'camera_1.wav');
  expect(left?.setupId).toBeNull();

  // What comes later joins the take that it sounds like, as a microphone of its own.
  await page
    .getByRole('region', { name: 'Bring files in' })
    .getByLabel('Sound files')
    .setInputFiles([files()[5] as string]);
  await page.getByRole('button', { name: /^Lay out/ }).click();
  await expect(table.getByLabel('Take of camera_2.wav').locator('option:checked')).toHaveText(/, which is there$/);
  await page.getByRole('button', { name: 'Lay them side by side' }).click();
  await expect(page.getByText('1 take of 1 microphone')).toBeVisible();
  expect((await ask<Take[]>(marvet.address, 'GET', `${at}/takes`)).map(({ setups }) => setups.length).sort()).toEqual([1, 1, 3]);
});

test('files are dropped, as they are where nothing could be fetched for folders yet', async ({ page }) => {
  await page.goto(marvet.address);
  const drop = page.getByRole('region', { name: 'Begin with recordings' });
  const bytes = [...writeWav([whiteNoise(-30, 0.5, 1, 8000)], { encoding: 'pcm', bitDepth: 16, sampleRateHz: 8000 })];
  const carried = await page.evaluateHandle((content) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([new Uint8Array(content)], 'dropped.wav'));
    transfer.items.add(new File(['notes'], 'notes.txt'));
    return transfer;
  }, bytes);
  await drop.dispatchEvent('dragenter', { dataTransfer: carried });
  await drop.dispatchEvent('drop', { dataTransfer: carried });
  const table = page.getByRole('region', { name: 'Recordings to be laid out' });
  await expect(table).toContainText('dropped.wav');
  // With the folders' reader at hand.
  const input = page.getByRole('region', { name: 'Bring files in' });
  const more = await page.evaluateHandle((content) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([new Uint8Array(content.map((byte, at) => (at === 100 ? byte ^ 1 : byte)))], 'another.wav'));
    return transfer;
  }, bytes);
  await input.dispatchEvent('dragenter', { dataTransfer: more });
  await page.waitForLoadState('networkidle');
  await input.dispatchEvent('drop', { dataTransfer: more });
  await expect(table).toContainText('another.wav');
});
