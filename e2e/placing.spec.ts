import { expect, type Page, test } from '@playwright/test';
import type { StoredFrame } from '../core/domain/frame.ts';
import type { Placement } from '../core/domain/placement.ts';
import type { Plan } from '../core/domain/plan.ts';
import type { StoredStation } from '../core/domain/station.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const frames = (trialId: string) => ask<StoredFrame[]>(marvet.address, 'GET', `/trials/${trialId}/frames`);
const row = (page: Page, name: string) => page.getByRole('region', { name: 'The booms side by side' }).getByRole('row', { name: new RegExp(`^${name}`) });

test('a frame is drawn, its boom found just out of the picture, moved by key, and made a level of the plan', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing`);
  await page.getByRole('button', { name: 'Draw a frame' }).click();
  await expect(row(page, 'Out of frame')).toContainText('10 cm');
  await accessible(page);

  // A longer lens: nearer above, and what hung just out of the picture may come down.
  const lens = page.getByLabel('Lens mm');
  await lens.fill('85');
  await lens.press('Tab');
  await expect(row(page, 'Out of frame').getByRole('cell').first()).not.toContainText('10 cm');
  await page.getByRole('button', { name: 'Bring from above just out of frame' }).click();
  await expect(row(page, 'Out of frame').getByRole('cell').first()).toContainText('10 cm');
  const metres = async () => Number((await row(page, 'From the mouth').getByRole('cell').first().textContent())?.split(' ')[0]);
  const before = await metres();

  // By keyboard alone: ten centimetres up.
  const microphone = page.getByRole('button', { name: /^Microphone from above, [\d.]+ m from the mouth/ });
  const heightM = async () => (await frames(trialId))[0]!.booms[0]!.heightM;
  /** As the server has it; the page shows what was done before that. */
  const keptM = async () => {
    const [{ booms, talkers }] = (await frames(trialId)) as [StoredFrame];
    return Math.hypot(booms[0]!.awayM - talkers[0]!.awayM, booms[0]!.heightM - talkers[0]!.mouthHeightM);
  };
  await expect.poll(async () => Math.abs((await keptM()) - before)).toBeLessThan(0.006);
  const low = await heightM();
  await microphone.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(metres).toBeGreaterThan(before + 0.04);
  await expect.poll(heightM).toBeCloseTo(low + 0.1, 2);
  const laid = await keptM();
  await page.reload();
  await expect.poll(metres).toBeCloseTo(laid, 1);

  // With the pointer, into the picture: it is told, and seen.
  const from = (await page.getByRole('button', { name: /^Microphone from above, [\d.]+ m from the mouth/ }).boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2 + 60, { steps: 4 });
  await expect(row(page, 'Out of frame').getByRole('cell').first()).toContainText('in the picture');
  await page.mouse.up();
  await page.getByRole('button', { name: 'Bring from above just out of frame' }).click();

  await page.getByRole('button', { name: 'Make from above a level of the plan' }).click();
  await page.getByRole('button', { name: 'its placement' }).click();
  await expect(page.getByText('Frame 1, from above is a level of the plan')).toBeVisible();
  const [placement] = await ask<Placement[]>(marvet.address, 'GET', `/trials/${trialId}/placements`);
  expect(placement).toMatchObject({ name: 'Frame 1, from above', on: 'boom' });
  expect(placement?.distanceM).toBeCloseTo(await metres(), 2);
  const plan = await ask<Plan>(marvet.address, 'GET', `/trials/${trialId}/plan`);
  expect(plan.factors.find((factor) => factor.kind === 'placement')?.levels.map(({ id }) => id)).toContain(placement?.id);
});

test('what was taken away comes back, the frame too; where there is no place it is said', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing`);
  await page.getByRole('button', { name: 'Draw a frame' }).click();
  await page.getByRole('button', { name: 'Take from above away' }).click();
  await expect(page.getByRole('columnheader', { name: 'from above' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('columnheader', { name: 'from above' })).toBeVisible();

  const lens = page.getByLabel('Lens mm');
  await lens.fill('8');
  await lens.press('Tab');
  await page.getByRole('button', { name: 'from below', exact: true }).click();
  await expect(page.getByText('From below there is no place out of this frame')).toBeVisible();

  await page.getByRole('button', { name: 'Delete Frame 1' }).click();
  await expect(page.getByRole('button', { name: 'Draw a frame' })).toBeVisible();
  await page.getByText('Frame 1 is in the bin').locator('..').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('region', { name: 'From the side, to scale' })).toBeVisible();
});

test('a number that no frame can have is refused beside its box, and the frame stays as it was', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing`);
  await page.getByRole('button', { name: 'Draw a frame' }).click();
  const tilt = page.getByLabel('Tilt °');
  await tilt.fill('120');
  await tilt.press('Tab');
  await expect(page.getByText('-80 to 80. Still 0')).toBeVisible();
  expect((await frames(trialId))[0]?.camera.tiltDeg).toBe(0);
});

test('a frame is heard before anyone goes out: rendered, switched, and marked as simulated', async ({ page }) => {
  test.slow();
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing`);
  await page.getByRole('button', { name: 'Draw a frame' }).click();
  const hear = page.getByRole('region', { name: 'Hear it, simulated' });
  await hear.getByRole('button', { name: 'Hear it' }).click();
  const booms = hear.getByRole('group', { name: 'Simulated microphones' });
  await expect(booms.getByRole('button', { name: /^from above/ })).toBeVisible({ timeout: 60_000 });
  await booms.getByRole('button', { name: 'Play' }).click();
  await expect(booms.getByRole('button', { name: 'Pause' })).toBeVisible();
  await booms.getByRole('button', { name: /^from below/ }).click();
  await expect(booms.getByRole('button', { name: /^from below/ })).toHaveAttribute('aria-pressed', 'true');
  await accessible(page);

  // What is heard is told to be old once the frame is another.
  const lens = page.getByLabel('Lens mm');
  await expect(hear.getByText('The frame has changed since')).toBeHidden();
  await page.getByRole('button', { name: 'Take from below away' }).click();
  await expect(hear.getByText('The frame has changed since')).toBeVisible();
  await lens.fill('60');
  await lens.press('Tab');
  await hear.getByRole('button', { name: 'Render again' }).click();
  await expect(hear.getByText('The frame has changed since')).toBeHidden({ timeout: 60_000 });
});

test('rendering can be cancelled', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  // The words are held back, so that it cannot be done before it is cancelled.
  await page.route('**/*.wav', async (route) => {
    await new Promise((resolve) => page.once('close', resolve));
    await route.abort().catch(() => undefined);
  });
  await page.goto(`${marvet.address}/trials/${trialId}/placing`);
  await page.getByRole('button', { name: 'Draw a frame' }).click();
  const hear = page.getByRole('region', { name: 'Hear it, simulated' });
  await hear.getByRole('button', { name: 'Hear it' }).click();
  await hear.getByRole('button', { name: 'Cancel' }).click();
  await expect(hear.getByRole('button', { name: 'Hear it' })).toBeVisible();
});

test('a room is reckoned: drapes shorten its ringing and let the microphone stand farther, and it is kept with the station', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing?part=rooms`);
  await page.getByLabel(/has walls/).check();
  for (const [label, value] of [
    ['Length m', '3'],
    ['Width m', '2.4'],
    ['Height m', '2.2'],
  ] as const) {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Tab');
  }
  await page.getByRole('button', { name: 'Use these surfaces' }).click();
  const at1k = async () => Number(await page.getByRole('table', { name: 'Decay by octave' }).getByRole('row', { name: /^1000/ }).getByRole('cell').nth(2).textContent());
  const near = async () => Number((await page.getByRole('table', { name: 'Critical distance' }).getByRole('row').nth(1).getByRole('cell').nth(2).textContent())?.split(' ')[0]);
  await expect(page.getByText('Small and hard')).toBeVisible();
  const [bare, before] = [await at1k(), await near()];

  await page.getByText(/^Surfaces take up/).click();
  await page.getByLabel('On part of the walls').selectOption('heavy drapes, in folds');
  await page.getByLabel('Part of the walls, %').fill('60');
  await page.getByLabel('Part of the walls, %').press('Tab');
  await page.getByRole('button', { name: 'Use these surfaces' }).click();
  await expect.poll(at1k).toBeLessThan(bare / 2);
  expect(await near()).toBeGreaterThan(1.4 * before);
  await expect(page.getByText('Small and hard')).toBeHidden();
  const kept = async () => (await ask<StoredStation[]>(marvet.address, 'GET', `/trials/${trialId}/stations`))[0]?.acoustics;
  await expect.poll(async () => (await kept())?.absorption?.[3] ?? 0).toBeGreaterThan(0.2);
  expect((await kept())?.sizeM).toEqual([3, 2.4, 2.2]);
});
