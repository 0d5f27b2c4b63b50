import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { bringTake } from './heardTakes.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-long-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

test('long clips on a device with little memory: heard anywhere at once, of which it holds what comes next', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await bringTake(marvet.address, folder, trialId, 1, 18);
  const ids = (await ask<{ id: string }[]>(marvet.address, 'GET', `/trials/${trialId}/recordings`)).map(({ id }) => id);
  await page.addInitScript(() => Object.defineProperty(navigator, 'deviceMemory', { value: 0.25 }));
  const asked: number[] = [];
  page.on('request', (request) => {
    const piece = /\/pieces\/(\d+)/.exec(request.url())?.[1];
    if (piece) asked.push(Number(piece));
  });
  await page.goto(`${marvet.address}/trials/${trialId}/listen?takes=${ids.join(',')}`);
  const position = page.getByLabel('Position in seconds');
  await expect(position).toBeEnabled();
  const lengthS = Number(await position.getAttribute('max'));
  const pieces = Math.ceil(lengthS / 2);
  expect(pieces).toBeGreaterThanOrEqual(60);
  // Two clips in mono take 0.77 MB a piece: of 16 MiB twenty-one.
  await expect.poll(() => asked.length).toBe(21);
  // Near the end it is heard as soon as its piece is there, goes on, and is the same place in the other clip.
  await page.getByRole('button', { name: 'Play' }).click();
  await position.fill(String(lengthS - 20));
  const now = async () => Number(await position.inputValue());
  await expect.poll(now).toBeGreaterThan(lengthS - 19);
  await page.keyboard.press('b');
  await expect(page.getByRole('button', { name: /^B/ })).toHaveAttribute('aria-pressed', 'true');
  expect(await now()).toBeGreaterThan(lengthS - 19);
  await expect.poll(() => Math.max(...asked)).toBe(pieces - 1);
  // A loop in the middle: round and round without fetching anything again.
  await position.fill(String(lengthS / 2));
  await expect.poll(now).toBeGreaterThan(lengthS / 2 + 0.3);
  await page.keyboard.press('[');
  await expect.poll(now).toBeGreaterThan(lengthS / 2 + 1.5);
  await page.keyboard.press(']');
  await expect.poll(now).toBeLessThan(lengthS / 2 + 1.4);
  const round = async () => {
    const from = await now();
    await expect.poll(now).not.toBe(from);
    return from;
  };
  await expect.poll(() => new Set(asked).size).toBeGreaterThan(22);
  const atLoop = asked.length;
  for (let times = 0; times < 20; times++) await round();
  // What was not there for the loop may still come in, no more than there is room for.
  expect(asked.length - atLoop).toBeLessThanOrEqual(21);
  await expect(page.getByText('fetching …')).toHaveCount(0);
  // A reel holds its clips as a whole: of these the beginning, and it says so.
  await page.getByText('A reel to send to others').click();
  await expect(page.getByText(/^2 parts, .*; of each clip the first 2 min$/)).toBeVisible();
});
