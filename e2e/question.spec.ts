import { expect, test } from '@playwright/test';
import type { Criterion } from '../core/domain/criterion.ts';
import type { Trial } from '../core/domain/trial.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

test('a criterion at a condition, its worst value, and how a value will count', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  await page.getByRole('button', { name: 'Criterion', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Voice far out');
  await dialog.getByLabel('Measure', { exact: true }).selectOption({ label: 'Voice over noise (dB)' });
  await dialog.getByLabel('Worst (dB)').fill('10');
  await dialog.getByLabel('Best (dB)').fill('30');
  await dialog.getByLabel('Try a value (dB)').fill('25');
  await expect(dialog.getByText('counts 75 of 100')).toBeVisible();
  await dialog.getByLabel('Rules a candidate out beyond a limit').check();
  await dialog.getByLabel('Limit (dB)').fill('12');
  await dialog.getByLabel('Try a value (dB)').fill('11');
  await expect(dialog.getByText('ruled out')).toBeVisible();
  await dialog.getByLabel('Of all its values counts').selectOption('worst');
  await dialog.getByText('Only at some conditions').click();
  await dialog.getByLabel('10 m').check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /Voice far out/ })).toContainText('measured: Voice over noise, the worst, at 10 m');
  const criteria = await ask<Criterion[]>(marvet.address, 'GET', `/trials/${trialId}/criteria`);
  expect(criteria.at(-1)).toMatchObject({ aggregation: 'worst', where: { distance: ['10'] }, dealbreaker: { side: 'below', limit: 12 } });

  await page.getByRole('button', { name: 'Change Voice far out' }).click();
  await expect(dialog.getByLabel('10 m')).toBeChecked();
  await dialog.getByLabel('10 m').uncheck();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /Voice far out/ })).not.toContainText('at 10 m');
});

test('what is often inspected comes with what the ends mean', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  await page.getByRole('button', { name: 'Criterion', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('inspected').check();
  await dialog.getByRole('button', { name: 'Display in sun' }).click();
  await expect(dialog.getByLabel('Name')).toHaveValue('Display in sun');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /Display in sun/ })).toContainText('0: unreadable. 10: read at arm’s length');
});

test('comparisons that contradict each other are told, with the one to look at again', async ({ page }) => {
  const { trialId, criterionId } = await smallTrial(marvet.address);
  for (const name of ['Build', 'Price']) await ask(marvet.address, 'POST', `/trials/${trialId}/criteria`, { name, kind: 'inspected', weight: 1, best: 10, worst: 0, position: 1 });
  expect(criterionId).toBeTruthy();
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  await page.getByText('Which of two matters more').click();
  await page.getByLabel('Words are clear against Build').selectOption('much more than');
  await page.getByLabel('Words are clear against Price').selectOption('far less than');
  await page.getByLabel('Build against Price').selectOption('much more than');
  await expect(page.getByText(/over 0.1 some contradict each other/)).toBeVisible();
  await page.getByLabel('Words are clear against Price').selectOption('far more than');
  await page.getByLabel('Build against Price').selectOption('a little more than');
  await expect(page.getByText('the comparisons agree with each other')).toBeVisible();
  await page.getByRole('button', { name: 'Take these weights' }).click();
  await expect(page.getByLabel('Weight of Words are clear')).toHaveValue('74');
});

test('each person seals an expectation of their own; nobody reads it before the verdict', async ({ page }) => {
  const { trialId, chainIds } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  for (const [person, candidate] of [
    ['Mixer', 'Quoinholt'],
    ['Director', 'Lodestar'],
  ] as const) {
    await page.getByLabel('Who expects it?').fill(person);
    await page.getByLabel('Who will win?').selectOption(candidate);
    await page.getByLabel('Why').fill('because');
    await page.getByRole('button', { name: 'Seal it' }).click();
    await expect(page.getByText(`${person}: sealed on`)).toBeVisible();
    await expect(page.getByLabel('Who expects it?')).toHaveValue('');
  }
  await expect(page.getByText('because')).toHaveCount(0);
  await ask(marvet.address, 'POST', `/trials/${trialId}/verdict/open`);
  await page.reload();
  await expect(page.getByText('Director: Lodestar. because')).toBeVisible();
  const trial = await ask<Trial>(marvet.address, 'GET', `/trials/${trialId}`);
  expect(trial.expectations.map((each) => each.revealed?.candidateId)).toEqual(chainIds);
});

test('roles and budget are kept, and a role comes back when it was removed by mistake', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  const roles = page.getByRole('region', { name: 'For whom, and for how much' });
  await roles.getByRole('button', { name: 'Role' }).click();
  await roles.getByLabel('Name of role Role 1').fill('Children');
  await roles.getByLabel('Name of role Role 1').blur();
  await roles.getByLabel('How many Children').fill('6');
  await roles.getByLabel('How many Children').blur();
  await roles.getByLabel('How Children treats gear').selectOption('breaks things');
  await roles.getByLabel('Budget').fill('3200,5');
  await roles.getByLabel('Budget').blur();
  await expect(roles).toContainText('for 6 people');
  await roles.getByRole('button', { name: 'Remove Children' }).click();
  await expect(roles).toContainText('for 0 people');
  const rolesOnServer = async () => (await ask<Trial>(marvet.address, 'GET', `/trials/${trialId}`)).roles.length;
  await expect.poll(rolesOnServer).toBe(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(roles).toContainText('for 6 people');
  await expect.poll(rolesOnServer).toBe(1);
  await page.reload();
  await expect(roles.getByLabel('Name of role Children')).toHaveValue('Children');
  const trial = await ask<Trial>(marvet.address, 'GET', `/trials/${trialId}`);
  expect(trial).toMatchObject({ roles: [{ name: 'Children', count: 6, robustness: 'rough' }], budget: { amount: 3200.5, currency: 'EUR' } });
});

test('starting over puts the criteria into the bin, from where they come back', async ({ page }) => {
  const { id } = await ask<{ id: string }>(marvet.address, 'POST', '/trials', { name: 'Fresh' });
  await ask(marvet.address, 'POST', `/trials/${id}/criteria`, { name: 'My own', kind: 'listened', weight: 1, best: 10, worst: 0 });
  await page.goto(`${marvet.address}/trials/${id}/question`);
  await page.getByRole('button', { name: 'Start over' }).click();
  await page.getByRole('radio', { name: 'Camera microphone for one person' }).check();
  await expect(page.getByRole('dialog')).toContainText('The 1 criteria that there are go to the bin');
  await page.getByRole('button', { name: 'Start from this' }).click();
  await expect(page.getByText('5 criteria')).toBeVisible();
  await page.goto(`${marvet.address}/trials/${id}/bin`);
  await page
    .getByRole('row', { name: /My own/ })
    .getByRole('button')
    .click();
  await page.goto(`${marvet.address}/trials/${id}/question`);
  await expect(page.getByRole('row', { name: /My own/ })).toBeVisible();
});
