import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Chain } from '../core/domain/chain.ts';
import type { Take } from '../core/domain/take.ts';
import { spoken } from '../core/testing/signals.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-house-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

test('an empty start says what to do; a trial is made, renamed, copied, deleted and brought back', async ({ page }) => {
  await page.goto(marvet.address);
  await expect(page.getByText('No trial yet.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'New trial' })).toBeDisabled();
  await page.getByLabel('What is to be decided?').fill('Which boom for a small room?');
  await page.getByRole('button', { name: 'New trial' }).click();
  await page.getByLabel('Name').fill('Small room');
  await page.getByLabel('Name').blur();
  await expect(page.getByRole('link', { name: 'Small room' })).toBeVisible();
  await page.goto(marvet.address);
  await page.getByRole('button', { name: 'Copy Small room' }).click();
  await expect(page.getByRole('link', { name: 'Small room (copy)' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Small room (copy)' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Small room (copy)' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Small room (copy)' }).click();
  await page.getByRole('region', { name: 'Bin' }).getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('region', { name: 'Trials' }).getByRole('link', { name: 'Small room (copy)' })).toBeVisible();
});

test('a form that is refused says which field and why, and keeps what was typed', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=library`);
  await page.getByRole('button', { name: 'Item', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Reed capsule');
  await dialog.getByLabel('Maximum SPL (dB)').fill('1340');
  await dialog.getByLabel('Currency').fill('E');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('Maximum SPL is 60 to 200 dB')).toBeVisible();
  await expect(dialog.getByText(/three-letter code/)).toBeVisible();
  await expect(dialog.getByLabel('Name')).toHaveValue('Reed capsule');
  await dialog.getByLabel('Maximum SPL (dB)').fill('134,5');
  await dialog.getByLabel('Currency').fill('eur');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /Reed capsule/ })).toContainText('134.5');
});

test('a chain: links moved by key, settings of each link, a rig on skin brings its caution', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  for (const [kind, name] of [
    ['microphone', 'Sedge capsule'],
    ['transmitter', 'Sedge transmitter'],
    ['recorder', 'Sedge recorder'],
  ])
    await ask(marvet.address, 'POST', '/items', { kind, name });
  await page.goto(`${marvet.address}/trials/${trialId}/kit`);
  await page.getByRole('button', { name: 'Change Quoinholt' }).click();
  const dialog = page.getByRole('dialog');
  for (const item of ['Sedge recorder', 'Sedge capsule', 'Sedge transmitter']) {
    await dialog.getByLabel('Item to add').selectOption({ label: item });
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  }
  await dialog.getByRole('button', { name: 'Move Sedge recorder down' }).press('Enter');
  await dialog.getByRole('button', { name: 'Move Sedge recorder down' }).press('Enter');
  await dialog.getByLabel('Gain in dB of Sedge transmitter').fill('18');
  await dialog.getByLabel('Pad in dB of Sedge transmitter').fill('10');
  await dialog.getByLabel('Low-cut in Hz of Sedge recorder').fill('80');
  await dialog.getByLabel('Limiter of Sedge recorder').selectOption('limiter off');
  await dialog.getByLabel('taped on skin').check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('note').filter({ hasText: 'Quoinholt: rig on skin' })).toContainText('Ask for consent');
  await expect(page.getByRole('article', { name: 'Quoinholt' })).toContainText(/Sedge capsule.*Sedge transmitter gain 18 dB, pad 10 dB.*Sedge recorder low-cut 80 Hz, limiter off/);
  const [chain] = await ask<Chain[]>(marvet.address, 'GET', `/trials/${trialId}/chains`);
  expect(chain?.links.map((link) => [link.settings.gainDb, link.settings.padDb, link.settings.lowCutHz, link.settings.limiter])).toEqual([
    [null, null, null, null],
    [18, 10, null, null],
    [null, null, 80, false],
  ]);
});

test('what was deleted from a trial lies in its bin and comes back from there', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/plan`);
  await page.getByRole('button', { name: 'Delete Plosives' }).click();
  await page.getByRole('link', { name: 'Bin' }).click();
  const bin = page.getByRole('region', { name: 'Bin of this trial' });
  await expect(bin.getByRole('row', { name: /Plosives/ })).toContainText('script');
  await bin.getByRole('button', { name: 'Bring back' }).click();
  await expect(bin.getByText('Nothing was deleted from this trial.')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('checkbox', { name: 'Plosives' })).toBeVisible();
});

test('the plan: levels added, cells, rows and columns left out, candidates apart, slates kept', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/plan`);
  const slates = page.getByRole('button', { name: /slates|Slates/ });
  await expect(slates).toHaveText('Slates are up to date');
  await page.getByLabel('New distance in metres').fill('2,5');
  await page.getByRole('button', { name: 'Add distance' }).click();
  await expect(page.getByRole('checkbox', { name: '2.5 m' })).toBeChecked();
  await expect(slates).toHaveText('Update slates: 2 new, 0 dropped');
  await page.getByRole('button', { name: 'All of jetty, bare, Room tone' }).click();
  await expect(page.getByText('cells of 12')).toBeVisible();
  await expect(slates).toHaveText('Update slates: 1 new, 2 dropped');
  await page.getByRole('button', { name: 'All of Lodestar at 10 m' }).click();
  await page.getByText('Design and fairness').click();
  await page.getByLabel('Candidates are recorded together, in one take').uncheck();
  await expect(page.getByText('takes, one a cell')).toBeVisible();
  await slates.click();
  await expect(slates).toHaveText('Slates are up to date');
  const takes = await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);
  expect(takes).toHaveLength(5);
  expect(takes.every((take) => take.setups.length === 1)).toBe(true);
  await page.reload();
  await expect(slates).toHaveText('Slates are up to date');
});

test('the same bytes twice are noticed; an upload is stopped; a file is deleted and brought back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const [first, twin] = await writeRecorderFiles(folder, [
    { name: 'S001_T01.wav', trackNames: ['QU', 'LO'], channels: [spoken(-26, -66, 1), spoken(-28, -60, 5)] },
    { name: 'again.wav', trackNames: ['QU', 'LO'], channels: [spoken(-26, -66, 1), spoken(-28, -60, 5)] },
  ]);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  await expect(page.getByText(/No audio yet/)).toBeVisible();
  const input = page.getByLabel('Sound files');
  await input.setInputFiles([first!]);
  await expect(page.getByText('matched by file name')).toBeVisible();
  await input.setInputFiles([twin!]);
  await expect(page.getByText('the same sound is here already as S001_T01.wav')).toBeVisible();
  // A route that never answers stands for a slow network.
  await page.route('**/files?name=slow*', () => undefined);
  await input.setInputFiles([{ name: 'slow.wav', mimeType: 'audio/wav', buffer: Buffer.alloc(1000) }]);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('Stopped')).toBeVisible();
  await page.getByRole('button', { name: /^Files/ }).click();
  await expect(page.getByRole('region', { name: 'Table of files' }).getByRole('row')).toHaveCount(2);
  await page.getByRole('button', { name: 'Delete S001_T01.wav' }).click();
  await expect(page.getByText(/No audio yet/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('region', { name: 'Table of files' }).getByRole('row')).toHaveCount(2);
});

test('a page whose server is away says so, and goes on when it is back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  await expect(page.getByLabel('Use')).toBeVisible();
  await marvet.kill();
  await page.getByLabel('Use').fill('one lead in a boat');
  await page.getByLabel('Use').blur();
  await expect(page.getByText('The server cannot be reached.').first()).toBeVisible();
  await marvet.start();
  await page.getByLabel('Use').fill('one lead in an open boat');
  await page.getByLabel('Use').blur();
  await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('one lead in an open boat');
});
