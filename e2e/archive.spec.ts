import { readFile, writeFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import type { RecordingRow } from '../core/contract/recordings.ts';
import type { Trial } from '../core/domain/trial.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';
import { filesOf, threeMicrophones } from './yesterday.ts';

let [first, second]: RunningMarvet[] = [];
test.beforeAll(async () => {
  first = await runMarvet();
  second = await runMarvet();
});
test.afterAll(async () => {
  await first!.dispose();
  await second!.dispose();
});

test('a whole trial is taken out on one computer and brought in on another, once, with its sound and figures', async ({ page }, info) => {
  const { trialId } = await smallTrial(first!.address);
  await page.goto(`${first!.address}/trials/${trialId}/takes`);
  await page
    .getByRole('region', { name: 'Bring files in' })
    .getByLabel('Sound files')
    .setInputFiles(filesOf(await threeMicrophones()).slice(0, 2));
  const rows = (at: string) => ask<RecordingRow[]>(at, 'GET', `/trials/${trialId}/recordings`);
  await expect.poll(async () => (await rows(first!.address)).filter(({ table }) => table !== null).length).toBe(2);
  const measured = (await rows(first!.address)).map(({ fileName, table }) => ({ fileName, table }));

  await page.goto(first!.address);
  const taking = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Take all of Jetty/ }).click();
  const path = info.outputPath('trial.zip');
  await (await taking).saveAs(path);

  await page.goto(second!.address);
  await page.getByLabel('Archive of a trial').setInputFiles(path);
  await expect(page.getByText(/^Jetty .* is here with 2 files/)).toBeVisible();
  expect((await rows(second!.address)).map(({ fileName, table }) => ({ fileName, table }))).toEqual(measured);
  await page.goto(`${second!.address}/trials/${trialId}/takes`);
  await expect(page.getByRole('region', { name: 'Table of recordings' }).getByRole('row', { name: /no take/ })).toHaveCount(2);

  // Whoever breaks off in the middle, however often, ends nothing but that.
  for (let broken = 0; broken < 12; broken++) {
    const abort = new AbortController();
    const answer = await fetch(`${second!.address}/api/${broken % 2 === 0 ? `trials/${trialId}/archive.zip` : 'storage/copy.zip'}`, { signal: abort.signal });
    const reader = answer.body!.getReader();
    for (let piece = 0; piece < broken % 4; piece++) await reader.read();
    abort.abort();
  }
  expect(await ask(second!.address, 'GET', '/health')).toMatchObject({ status: 'ok' });

  // A second time it is told; damaged, it is told why, and nothing comes in.
  await page.goto(second!.address);
  await page.getByLabel('Archive of a trial').setInputFiles(path);
  await expect(page.getByText('This trial is here already, and nothing was brought in.')).toBeVisible();
  await accessible(page);
  const bytes = await readFile(path);
  const cut = info.outputPath('cut.zip');
  await writeFile(cut, bytes.subarray(0, bytes.length / 2));
  await page.getByLabel('Archive of a trial').setInputFiles(cut);
  await expect(page.getByText(/cannot be read as a ZIP .* It may not have been copied whole/)).toBeVisible();
  expect(await ask<Trial[]>(second!.address, 'GET', '/trials')).toHaveLength(1);
});
