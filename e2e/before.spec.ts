import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import type { Item } from '../core/domain/item.ts';
import type { Plan } from '../core/domain/plan.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const part = (page: Page, name: string) =>
  page
    .getByLabel(/^Parts of the/)
    .getByText(name)
    .click();
const workedOut = (page: Page) => page.getByText('Working it out').waitFor({ state: 'detached' });

test('from a starting point to a printed run sheet', async ({ page }) => {
  test.slow();
  await page.goto(marvet.address);
  await page.getByLabel('What is to be decided?').fill('Which lavalier hides under wool?');
  await page.getByRole('button', { name: 'New trial' }).click();

  await test.step('Question: a starting point says why, and everything can be changed', async () => {
    await page.getByRole('button', { name: 'Start from a common question' }).click();
    await page.getByRole('radio', { name: 'Hide a lavalier' }).check();
    await expect(page.getByRole('dialog')).toContainText('height on the chest change the sound more than the model does');
    await page.getByRole('button', { name: 'Start from this' }).click();
    await expect(page.getByText('6 criteria')).toBeVisible();
    await expect(page.getByRole('row', { name: /Practical noise floor/ })).toContainText('the worst');
  });

  await test.step('Question: weights two by two', async () => {
    await page.getByText('Which of two matters more').click();
    await page.getByLabel('Sounds like the person against Cloth is not heard').selectOption('far more than');
    await expect(page.getByText('1 of 15 compared')).toBeVisible();
    // While nothing connects the others no weights follow, and it is said what is apart.
    await expect(page.getByText('No weights follow yet: nothing connects')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Take these weights' })).toBeDisabled();
    for (const other of ['Rustle of cloth', 'Practical noise floor', 'Intelligibility index', 'Cannot be seen']) {
      await page.getByLabel(`Sounds like the person against ${other}`).selectOption('clearly more than');
    }
    await expect(page.getByText('10 pairs are open; what was compared is worked with as it is.')).toBeVisible();
    await page.getByRole('button', { name: 'Take these weights' }).click();
    await expect(page.getByText('The weights are those of the comparisons')).toBeVisible();
    const weight = async (name: string) => Number(await page.getByLabel(`Weight of ${name}`).inputValue());
    expect(await weight('Sounds like the person')).toBeGreaterThan(await weight('Cloth is not heard'));
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await expect(page.getByLabel('Weight of Sounds like the person')).toHaveValue('30');
  });

  await test.step('Question: who works with it, for how much', async () => {
    await page.getByRole('button', { name: 'Role', exact: true }).click();
    await page.getByLabel('How many Role 1').fill('3');
    await page.getByLabel('How many Role 1').blur();
    await page.getByLabel('Budget').fill('2500');
    await page.getByLabel('Budget').blur();
    await expect(page.getByText('for 3 people')).toBeVisible();
  });

  const trialId = page.url().match(/trials\/([^/]+)/)?.[1] as string;
  for (const [kind, name, letters] of [
    [0, 'Osier', 'OS'],
    [1, 'Heron', 'HE'],
  ] as const) {
    await ask(marvet.address, 'POST', `/trials/${trialId}/chains`, { name, tape: { kind, letters }, position: kind });
  }
  for (const [name, indoors] of [
    ['loft', true],
    ['quay', false],
  ] as const) {
    await ask(marvet.address, 'POST', `/trials/${trialId}/stations`, { name, indoors, needsDaylight: !indoors, latitudeDeg: 54.53, longitudeDeg: 9.02, position: indoors ? 0 : 1 });
  }
  await page.goto(`${marvet.address}/trials/${trialId}/plan`);

  await test.step('Plan: one more factor, a rule, and the cells that cannot occur', async () => {
    await page.getByRole('checkbox', { name: 'foam' }).check();
    await page.getByLabel('Vary something else').selectOption('effort');
    await expect(page.getByRole('checkbox', { name: 'raised' })).toBeChecked();
    await page.getByRole('combobox', { name: 'What cannot occur' }).selectOption({ label: 'foam' });
    await page.getByRole('combobox', { name: 'Where it cannot occur' }).selectOption({ label: 'loft' });
    await page.getByRole('button', { name: 'Rule', exact: true }).click();
    await expect(page.getByText('No foam at loft')).toBeVisible();
    await expect(page.getByRole('button', { name: /^loft, breastbone, .*foam.*cannot occur$/ }).first()).toBeDisabled();
  });

  await test.step('Plan: a design that spares takes, and what it lets one conclude', async () => {
    await part(page, 'Design and fairness');
    await workedOut(page);
    const takes = async () =>
      Number(
        await page
          .getByText(/takes, same words/)
          .locator('..')
          .locator('b')
          .textContent(),
      );
    const full = await takes();
    await page.getByRole('radio', { name: /^One change at a time/ }).check();
    await expect(page.getByRole('region', { name: 'What can be concluded' })).toContainText('It cannot be told whether one matters more');
    await expect.poll(takes).toBeLessThan(full);
    await expect(page.getByRole('region', { name: 'What can be concluded' })).toContainText(/placement does: by fair pairs/);
    await accessible(page);
  });

  await test.step('Plan: candidates apart, at different hours, and the remedy', async () => {
    await page.getByLabel('Candidates are recorded together, in one take').uncheck();
    await part(page, 'Order');
    await page.getByLabel('candidate', { exact: true }).fill('3600');
    await page.getByLabel('candidate', { exact: true }).blur();
    await part(page, 'Design and fairness');
    const fairness = page.getByRole('region', { name: 'Fairness before the fact' });
    await expect(fairness).toContainText('on average: wind, traffic and light may judge instead of the gear.');
    await fairness.getByRole('button', { name: 'Record candidates together' }).click();
    await expect(fairness).toContainText('Nothing that is varied always changes together');
  });

  await test.step('Plan: a take is locked to its place and stays there', async () => {
    await part(page, 'Order');
    const rows = page.getByRole('region', { name: 'Takes in their order' }).getByRole('listitem');
    await expect(rows.nth(2)).toBeVisible();
    const last = await rows
      .last()
      .locator('.grow')
      .evaluate((row) => row.firstChild?.textContent ?? '');
    const count = await rows.count();
    for (let place = count; place > 1; place--) {
      await page.getByRole('button', { name: `Take ${place} earlier` }).press('Enter');
      await expect(page.getByRole('button', { name: `Lock take ${place - 1} in its place` })).toHaveAttribute('aria-pressed', 'true');
      await workedOut(page);
    }
    await expect(rows.first()).toContainText(last);
    await accessible(page);
  });

  await test.step('Plan: the day ends in time, in the light, or says what to drop', async () => {
    await part(page, 'The day');
    await page.getByLabel('Start', { exact: true }).fill('2026-12-21T14:00');
    await expect(page.getByRole('region', { name: 'How it ends' })).toContainText('21 December 2026: from 14:00 to');
    await page.getByLabel('Over by').fill('2026-12-21T14:20');
    await expect(page.getByRole('region', { name: 'How it ends' })).toContainText(/\d+ min late/);
    await expect(page.getByRole('region', { name: 'If it gets late, drop in this order' }).getByRole('listitem').first()).toContainText('saves');
    await expect(page.getByRole('region', { name: 'Light' })).toContainText(/quay\s*sun from \d\d:\d\d to \d\d:\d\d, needs daylight/);
    await page.getByRole('button', { name: 'Add a break' }).click();
    await expect(page.getByLabel('Break 1 from')).toHaveValue('2026-12-21T16:00');
    await accessible(page);
  });

  await test.step('slates, run sheet on paper, calendar', async () => {
    await workedOut(page);
    await page.getByRole('button', { name: 'Make slates' }).click();
    await expect(page.getByRole('button', { name: 'Slates are up to date' })).toBeVisible();
    const calendar = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Calendar' }).click();
    expect(await readFile(await (await calendar).path(), 'utf8')).toContain('BEGIN:VEVENT');
    await page.getByRole('link', { name: 'Slates', exact: true }).click();
    await expect(page.getByRole('article', { name: 'Slate 01' })).toBeVisible();
    await page.goBack();
    await page.getByRole('link', { name: 'Run sheet' }).click();
    const sheet = page.getByRole('region', { name: 'Run sheet' });
    await expect(sheet).toContainText('21 December 2026');
    await expect(sheet.getByRole('columnheader', { name: 'Placement' })).toBeVisible();
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation', { name: 'Stages' })).toBeHidden();
    const paper = await page.pdf({ format: 'A4' });
    expect(paper.subarray(0, 5).toString()).toBe('%PDF-');
    await page.emulateMedia({ media: null });
  });
});

test('a fault is found in the least number of tests, and a wrong answer can be taken back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const [chain] = await ask<{ id: string; name: string }[]>(marvet.address, 'GET', `/trials/${trialId}/chains`);
  const names = ['Sedge capsule', 'Sedge lead', 'Sedge transmitter', 'Sedge receiver', 'Sedge cable', 'Sedge adapter', 'Sedge recorder'];
  const kinds = ['microphone', 'cable', 'transmitter', 'receiver', 'cable', 'adapter', 'recorder'];
  const links: { itemId: string; settings: object }[] = [];
  for (const [index, name] of names.entries()) {
    const item = await ask<Item>(marvet.address, 'POST', '/items', { kind: kinds[index], name, ...(index === 0 ? { powerNeeds: 'bias' } : {}) });
    links.push({ itemId: item.id, settings: {} });
  }
  await ask(marvet.address, 'PUT', `/trials/${trialId}/chains/${chain!.id}`, { ...chain, tape: { kind: 0, letters: 'QU' }, links });
  await page.goto(`${marvet.address}/trials/${trialId}/plan?part=fault`);
  await page.getByLabel('Chain with the fault').selectOption({ label: chain!.name });
  await page.getByLabel('What is heard').fill('crackle when walking');
  await page.getByLabel('What is heard').blur();

  // Seven links and the feed are eight suspects: three tests, wherever the fault is.
  const guilty = 'Sedge cable';
  await expect(page.getByText('3 are needed at most')).toBeVisible();
  const tests = page.getByRole('region', { name: 'Tests' });
  for (let test_ = 1; test_ <= 3; test_++) {
    await expect(tests.getByText(`Test ${test_};`)).toBeVisible();
    const replaced = (await tests.locator('.fault-next').textContent()) ?? '';
    await page.getByRole('button', { name: replaced.includes(guilty) ? 'It is gone' : 'The fault is still heard' }).click();
  }
  await expect(tests.getByRole('status')).toContainText(`It is ${guilty}.`);
  await accessible(page);

  await page.getByRole('button', { name: 'Take the last answer back' }).click();
  await expect(tests.getByText('Test 3;')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Tests' }).getByText('Test 3;')).toBeVisible();
});

test('a plan of a thousand setups is worked out beside the page, can be stopped, and taken up again', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const plan = await ask<Plan>(marvet.address, 'GET', `/trials/${trialId}/plan`);
  const levels = (count: number) => Array.from({ length: count }, (_, index) => ({ id: `l${index}`, label: `${index + 1}`, value: index + 1, ticked: true }));
  const factors = plan.factors.map((factor) =>
    factor.kind === 'distance' ? { ...factor, levels: levels(50) } : factor.kind === 'windscreen' ? { ...factor, levels: levels(5) } : factor,
  );
  await ask(marvet.address, 'PUT', `/trials/${trialId}/plan`, { ...plan, factors, together: false });
  await page.goto(`${marvet.address}/trials/${trialId}/plan?part=order`);
  // 50 distances, 5 windscreens, 2 scripts and 2 candidates at one station.
  await expect(page.getByText('cells of 1000')).toBeVisible();
  await expect(page.getByText(/no order/)).toBeVisible();

  // Nearly three times as many take long enough to be stopped.
  const more = factors.map((factor) => (factor.kind === 'windscreen' ? { ...factor, levels: levels(14) } : factor));
  const { version } = await ask<Plan>(marvet.address, 'GET', `/trials/${trialId}/plan`);
  await ask(marvet.address, 'PUT', `/trials/${trialId}/plan`, { ...plan, version, factors: more, together: false });
  await page.reload();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('Stopped.')).toBeVisible();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByText('cells of 2800')).toBeVisible();
});

test('pre-flight is ticked in Kit, and what is not ticked is named in Field', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const recorder = await ask<Item>(marvet.address, 'POST', '/items', { kind: 'recorder', name: 'Lade recorder', storageGb: 32, batteryCount: 2, batteryType: 'AA' });
  const [chain] = await ask<{ id: string }[]>(marvet.address, 'GET', `/trials/${trialId}/chains`);
  const settings = { sampleRateHz: 48_000, wordLength: '24 bit', noiseReduction: false };
  await ask(marvet.address, 'PUT', `/trials/${trialId}/chains/${chain!.id}`, { ...chain, links: [{ itemId: recorder.id, settings }] });
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=preflight`);
  await page.getByLabel('Ticked by').fill('Orla');
  const unit = page.getByRole('group', { name: /Lade recorder/ });
  await unit.getByLabel(/48 kHz, 24 bit/).check();
  await expect(unit.getByText(/^Orla, /)).toHaveCount(1);
  await expect(unit.getByLabel(/GB free of 32 GB/)).toBeVisible();
  await accessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await page.getByText('4 checks are open: Lade recorder').click();
  await expect(page.getByText('noise reduction off')).toBeVisible();
  await page.getByRole('link', { name: 'Tick them in Kit' }).click();
  await page.getByRole('button', { name: /Tick all/ }).click();
  await expect(page.getByText('All is checked.')).toBeVisible();
});

test('a list of items is looked at row by row before it comes in, and a photograph is kept', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=library`);
  await page.getByRole('button', { name: 'Bring in' }).click();
  const csv = 'kind,name,price,colour\nmicrophone,Marl capsule,120,grey\nmicrophone,Silt capsule,dear,grey\n';
  await page.getByLabel('A list as CSV or JSON').setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('row', { name: /Marl capsule/ })).toContainText('new');
  await expect(dialog.getByRole('row', { name: /Silt capsule/ })).toContainText('price:');
  await expect(dialog).toContainText('mean nothing here: colour');
  await dialog.getByRole('button', { name: 'Bring in 1' }).click();
  await expect(page.getByText('1 added, 0 replaced')).toBeVisible();

  await page.getByRole('button', { name: 'Change Marl capsule' }).click();
  await dialog.getByLabel('Unit of sensitivity').selectOption('dB re 1 V/Pa');
  await dialog.getByLabel('Sensitivity (dB re 1 V/Pa)').fill('-40');
  await expect(dialog.getByText('10 mV/Pa')).toBeVisible();
  const picture = await page.screenshot();
  await dialog.getByLabel('Add a photograph').setInputFiles({ name: 'capsule.png', mimeType: 'image/png', buffer: picture });
  await expect(dialog.getByRole('img', { name: 'Marl capsule: capsule.png' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Delete the photograph capsule.png' }).click();
  await expect(dialog.getByRole('img', { name: 'Marl capsule: capsule.png' })).toBeHidden();
  await page.locator('.toast', { hasText: 'The photograph is in the bin' }).getByRole('button', { name: 'Undo' }).click();
  await expect(dialog.getByRole('img', { name: 'Marl capsule: capsule.png' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /Marl capsule/ })).toContainText('10');
  await page.getByRole('button', { name: 'Copy Marl capsule' }).click();
  await expect(page.getByRole('row', { name: /Marl capsule \(copy\)/ })).toContainText('10');
});

test('links of a chain are dragged to their place, by hand and by keyboard, and split to a second unit', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  for (const [kind, name] of [
    ['microphone', 'Ooze capsule'],
    ['cable', 'Ooze lead'],
    ['recorder', 'Ooze recorder'],
  ]) {
    await ask(marvet.address, 'POST', '/items', { kind, name });
  }
  await page.goto(`${marvet.address}/trials/${trialId}/kit`);
  await page.getByRole('button', { name: 'Change Quoinholt' }).click();
  const dialog = page.getByRole('dialog');
  for (const name of ['Ooze recorder', 'Ooze capsule', 'Ooze lead']) {
    await dialog.getByLabel('Item to add').selectOption({ label: name });
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  }
  const order = () => dialog.locator('.link-name').allInnerTexts();
  await dialog.getByRole('button', { name: 'Move Ooze lead up' }).press('Enter');
  await expect.poll(order).toEqual(['1. Ooze recorder', '2. Ooze lead', '3. Ooze capsule']);
  await dialog.getByRole('button', { name: 'Move Ooze lead down' }).press('Enter');
  await expect.poll(order).toEqual(['1. Ooze recorder', '2. Ooze capsule', '3. Ooze lead']);
  const grip = dialog.getByRole('button', { name: 'Drag Ooze recorder' });
  const target = dialog.getByRole('button', { name: 'Drag Ooze lead' });
  const [from, to] = [(await grip.boundingBox())!, (await target.boundingBox())!];
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 8, from.y + 30, { steps: 4 });
  await page.mouse.move(to.x + 8, to.y + 26, { steps: 12 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['1. Ooze capsule', '2. Ooze lead', '3. Ooze recorder']);
  await dialog.getByLabel('Noise reduction of Ooze recorder').selectOption('noise reduction off');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('article', { name: 'Quoinholt' })).toContainText('noise reduction off');

  await page.getByRole('button', { name: 'Change Lodestar' }).click();
  await dialog.getByLabel('Split off from').selectOption({ label: 'Quoinholt' });
  await expect.poll(order).toEqual(['1. Ooze capsule']);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('article', { name: 'Lodestar' })).toContainText('Split off from Quoinholt after Ooze capsule');
});
