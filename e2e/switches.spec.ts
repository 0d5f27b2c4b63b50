import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Take } from '../core/domain/take.ts';
import { concat, mixed, whiteNoise } from '../core/testing/signals.ts';
import { voiced } from '../core/testing/voiced.ts';
import { accessible } from './accessible.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-switch-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const PART_S = 12;
const takeOf = async (trialId: string) => (await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`))[0] as Take;

test('a switch thrown while rolling becomes two setups: cut, measured, and compared fairly', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  await page.clock.install({ time: Date.now() - 3_600_000 });
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await page.getByRole('button', { name: /^Start take/ }).click();
  await page.clock.fastForward(PART_S * 1000);
  await page.getByText('Switch something while it rolls').click();
  await page.getByRole('button', { name: 'noise reduction on', exact: true }).click();
  await expect(page.getByRole('button', { name: 'noise reduction on', exact: true })).toHaveAttribute('aria-pressed', 'true');
  // A second one by mistake, taken back.
  await page.getByRole('button', { name: 'limiter in', exact: true }).click();
  const switched = page.getByRole('list', { name: /^Switched in this take/ });
  await expect(switched.getByRole('listitem')).toHaveCount(2);
  await expect(switched.getByRole('listitem').first()).toContainText('noise reduction on, limiter in');
  await switched.getByRole('button', { name: 'Take the last switch back' }).click();
  await expect(switched.getByRole('listitem')).toHaveCount(1);
  await accessible(page);
  await page.clock.fastForward(PART_S * 1000);
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect.poll(async () => (await takeOf(trialId)).status).toBe('done');
  const take = await takeOf(trialId);
  expect(take.setups).toHaveLength(4);
  const sinceS = (take.setups[2]!.sinceMs! - take.startedAtMs!) / 1000;

  // Loud noise until the switch, little after it; the recorder began with the take.
  const half = (noiseDbfs: number, seconds: number, seed: number) => mixed(voiced(PART_S, -60), whiteNoise(noiseDbfs, seconds, seed));
  const sound = concat(half(-42, sinceS, 3), half(-66, PART_S, 4));
  const [path] = await writeRecorderFiles(folder, [{ name: 'S001_T01.wav', trackNames: ['QU', 'LO'], channels: [sound, sound] }]);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  await page.getByLabel('Sound files').setInputFiles(path!);
  const table = page.getByRole('region', { name: 'Table of recordings' });
  await expect(table.getByRole('row', { name: /Quoinholt/ })).toHaveCount(2);
  const floorOf = async (name: RegExp) => {
    const text = (await table.getByRole('row', { name }).getByRole('cell').nth(5).textContent()) ?? '';
    return text === '' ? null : Number(text.replace('−', '-'));
  };
  // Each stretch has figures of its own: the noise that went is not in those before it.
  await expect.poll(() => floorOf(/Quoinholt.*noise reduction on/), { timeout: 60_000 }).not.toBeNull();
  expect((await floorOf(/Quoinholt.*noise reduction off/))! - (await floorOf(/Quoinholt.*noise reduction on/))!).toBeGreaterThan(15);

  await test.step('what differs is the switch alone', async () => {
    for (const name of ['Take 01 Quoinholt, noise reduction off in the tray', 'Take 01 Quoinholt, noise reduction on in the tray']) await table.getByLabel(name).check();
    const tray = page.getByRole('region', { name: 'Tray' });
    await tray.getByLabel('Factor under test').selectOption('processing');
    await expect(tray).toContainText('Fair. Only the processing differs.');
    await tray.getByLabel('Factor under test').selectOption('candidate');
    await expect(tray).toContainText('Not fair');
  });

  await test.step('inside, it says where it begins and why, and a hand moves it', async () => {
    await table
      .getByRole('row', { name: /Quoinholt.*noise reduction on/ })
      .getByRole('link')
      .first()
      .click();
    await expect(page.getByText(/by the press of the switch/)).toBeVisible();
    const begins = page.getByLabel('Begins at, seconds of its file');
    await expect(begins).toHaveValue(String(Number(sinceS.toFixed(2))));
    await begins.fill('999');
    await begins.blur();
    await expect(page.getByText(/^0 to /).first()).toBeVisible();
    await begins.fill(String(Number((sinceS + 0.5).toFixed(2))));
    await begins.blur();
    await expect(page.getByText(/set by hand/)).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('slider', { name: /Level over time/ })).toBeVisible({ timeout: 60_000 });
  });
});
