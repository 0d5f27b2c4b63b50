import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { Cascade, highShelf } from '../core/audio/biquad.ts';
import type { RecordingDetail } from '../core/contract/recordings.ts';
import type { Correction } from '../core/domain/correction.ts';
import type { EventKind } from '../core/domain/measureId.ts';
import { concat, silence, spoken } from '../core/testing/signals.ts';
import { accessible } from './accessible.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { seedTakes } from './seedTakes.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-takes-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const DROPOUT_S = 1.1;

/** One performance on two microphones: the first breaks off for 40 ms, the second is 5 ms late, 6 dB lower and duller. */
function twoMicrophones(): [Float64Array, Float64Array] {
  const words = spoken(-26, -62, 3);
  const broken = Float64Array.from(words);
  broken.fill(0, DROPOUT_S * 48_000, (DROPOUT_S + 0.04) * 48_000);
  const duller = concat(silence(0.005), words.map((x) => x / 2).subarray(0, words.length - 240));
  new Cascade([highShelf(3000, -8, 48_000)]).process(duller, duller, duller.length);
  return [broken, duller];
}

async function upload(page: Page, trialId: string): Promise<void> {
  const [path] = await writeRecorderFiles(folder, [{ name: 'S001_T01.wav', trackNames: ['QU', 'LO'], channels: twoMicrophones() }]);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  await page.getByLabel('Sound files').setInputFiles(path!);
  await expect(page.getByRole('region', { name: 'Table of recordings' }).getByText('−').first()).toBeVisible({ timeout: 60_000 });
}

async function uploadAndLookInside(page: Page, trialId: string): Promise<void> {
  await upload(page, trialId);
  await page
    .getByRole('row', { name: /Quoinholt/ })
    .getByRole('link')
    .click();
  await page.getByRole('slider', { name: /^Level over time/ }).waitFor();
}

const playerTime = (page: Page) => page.getByLabel('This recording').evaluate((audio: HTMLAudioElement) => audio.currentTime);

test('inside a take: a break-up is said, seen and heard; room tone marked by hand wins', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  await uploadAndLookInside(page, trialId);
  await expect(page.getByText(/^Break-up at 1.1 s, (38|40|42) ms\.$/)).toBeVisible();
  await expect(page.getByRole('slider', { name: /Level over time: 3 stretches of words/ })).toBeVisible();
  await expect(page.getByText('Within', { exact: false }).first()).toBeVisible();

  await test.step('hear it with a second around', async () => {
    await page.getByRole('button', { name: /^Hear break-up at 1.1 s/ }).click();
    await expect.poll(() => playerTime(page)).toBeGreaterThan(0.05);
    await expect.poll(() => playerTime(page), { timeout: 20_000 }).toBeGreaterThanOrEqual(2);
    await expect.poll(() => page.getByLabel('This recording').evaluate((audio: HTMLAudioElement) => audio.paused)).toBe(true);
  });

  await test.step('zoom by key, pan by button, and back', async () => {
    const slider = page.getByRole('slider', { name: /Level over time/ });
    const whole = Number(await slider.getAttribute('aria-valuemax'));
    await page.keyboard.press('Equal');
    await expect.poll(async () => Number(await slider.getAttribute('aria-valuemax')) - Number(await slider.getAttribute('aria-valuemin'))).toBeLessThan(whole * 0.6);
    await page.getByRole('button', { name: 'Earlier' }).click();
    await page.getByRole('button', { name: 'All', exact: true }).click();
    await expect(slider).toHaveAttribute('aria-valuemax', String(whole));
  });

  await test.step('room tone is marked, moved on the picture by key, and taken away', async () => {
    await page.getByRole('button', { name: 'Mark the longest pause' }).click();
    const roomTone = page.getByRole('region', { name: 'Room tone' });
    await expect(roomTone).toContainText('marked by hand');
    await expect.poll(() => page.locator('.lane-chart .pause').count(), { timeout: 30_000 }).toBe(1);
    const before = Number(await page.getByRole('slider', { name: 'Room tone ends' }).getAttribute('aria-valuenow'));
    await page.getByRole('slider', { name: 'Room tone ends' }).focus();
    for (let press = 0; press < 2; press++) await page.keyboard.press('ArrowLeft');
    await expect(roomTone).toContainText(`${(before - 0.1).toFixed(2)} s`);
    await roomTone.getByRole('button', { name: 'Take this mark away' }).click();
    await expect.poll(() => page.locator('.lane-chart .pause').count(), { timeout: 30_000 }).toBeGreaterThan(1);
  });

  await test.step('a figure leads to its method', async () => {
    await page.getByRole('link', { name: 'Intelligibility', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Intelligibility' })).toBeInViewport();
  });
});

test('ears outrank a detector: an event becomes another, none, or one that nobody found; undone, kept and taken away', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  await uploadAndLookInside(page, trialId);
  const id = page.url().split('/').at(-1)!;
  const detail = () => ask<RecordingDetail>(marvet.address, 'GET', `/trials/${trialId}/recordings/${id}`);
  const perMinute = async (kind: EventKind) => (await detail()).figures?.[`events.${kind}.perMinute`] ?? 0;
  const events = page.getByRole('region', { name: 'Events' });
  const inHand = page.getByRole('region', { name: 'Event in hand' });
  const edge = page.getByRole('slider', { name: 'The event ends' });

  await test.step('another kind: every figure counts it, and it can be undone', async () => {
    await events.getByRole('button', { name: /^Correct break-up at 1.1 s/ }).click();
    await inHand.getByLabel('Kind of event').selectOption('handling');
    await expect(events.getByRole('row', { name: /handling at 1.1 s.*marked by hand/ })).toBeVisible();
    await expect.poll(() => perMinute('handling'), { timeout: 30_000 }).toBeGreaterThan(0);
    expect(await perMinute('dropout')).toBe(0);
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(events.getByRole('button', { name: /^Correct break-up at 1.1 s/ })).toBeVisible();
    await expect.poll(() => perMinute('dropout'), { timeout: 30_000 }).toBeGreaterThan(0);
  });

  await test.step('none at all, and as it was found again', async () => {
    await events.getByRole('button', { name: /^Correct break-up at 1.1 s/ }).click();
    await inHand.getByRole('button', { name: 'Not an event' }).click();
    await expect(events.getByRole('row', { name: /break-up at 1.1 s.*none by ear/ })).toBeVisible();
    await expect.poll(() => perMinute('dropout'), { timeout: 30_000 }).toBe(0);
    await events.getByRole('button', { name: 'As it was found' }).click();
    await expect.poll(() => perMinute('dropout'), { timeout: 30_000 }).toBeGreaterThan(0);
  });

  await test.step('one that nobody found: marked, moved by key and by pointer, heard in a loop, kept over a reload', async () => {
    await page.getByRole('slider', { name: /^Level over time/ }).focus();
    await page.keyboard.press('m');
    await inHand.getByLabel('Kind of event').selectOption('wind');
    const start = Number(await page.getByRole('slider', { name: 'The event begins' }).getAttribute('aria-valuenow'));
    await inHand.getByRole('button', { name: 'Keep this event' }).click();
    await expect.poll(() => perMinute('wind'), { timeout: 30_000 }).toBeGreaterThan(0);
    const end = Number(await edge.getAttribute('aria-valuenow'));
    await edge.focus();
    for (let press = 0; press < 3; press++) await page.keyboard.press('ArrowRight');
    const lasted = async () => (await detail()).figures?.['events.wind.seconds'] ?? 0;
    await expect.poll(lasted, { timeout: 30_000 }).toBeCloseTo(end - start + 0.15, 2);
    const box = (await edge.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + 40);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 60, box.y + 40, { steps: 4 });
    await page.mouse.up();
    await expect.poll(lasted, { timeout: 30_000 }).toBeGreaterThan(end - start + 0.2);

    await inHand.getByRole('button', { name: 'Loop it' }).click();
    let latest = 0;
    const wentBack = async () => {
      const now = await playerTime(page);
      const back = now < latest;
      latest = Math.max(latest, now);
      return back;
    };
    await expect.poll(wentBack, { timeout: 20_000, intervals: [60] }).toBe(true);

    await page.reload();
    await expect(events.getByRole('row', { name: /wind at .*marked by hand/ })).toBeVisible();
    const csv = await page.request.get(new URL((await page.getByRole('link', { name: 'CSV' }).getAttribute('href'))!, page.url()).href);
    expect(await csv.text()).toMatch(/wind,[\d.]+,[\d.]+,-?[\d.]+,hand/);
  });

  await test.step('a page that saw it as it was before overwrites nothing', async () => {
    const [{ id: correctionId, now }] = (await detail()).corrections as [Correction];
    await events.getByRole('button', { name: /^Correct wind/ }).click();
    const path = `/trials/${trialId}/recordings/${id}/corrections/${correctionId}`;
    // Another page moves it; this one has not been told yet when it sends what it saw.
    await page.route(
      '**/corrections/**',
      async (route) => {
        await ask(marvet.address, 'PUT', path, { was: null, now: { ...now, kind: 'rustle' }, seen: { id: correctionId, was: null, now } });
        await route.continue();
      },
      { times: 1 },
    );
    await inHand.getByLabel('Kind of event').selectOption('handling');
    await expect(page.getByText('was changed on another page in the meantime')).toBeVisible();
    await expect(events.getByRole('row', { name: /rustle at .*marked by hand/ })).toBeVisible();
  });

  await accessible(page);
});

test('two takes: aligned, with the equalisation needed; figures over the plan; measured again', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  await upload(page, trialId);
  for (const name of [/Take 01 Quoinholt/, /Take 01 Lodestar/]) await page.getByRole('checkbox', { name }).check();
  await page.getByRole('button', { name: 'Difference' }).click();
  await expect(page.getByRole('heading', { name: '01 Quoinholt against 01 Lodestar' })).toBeVisible();
  await expect(page.getByRole('row', { name: 'Later than the second' })).toContainText('−5.00 ms', { timeout: 60_000 });
  await expect(page.getByRole('row', { name: 'Polarity' })).toContainText('same');
  await expect(page.getByText('Equalisation that brings the first nearest')).toBeVisible();
  await expect(page.getByRole('row', { name: /shelf|bell/ }).first()).toBeVisible();
  await accessible(page);
  await page.getByRole('link', { name: 'Turn round' }).click();
  await expect(page.getByRole('row', { name: 'Later than the second' })).toContainText(/[^−]5.00 ms/, { timeout: 60_000 });

  await test.step('figures over the plan', async () => {
    await page.getByRole('link', { name: 'All takes' }).click();
    await page.getByRole('button', { name: 'Figures over the plan' }).click();
    await page.getByLabel('Figure', { exact: true }).selectOption('character.sibilanceDb');
    await page.reload();
    await expect(page.getByLabel('Figure', { exact: true })).toHaveValue('character.sibilanceDb');
    await page.getByRole('button', { name: /^Lodestar, .* look inside$/ }).click();
    await expect(page.getByRole('heading', { name: 'Take 01' })).toBeVisible();
  });

  await test.step('measure all again', async () => {
    await page.goto(`${marvet.address}/trials/${trialId}/takes?view=files`);
    await page.getByRole('button', { name: 'Measure all again' }).click();
    await expect(page.getByRole('row', { name: /S001_T01.wav/ })).toContainText('done', { timeout: 30_000 });
  });
});

test('channels of a file are named by hand and given to candidates, and stay so', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  await upload(page, trialId);
  const files = `${marvet.address}/trials/${trialId}/takes?view=files`;
  await page.goto(files);
  await page.getByRole('button', { name: 'Match S001_T01.wav' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Name of channel 1')).toHaveValue('QU');
  await dialog.getByLabel('Name of channel 1').fill('plant in the wheel');
  await dialog.getByLabel('Candidate of channel 1').selectOption('none');
  await dialog.getByLabel('Candidate of channel 2').selectOption('Quoinholt');
  await dialog.getByRole('button', { name: 'Match', exact: true }).click();
  await expect(dialog).toBeHidden();
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  const table = page.getByRole('region', { name: 'Table of recordings' });
  await expect(table.getByRole('row', { name: /plant in the wheel/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /Quoinholt/ })).toHaveCount(1);
  await expect(table.getByRole('row', { name: /Lodestar/ })).toHaveCount(0);
  await page.goto(files);
  await page.getByRole('button', { name: 'Match S001_T01.wav' }).click();
  await expect(dialog.getByLabel('Name of channel 1')).toHaveValue('plant in the wheel');
  await expect(dialog.getByLabel('Candidate of channel 2')).toHaveValue(/.+/);
});

test('5,000 takes: the table draws only what is seen, sorts and filters', async ({ page }) => {
  test.slow();
  const { trialId, chainIds } = await smallTrial(marvet.address);
  seedTakes(marvet.dataFolder, trialId, chainIds, 5000);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  const table = page.getByRole('region', { name: 'Table of recordings' });
  await expect(table.getByRole('row').nth(3)).toBeVisible();
  expect(await table.locator('tbody tr').count()).toBeLessThan(80);
  await expect(table.getByRole('table')).toHaveAttribute('aria-rowcount', '5001');
  await table.getByRole('button', { name: /Voice over noise/ }).click();
  await expect(page).toHaveURL(/sort=/);
  await table.evaluate((scroll) => scroll.scrollTo(0, scroll.scrollHeight));
  await expect(table.locator('tr[aria-rowindex="5001"]')).toBeVisible();
  expect(await table.locator('tbody tr').count()).toBeLessThan(80);
});
