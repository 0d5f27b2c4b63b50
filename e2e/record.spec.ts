import { expect, type Page, test } from '@playwright/test';
import type { FileRow, RecordingDetail, RecordingRow } from '../core/contract/recordings.ts';
import { pieceFrames } from '../core/domain/capture.ts';
import { newId } from '../core/domain/identity.ts';
import type { Take } from '../core/domain/take.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

/** The browser's own devices: inputs of two channels each, that beep at full scale twice a second. */
const BEEP_EVERY_S = 0.5;
/** A piece that is lost, or comes twice, moves a beep by 0.25 s; a busy machine moves the input's own by less. */
const HOLE_S = 0.2;

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const inputs = (page: Page) => page.getByRole('group', { name: 'Inputs of this computer' }).getByRole('checkbox');

test('a take of four channels from two inputs, recorded as it runs, told while it runs, measured and in its place as it stops', async ({ browser }) => {
  const { trialId, chainIds } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  for (const [index, letters] of ['HE', 'BO'].entries())
    chainIds.push((await ask<{ id: string }>(marvet.address, 'POST', `${at}/chains`, { name: letters, tape: { kind: 2 + index, letters }, position: 2 + index })).id);
  await ask(marvet.address, 'POST', `${at}/plan/commit`);
  const context = await browser.newContext({ permissions: ['microphone'] });
  const page = await context.newPage();
  await page.goto(`${marvet.address}${at}/field?view=record`);
  await expect(page.getByRole('button', { name: 'Look for inputs' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Look for inputs' }).click();
  await expect(inputs(page)).toHaveCount(2);
  await inputs(page).nth(1).check();
  await page.getByRole('button', { name: 'Listen to them' }).click();
  await expect(page.getByText('No processing was asked for, and the browser says that none is on.')).toBeVisible();
  await expect(page.getByText(/2 channels, 44,100 Hz, 16 bit/)).toHaveCount(1);
  await expect(page.getByText('Inputs with clocks of their own drift apart')).toBeVisible();
  await expect(page.getByRole('meter')).toHaveCount(4);
  // The beep is at full scale: the light stays on until it is put out.
  await expect(page.getByRole('cell', { name: 'clipped' })).toHaveCount(4);
  await accessible(page);

  await page.getByLabel('Record every take as it is started and stopped').check();
  await page.getByRole('button', { name: /^Start take/ }).click();
  await expect(page.getByText('Recording 4 channels')).toBeVisible();
  // Told while it runs, by the measures themselves.
  await expect(page.getByText(/^QU: clipping/)).toBeVisible();
  await page.getByRole('button', { name: 'Runner' }).click();
  // Whoever looks elsewhere meanwhile is told, and led back.
  await page.getByRole('link', { name: 'Kit' }).click();
  await expect(page.getByText('A take is still being recorded.')).toBeVisible();
  await page.getByRole('link', { name: 'Back to it' }).click();
  const strip = page.getByRole('region', { name: 'Recorder' });
  await expect(strip.getByText('Recording 4 channels')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: /^Stop/ }).click();
  const rows = () => ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  // It comes with its figures: from the first moment on it is measured, and waits for nothing.
  const seen: string[] = [];
  await expect
    .poll(
      async () => {
        const states = (await rows()).map(({ state }) => state);
        seen.push(...states);
        return states.length;
      },
      { intervals: [50] },
    )
    .toBe(4);
  expect([...new Set(seen)]).toEqual(['done']);

  const [take] = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  const own = await rows();
  expect(own.map(({ trackName }) => trackName).sort()).toEqual(['BO', 'HE', 'LO', 'QU']);
  expect(own.every(({ takeId }) => takeId === take!.id)).toBe(true);
  expect(new Set(own.map(({ setupId }) => setupId)).size).toBe(4);
  const [file] = await ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  expect(file).toMatchObject({ matchedBy: 'recorded here', format: { channels: 4, bitDepth: 24, sampleRateHz: 44_100, scene: String(take!.slate), take: '1' } });
  expect(file!.name).toContain(`_S${String(take!.slate).padStart(3, '0')}_T01.wav`);
  // As long as it ran, and nothing left out in the middle: the beeps come at their time.
  const ranS = (take!.stoppedAtMs! - take!.startedAtMs!) / 1000;
  expect(Math.abs(file!.format.durationS - ranS)).toBeLessThan(0.6);
  const detail = await ask<RecordingDetail>(marvet.address, 'GET', `${at}/recordings/${own[0]!.id}`);
  const beeps = detail.report!.events.filter(({ kind }) => kind === 'clip').map(({ startS }) => startS);
  expect(beeps.length).toBeGreaterThan(4);
  for (const [index, startS] of beeps.slice(1).entries()) expect(Math.abs(startS - (beeps[index] as number) - BEEP_EVERY_S)).toBeLessThan(HOLE_S);
  // It is in the table of takes as any file is.
  await page.goto(`${marvet.address}${at}/takes?view=files`);
  await expect(page.getByRole('cell', { name: 'recorded here' })).toBeVisible();
  await context.close();
});

test('a start that was an accident sends its sound to the bin, from where it comes back', async ({ browser }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const context = await browser.newContext({ permissions: ['microphone'] });
  const page = await context.newPage();
  await page.goto(`${marvet.address}${at}/field?view=record`);
  await page.getByRole('button', { name: 'Look for inputs' }).click();
  await page.getByRole('button', { name: 'Listen to it' }).click();
  await page.getByLabel('Record every take as it is started and stopped').check();
  await page.getByRole('button', { name: 'Runner' }).click();
  await page.getByRole('button', { name: /^Start take/ }).click();
  await expect(page.getByText('Recording 2 channels')).toBeVisible();
  await page.getByRole('button', { name: /^Not started/ }).click();
  await expect(page.getByText('Recording 2 channels')).toHaveCount(0);
  const bin = () => ask<{ kind: string; name: string }[]>(marvet.address, 'GET', `${at}/bin`);
  await expect.poll(async () => (await bin()).filter(({ kind }) => kind === 'file').length).toBe(1);
  expect(await ask<FileRow[]>(marvet.address, 'GET', `${at}/files`)).toEqual([]);
  await page.goto(`${marvet.address}${at}/bin`);
  await page
    .getByRole('button', { name: /Bring back/ })
    .first()
    .click();
  await expect.poll(async () => (await ask<FileRow[]>(marvet.address, 'GET', `${at}/files`)).length).toBe(1);
  await context.close();
});

test('a recording that a page left behind is told to the next one, and is closed there with all that came', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const [take] = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  // A page whose browser is gone for good: what it had not sent is lost, what came is there.
  const draft = { id: newId(), takeId: take!.id, sampleRateHz: 48_000, startedAtMs: Date.now(), channels: [{ name: 'QU', setupId: take!.setups[0]!.id }] };
  await ask(marvet.address, 'POST', `${at}/captures`, draft);
  const piece = new Uint8Array(pieceFrames(draft.sampleRateHz) * 3).map((_, index) => (index * 37) % 256);
  for (const number of [0, 1, 2, 3]) await fetch(`${marvet.address}/api${at}/captures/${draft.id}/pieces/${number}`, { method: 'PUT', body: piece });
  await page.goto(`${marvet.address}${at}/field?view=record`);
  await expect(page.getByText(/Take 01, 1 s of it, is recorded by another page/)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Close it now' }).click();
  await expect(page.getByText(/is recorded by another page/)).toHaveCount(0);
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  await expect.poll(async () => (await files())[0]?.state).toBe('done');
  expect((await files())[0]).toMatchObject({ takeId: take!.id, format: { frames: 4 * pieceFrames(draft.sampleRateHz) } });
});

test('a browser that may not listen says so, and what to do', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=record`);
  await page.getByRole('button', { name: 'Look for inputs' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Allow the microphone for this page' })).toBeVisible();
});
