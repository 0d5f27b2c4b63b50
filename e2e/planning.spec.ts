import { expect, type Page, test } from '@playwright/test';
import type { Plan } from '../core/domain/plan.ts';
import type { Take } from '../core/domain/take.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const region = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const takes = (page: Page) => region(page, 'What it comes to').locator('.figure').nth(1).locator('b');
const planOf = (trialId: string) => ask<Plan>(marvet.address, 'GET', `/trials/${trialId}/plan`);
async function openPlan(page: Page, part = ''): Promise<string> {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/plan${part && `?part=${part}`}`);
  await expect(takes(page)).toHaveText('4');
  return trialId;
}

test('placements are recorded at one moment, in one take with a setup for each, and one after the other again', async ({ page }) => {
  const trialId = await openPlan(page);
  await page.getByLabel('Vary something else').selectOption('placement');
  await expect(takes(page)).toHaveText('8');
  await page.getByText('Design and fairness').click();
  const together = region(page, 'Recorded together');
  await together.getByLabel('placement: breastbone, collar in one take').check();
  await expect(takes(page)).toHaveText('4');
  await expect(together).toContainText('4 tracks at most');
  await page.getByText('Order', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'Takes in their order' }).getByRole('listitem').first()).toContainText(/breastbone.*collar/s);
  await page.getByRole('button', { name: /Update slates/ }).click();
  await expect(page.getByRole('button', { name: 'Slates are up to date' })).toBeVisible();
  const made = (await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`)).filter((take) => take.binnedAtMs === null);
  expect(made).toHaveLength(4);
  for (const take of made) expect(take.setups.map((setup) => setup.levels.placement).sort()).toEqual(['breastbone', 'breastbone', 'collar', 'collar']);
  await page.getByText('Design and fairness').click();
  await together.getByLabel('placement: breastbone, collar in one take').uncheck();
  await expect(takes(page)).toHaveText('8');
});

test('a placement of Kit is a level of the plan: its numbers are said, and its new name follows into plan and slates', async ({ page }) => {
  const trialId = await openPlan(page);
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=places`);
  await page.getByRole('button', { name: 'Placement', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('Under the brim');
  await dialog.getByLabel('From the mouth (m)').fill('0.18');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('0.18 m from the mouth')).toBeVisible();
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Plan' }).click();
  await page.getByLabel('Vary something else').selectOption('placement');
  await page.getByLabel('Vary a placement of Kit').selectOption('Under the brim');
  await expect(page.getByRole('checkbox', { name: 'Under the brim' })).toBeChecked();
  await expect(takes(page)).toHaveText('12');
  await expect(region(page, 'What is varied')).toContainText('Under the brim: on body, 0.18 m from the mouth');
  await expect(page.getByLabel('Vary a placement of Kit')).toHaveCount(0);
  await page.getByRole('button', { name: /Update slates/ }).click();
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Kit' }).click();
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=places`);
  await page.getByRole('button', { name: 'Change Under the brim' }).click();
  await dialog.getByLabel('Name', { exact: true }).fill('In the hairline');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Plan' }).click();
  await expect(page.getByRole('checkbox', { name: 'In the hairline' })).toBeChecked();
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Field' }).click();
  await expect(region(page, 'Slates')).toContainText('In the hairline');
});

test('candidates that disturb each other get takes of their own, and share them again', async ({ page }) => {
  await openPlan(page, 'design');
  const together = region(page, 'Recorded together');
  await expect(together).toContainText('All share words and moment.');
  await page.getByLabel('Candidate that disturbs').selectOption('Quoinholt');
  await page.getByLabel('Candidate that is disturbed').selectOption('Lodestar');
  await expect(together).toContainText('8 takes instead of 8');
  await expect(together).toContainText('Only across takes, so with other words spoken: Quoinholt and Lodestar.');
  await expect(together.getByRole('group')).toHaveCount(2);
  await page.getByRole('button', { name: 'Let Quoinholt and Lodestar share a take' }).click();
  await expect(takes(page)).toHaveText('4');
  await page.getByLabel('Tracks of the recorder').fill('1');
  await page.getByLabel('Tracks of the recorder').blur();
  await expect(takes(page)).toHaveText('8');
});

test('designs: effects that are kept, a ladder, repeats; each says what it costs before it is chosen', async ({ page }) => {
  const trialId = await openPlan(page);
  for (const kind of ['orientation', 'effort', 'noise']) await page.getByLabel('Vary something else').selectOption(kind);
  await expect(page.getByRole('checkbox', { name: '180°' })).toBeChecked();
  await page.getByText('Design and fairness').click();
  await expect(takes(page)).toHaveText('72');
  const count = (name: RegExp) => page.locator('.design', { hasText: name }).locator('.mono');
  await expect(count(/Full matrix/)).toHaveText('72');

  // Mean, distance 1, orientation 2, effort 1, noise 2, script 1: eight columns and two to spare.
  await expect(count(/Effects kept/)).toHaveText('10');
  await page.getByRole('radio', { name: /^Effects kept/ }).check();
  await expect(takes(page)).toHaveText('10');
  await page.getByLabel('Two factors that work on each other').selectOption({ label: 'distance with orientation' });
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  // Two columns more.
  await expect(takes(page)).toHaveText('12');
  await page.getByRole('button', { name: 'No longer keep distance with orientation' }).click();
  await expect(takes(page)).toHaveText('10');

  await page.getByRole('radio', { name: /^Ladder/ }).check();
  await expect(takes(page)).toHaveText('6');
  await page.getByLabel('Rungs').selectOption('orientation');
  await page.getByLabel('Base distance').selectOption('10 m');
  await expect(takes(page)).toHaveText('6');
  await page.getByLabel('Each setup is done').fill('3');
  await page.getByLabel('Each setup is done').blur();
  await expect(takes(page)).toHaveText('18');
  await page.getByRole('button', { name: /^Update slates/ }).click();
  await expect(page.getByRole('button', { name: 'Slates are up to date' })).toBeVisible();
  const made = await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);
  expect(made).toHaveLength(18);
  expect(made.every((take) => take.condition.distance === '10')).toBe(true);
  expect(new Set(made.map((take) => `${take.condition.orientation} ${take.condition.script}`)).size).toBe(6);
});

test('a time in one direction, blocks of daylight, and an order that is told with its bound', async ({ page }) => {
  const trialId = await openPlan(page);
  await page.getByRole('button', { name: 'Station', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('cellar');
  await dialog.getByLabel('Latitude').fill('954');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('Latitude is -90 to 90 degrees')).toBeVisible();
  await dialog.getByLabel('Latitude').fill('54,5');
  await dialog.getByLabel('Longitude').fill('9');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(takes(page)).toHaveText('8');
  await page.getByText('Order', { exact: true }).click();
  const sums = region(page, 'What it comes to');
  // From one station to the other, two distances at each, and scripts between: 900 + 2 * 60 + 4 * 15 s.
  await expect(sums).toContainText('18 min of it are changes between takes: no order has less.');
  const times = region(page, 'Time to change, s');
  await times.getByLabel('Factor').selectOption('station');
  await times.getByLabel('From').selectOption('jetty');
  await times.getByLabel('To', { exact: true }).selectOption('cellar');
  await times.getByLabel('Seconds').fill('60');
  await times.getByRole('button', { name: 'Time', exact: true }).click();
  await expect(times).toContainText('station: jetty to cellar 60 s');
  await expect(sums).toContainText('4 min of it are changes between takes: no order has less.');
  await expect(region(page, 'Takes in their order').getByRole('listitem').first()).toContainText('jetty');
  await times.getByRole('button', { name: 'Remove the time from jetty to cellar' }).click();
  await expect(sums).toContainText('18 min of it');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(times).toContainText('station: jetty to cellar 60 s');
  await times.getByRole('button', { name: 'Remove the time from jetty to cellar' }).click();

  const plan = await planOf(trialId);
  const cellar = plan.factors.find((factor) => factor.kind === 'station')?.levels.find((level) => level.label === 'cellar');
  await page.goto(`${marvet.address}/trials/${trialId}/plan`);
  await page.getByRole('button', { name: 'Change cellar' }).click();
  await dialog.getByLabel('needs daylight').check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await page.getByText('Order', { exact: true }).click();
  await page.getByLabel(/^stations that need daylight first/).check();
  await expect(region(page, 'Takes in their order').getByRole('listitem').first()).toContainText('cellar');
  await page.getByRole('button', { name: /^Update slates/ }).click();
  await expect(page.getByRole('button', { name: 'Slates are up to date' })).toBeVisible();
  const made = await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);
  expect(made.slice(0, 4).every((take) => take.condition.station === cellar?.id)).toBe(true);
});

test('what was varied is taken out and brought back; a rule as well', async ({ page }) => {
  const trialId = await openPlan(page);
  await page.getByLabel('Vary something else').selectOption('speed');
  await page.getByLabel('New speed').fill('12');
  await page.getByRole('button', { name: 'Add speed' }).click();
  await expect(page.getByRole('checkbox', { name: '12 km/h' })).toBeChecked();
  await expect(takes(page)).toHaveText('12');
  await page.getByRole('button', { name: 'Vary Speed no longer' }).click();
  await expect(takes(page)).toHaveText('4');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(takes(page)).toHaveText('12');

  await page.getByRole('combobox', { name: 'What cannot occur' }).selectOption({ label: '12 km/h' });
  await page.getByRole('combobox', { name: 'Where it cannot occur' }).selectOption({ label: '1 m' });
  await page.getByRole('combobox', { name: 'Where it cannot occur' }).selectOption({ label: '40 m' });
  await page.getByRole('button', { name: 'Rule', exact: true }).click();
  await expect(page.getByText('No 12 km/h at 1 m or 40 m')).toBeVisible();
  await expect(takes(page)).toHaveText('10');
  await page.getByRole('button', { name: 'Remove the rule on 12 km/h' }).click();
  await expect(takes(page)).toHaveText('12');
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(takes(page)).toHaveText('10');
  await page.getByRole('button', { name: 'Remove 40 m' }).click();
  await expect(page.getByRole('checkbox', { name: '40 m' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByRole('checkbox', { name: '40 m' })).toBeVisible();
  await page.getByLabel('Add a script card').selectOption('Whisper');
  await expect(page.getByRole('checkbox', { name: 'Whisper' })).toBeChecked();
  expect((await planOf(trialId)).rules).toHaveLength(1);
});

test('a plan changed after takes exist keeps what was recorded and says what becomes of the rest', async ({ page }) => {
  const trialId = await openPlan(page);
  const made = await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);
  const line = (kind: string, atMs: number) => ({ id: crypto.randomUUID(), takeId: made[0]!.id, atMs, kind, ...(kind === 'start' ? { controls: [] } : {}) });
  await ask(marvet.address, 'POST', `/trials/${trialId}/log`, { lines: [line('start', 1000), line('stop', 9000)] });
  await page.reload();
  const distance = await planOf(trialId).then(
    (plan) => plan.factors.find((factor) => factor.kind === 'distance')!.levels.find((level) => level.id === made[0]!.condition.distance)!,
  );
  await page.getByRole('checkbox', { name: distance.label, exact: true }).uncheck();
  await expect(region(page, 'What it comes to')).toContainText(
    'What was recorded, skipped or noted keeps its slate and its audio; 1 planned slate goes, 0 new ones get the next numbers.',
  );
  await page.getByRole('button', { name: 'Update slates: 0 new, 1 dropped' }).click();
  await expect(page.getByText('3 takes with slates. 3 kept. 1 planned ones dropped.')).toBeVisible();
  const after = await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);
  expect(after.find((take) => take.id === made[0]!.id)).toMatchObject({ slate: made[0]!.slate, status: 'done' });
});
