import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import type { AudioFile } from '../core/domain/recording.ts';
import type { Round } from '../core/domain/round.ts';
import { spoken } from '../core/testing/signals.ts';
import { accessible } from './accessible.ts';
import { writeRecorderFiles } from './audio.ts';
import { DOOR_ADDRESS, type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-blind-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

/** A round of two clips of very different level, made through the API. */
async function makeRound() {
  const { trialId, chainIds, criterionId } = await smallTrial(marvet.address);
  const [path] = await writeRecorderFiles(folder, [{ name: 'S001_Cormorant.wav', trackNames: ['QU', 'LO'], channels: [spoken(-20, -60, 1), spoken(-40, -75, 7)] }]);
  await fetch(`${marvet.address}/api/trials/${trialId}/files?name=S001_Cormorant.wav`, { method: 'POST', body: await readFile(path!) });
  const at = `/trials/${trialId}`;
  await expect.poll(async () => (await ask<AudioFile[]>(marvet.address, 'GET', `${at}/files`))[0]?.state).toBe('done');
  const [file] = await ask<AudioFile[]>(marvet.address, 'GET', `${at}/files`);
  const recordings = await ask<{ id: string }[]>(marvet.address, 'GET', `${at}/recordings`);
  const round = await ask<Round>(marvet.address, 'POST', `${at}/rounds`, { title: 'Round 1', recordingIds: recordings.map((each) => each.id), criterionIds: [criterionId] });
  return { trialId, chainIds, file: file!, recordings, round, at };
}

/** Whatever could tell a listener which clip is which. */
const secretsOf = ({ chainIds, file, recordings }: { chainIds: string[]; file: AudioFile; recordings: { id: string }[] }) => [
  ...chainIds,
  ...recordings.map((each) => each.id),
  file.id,
  file.sha256,
  file.sha256.slice(0, 12),
  'Cormorant',
  'Quoinholt',
  'Lodestar',
  '"QU"',
  '"LO"',
];

/** Watches every response that a page gets. */
function watched(page: Page, secrets: readonly string[]): { tellNothing(): Promise<void> } {
  const pieces: string[] = [];
  const leaks: string[] = [];
  const checks: Promise<void>[] = [];
  page.on('response', (response) => {
    checks.push(
      (async () => {
        const { date: _date, ...steady } = await response.allHeaders();
        const body = await response.body().catch(() => Buffer.alloc(0));
        const url = response.url();
        const isSound = url.includes('/pieces/');
        const text = `${url}\n${JSON.stringify(steady)}\n${body.toString(isSound ? 'latin1' : 'utf8')}`;
        for (const secret of secrets) if (text.includes(secret)) leaks.push(`${secret} in ${url}`);
        if (isSound) pieces.push(url);
      })(),
    );
  });
  return {
    async tellNothing() {
      await Promise.all(checks);
      expect(leaks).toEqual([]);
      // All clips come together, so that nothing of one can be held against another but its sound.
      expect(pieces.length).toBeGreaterThanOrEqual(1);
      expect(new Set(pieces).size).toBe(pieces.length);
      expect(pieces.every((url) => /\/pieces\/\d+$/.test(url))).toBe(true);
      expect(await page.content()).not.toContain('Quoinholt');
    },
  };
}

async function score(page: Page): Promise<void> {
  for (const letter of ['A', 'B'])
    await page
      .getByRole('radiogroup', { name: `Words are clear, clip ${letter}` })
      .getByText('6', { exact: true })
      .click();
  await page.getByLabel('Why, clip A').fill('rounder');
  await page.getByLabel('Why, clip A').blur();
}

test('no response on the listening page tells which clip is which', async ({ page }) => {
  const { chainIds, file, recordings, round, at } = await makeRound();
  const { id } = await ask<{ id: string }>(marvet.address, 'POST', `${at}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' });
  const heard = watched(page, secretsOf({ chainIds, file, recordings }));
  await page.goto(`${marvet.address}/listen/${id}`);
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled();
  await score(page);
  await expect(page.getByRole('button', { name: 'Finish' })).toBeEnabled();
  await heard.tellNothing();
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('row', { name: /rounder/ })).toContainText('6');
});

test('switching keeps the place, and the loop comes round', async ({ page }) => {
  const { round, at } = await makeRound();
  const { id } = await ask<{ id: string }>(marvet.address, 'POST', `${at}/rounds/${round.id}/listeners`, { name: 'Tam', listenedOn: 'loudspeakers' });
  await page.goto(`${marvet.address}/listen/${id}`);
  const position = page.getByLabel('Position in seconds');
  const seconds = async () => Number(await position.inputValue());
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled();
  expect(Number(await page.getByLabel('Listening level in dB').inputValue())).toBe(-20);
  await page.keyboard.press('Space');
  await expect.poll(seconds).toBeGreaterThan(0.8);
  const before = await seconds();
  await page.keyboard.press('b');
  await expect(page.getByRole('button', { name: /^B/ })).toHaveAttribute('aria-pressed', 'true');
  const after = await seconds();
  expect(after).toBeGreaterThanOrEqual(before);
  expect(after - before).toBeLessThan(1.5);
  await page.getByRole('button', { name: 'Ends here' }).click();
  await expect.poll(seconds).toBeLessThan(0.6);
  await page.keyboard.press('a');
  await expect(page.getByRole('button', { name: /^A/ })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
});

test('a listener hears and scores on a phone of their own, let in by a code, and learns no more there', async ({ page, browser }) => {
  const { chainIds, file, recordings, round, at } = await makeRound();
  await ask(marvet.address, 'POST', `${at}/rounds/${round.id}/listeners`, { name: 'Wren', listenedOn: 'own headphones' });
  await page.goto(`${marvet.address}${at}/listen`);
  await page.getByRole('button', { name: 'Wren: on a device of their own' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Address of this computer').selectOption(DOOR_ADDRESS);
  await dialog.getByRole('button', { name: 'Open the door' }).click();
  await dialog.getByRole('button', { name: 'Give a code for Wren' }).click();
  await expect(dialog.getByText('To listen blind.')).toBeVisible();
  await accessible(page);
  const { code } = await ask<{ code: { code: string; url: string } }>(marvet.address, 'GET', '/door');

  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, ignoreHTTPSErrors: true });
  const phone = await context.newPage();
  const heard = watched(phone, secretsOf({ chainIds, file, recordings }));
  await phone.goto(`${code.url}#${code.code}`);
  await phone.getByLabel('What this device is called').fill('Wren');
  await phone.getByRole('button', { name: 'Come in' }).click();
  await expect(phone.getByRole('heading', { name: 'Blind listening' })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Play' })).toBeEnabled();
  await phone.getByRole('button', { name: 'Play' }).click();
  await expect.poll(async () => Number(await phone.getByLabel('Position in seconds').inputValue())).toBeGreaterThan(0.3);
  await score(phone);
  await expect(phone.getByRole('button', { name: 'Finish' })).toBeEnabled();
  await heard.tellNothing();
  await phone.getByRole('button', { name: 'Finish' }).click();
  await expect(phone.getByText('Thank you.')).toBeVisible();
  // Nothing else opens from there.
  await phone.goto(new URL(`${at}/verdict`, code.url).href);
  await expect(phone.getByText('Thank you.')).toBeVisible();
  await context.close();
  await page.reload();
  await expect(page.getByRole('row', { name: /rounder/ })).toContainText('6');
  await ask(marvet.address, 'POST', '/door/close');
});
