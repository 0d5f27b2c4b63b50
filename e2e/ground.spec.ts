import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import type { RecordingDetail, RecordingRow } from '../core/contract/recordings.ts';
import type { Plan } from '../core/domain/plan.ts';
import type { Take } from '../core/domain/take.ts';
import type { Trial } from '../core/domain/trial.ts';
import { spoken } from '../core/testing/signals.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'marvet-ground-'));
  marvet = await runMarvet();
});
test.afterAll(async () => {
  await marvet.stop();
  await rm(folder, { recursive: true, force: true });
});

const region = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const planOf = (trialId: string) => ask<Plan>(marvet.address, 'GET', `/trials/${trialId}/plan`);

test.describe('two pages on one trial', () => {
  test('a change of one reaches the other by itself', async ({ context }) => {
    const { trialId } = await smallTrial(marvet.address);
    const [mine, theirs] = [await context.newPage(), await context.newPage()];
    for (const page of [mine, theirs]) await page.goto(`${marvet.address}/trials/${trialId}/question`);
    await theirs.getByLabel('Use', { exact: true }).fill('one lead');
    await theirs.getByLabel('Use', { exact: true }).blur();
    await expect(mine.getByLabel('Use', { exact: true })).toHaveValue('one lead');
  });

  test('the one that is behind is shown both, and keeps both where they do not touch', async ({ page }) => {
    const { trialId } = await smallTrial(marvet.address);
    // Cut off from what is told live, as a page that was asleep is.
    await page.route('**/events', (route) => route.abort());
    await page.goto(`${marvet.address}/trials/${trialId}/plan?part=design`);
    await expect(page.getByLabel('Each setup is done')).toHaveValue('1');
    const plan = await planOf(trialId);
    await ask(marvet.address, 'PUT', `/trials/${trialId}/plan`, { ...plan, controls: [{ name: 'Talker', value: 'Netmaker' }] });
    await page.getByLabel('Each setup is done').fill('2');
    await page.getByLabel('Each setup is done').blur();
    const conflict = page.getByRole('alert', { name: 'The plan was changed on another page' });
    await expect(conflict).toContainText('Nothing was overwritten.');
    await expect(conflict).toContainText('Netmaker');
    expect((await planOf(trialId)).repeats).toBe(1);
    await conflict.getByRole('button', { name: 'Keep both' }).click();
    await expect(conflict).toBeHidden();
    await expect.poll(async () => (await planOf(trialId)).repeats).toBe(2);
    expect((await planOf(trialId)).controls).toEqual([{ name: 'Talker', value: 'Netmaker' }]);
  });

  test('a dialog that is behind overwrites nothing unless that is said', async ({ page }) => {
    const { trialId, chainIds } = await smallTrial(marvet.address);
    await page.goto(`${marvet.address}/trials/${trialId}/kit`);
    await page.getByRole('button', { name: 'Change Quoinholt' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Remarks').fill('mine');
    const [chain] = (await ask<{ id: string; version: number; remark: string }[]>(marvet.address, 'GET', `/trials/${trialId}/chains`)).filter((each) => each.id === chainIds[0]);
    await ask(marvet.address, 'PUT', `/trials/${trialId}/chains/${chainIds[0]}`, { ...chain, remark: 'theirs' });
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog.getByRole('alert')).toContainText('Both changed the same thing');
    await dialog.getByRole('button', { name: 'Keep what is here' }).click();
    await expect(dialog).toBeHidden();
    const after = await ask<{ id: string; remark: string }[]>(marvet.address, 'GET', `/trials/${trialId}/chains`);
    expect(after.find((each) => each.id === chainIds[0])?.remark).toBe('mine');
  });
});

test('a long dialog that is left by Escape is offered again, and Escape in a drag ends only the drag', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  for (const name of ['Marram capsule', 'Marram cable']) await ask(marvet.address, 'POST', '/items', { kind: name.endsWith('cable') ? 'cable' : 'microphone', name });
  await page.goto(`${marvet.address}/trials/${trialId}/kit`);
  await page.getByRole('button', { name: 'Change Quoinholt' }).click();
  const dialog = page.getByRole('dialog');
  for (const name of ['Marram capsule', 'Marram cable']) {
    await dialog.getByLabel('Item to add').selectOption({ label: name });
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  }
  await dialog.getByLabel('Remarks').fill('half an hour of work');
  await dialog.getByRole('button', { name: 'Drag Marram cable' }).press('Space');
  await expect(page.getByText(/Marram cable is picked up, place 2 of 2|Marram cable is at place/)).toBeAttached();
  // The drag listens to keys from the turn after its start on, which a person never meets.
  await page.evaluate(() => new Promise((resolve) => setTimeout(resolve)));
  await page.keyboard.press('Escape');
  await expect(page.getByText('Marram cable stays at place 2 of 2')).toBeAttached();
  await expect(dialog).toBeVisible();
  // The drag is told a moment longer than it lasts.
  await page.waitForFunction(() => document.body.dataset.dragging === undefined);
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Change Quoinholt' }).click();
  await expect(dialog).toContainText('What you entered here last time was not saved.');
  await dialog.getByRole('button', { name: 'Take it up again' }).click();
  await expect(dialog.getByLabel('Remarks')).toHaveValue('half an hour of work');
  await expect(dialog.locator('.link-name')).toHaveText(['1. Marram capsule', '2. Marram cable']);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Change Quoinholt' }).click();
  await expect(dialog.getByText('was not saved')).toBeHidden();
});

test('a budget of 2,400 is asked about; what is no number stays in the box with the reason', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/question`);
  const budget = page.getByLabel('Budget');
  await budget.fill('2,400');
  await budget.blur();
  await page.getByRole('button', { name: '2400', exact: true }).click();
  const stored = async () => (await ask<Trial>(marvet.address, 'GET', `/trials/${trialId}`)).budget;
  await expect.poll(stored).toEqual({ amount: 2400, currency: 'EUR' });
  await budget.fill('USD 1 800');
  await budget.blur();
  await expect.poll(stored).toEqual({ amount: 1800, currency: 'USD' });
  await page.getByLabel('Weight of Words are clear').fill('-5');
  await page.getByLabel('Weight of Words are clear').blur();
  await expect(page.getByText('0 to 100. Still 1')).toBeVisible();
  await expect(page.getByLabel('Weight of Words are clear')).toHaveValue('-5');
});

test('a level that was removed comes back as what it was', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/plan`);
  await page.getByRole('button', { name: 'Remove 10 m' }).click();
  await page.getByRole('button', { name: '10 m back' }).click();
  await expect(page.getByRole('checkbox', { name: '10 m' })).toBeChecked();
  await expect.poll(async () => (await planOf(trialId)).removedLevels).toEqual([]);
  expect((await planOf(trialId)).factors.find((factor) => factor.kind === 'distance')?.levels.find((level) => level.id === '10')).toMatchObject({ value: 10 });
});

test.describe('Field', () => {
  const takesOf = (trialId: string) => ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);

  test('break-ups are counted with their time and whose they were; a rolling take is the one that is stopped after coming back', async ({ page }) => {
    const { trialId, chainIds } = await smallTrial(marvet.address);
    await page.goto(`${marvet.address}/trials/${trialId}/field`);
    await expect(page.getByRole('button', { name: /^Start take/ })).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
    for (let press = 0; press < 3; press++) await page.keyboard.press('b');
    await expect(page.getByRole('list', { name: 'Break-ups' }).getByRole('listitem')).toHaveCount(3);
    await page.getByRole('button', { name: 'Break-up 3 was Quoinholt' }).click();
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Plan' }).click();
    await expect(page).toHaveURL(/\/plan/);
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Field' }).click();
    await expect(page.getByRole('region', { name: 'Take 01' })).toContainText('Rolling');
    // Space after a click on a link starts and stops, as anywhere else in Field.
    await page.keyboard.press('Space');
    await expect(page.getByRole('region', { name: 'Take 01' })).toContainText('Done');
    await page.keyboard.press('x');
    await expect.poll(async () => (await takesOf(trialId))[0]?.flags.map((mark) => mark.flag)).toEqual(['break-up', 'break-up', 'break-up', 'spoiled']);
    const [first, second] = await takesOf(trialId);
    expect(first).toMatchObject({ status: 'done' });
    expect(first?.flags[2]?.setupIds).toEqual([first?.setups.find((setup) => setup.candidateId === chainIds[0])?.id]);
    expect(second).toMatchObject({ status: 'planned', flags: [] });
  });

  test('a line that the server refuses is shown with its reason, and holds nothing up', async ({ page }) => {
    const { trialId } = await smallTrial(marvet.address);
    let refuse = true;
    await page.route('**/log', async (route) => {
      const { lines } = route.request().postDataJSON() as { lines: { id: string; kind: string; text?: string }[] };
      const bad = lines.filter((line) => refuse && line.text === 'no good');
      const good = lines.filter((line) => !bad.includes(line));
      const answer = good.length > 0 ? await (await route.fetch({ postData: { lines: good } })).json() : { accepted: [], unknown: [], refused: [] };
      await route.fulfill({ json: { ...answer, refused: bad.map(({ id }) => ({ id, why: 'The note is too long' })) } });
    });
    await page.goto(`${marvet.address}/trials/${trialId}/field`);
    await page.getByLabel('Note (N)').fill('no good');
    await page.getByLabel('Note (N)').blur();
    const refused = page.getByRole('alert', { name: 'Lines that were refused' });
    await expect(refused).toContainText('Take 01, note: The note is too long');
    await page.keyboard.press('Space');
    await expect.poll(async () => (await takesOf(trialId))[0]?.status).toBe('rolling');
    refuse = false;
    await refused.getByRole('button', { name: 'Send again' }).click();
    await expect(refused).toBeHidden();
    await expect.poll(async () => (await takesOf(trialId))[0]?.note).toBe('no good');
    await page.unrouteAll({ behavior: 'ignoreErrors' });
  });
});

test('the part that is judged is asked about once, and moved on the picture by key and by pointer', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const [file] = await writeRecorderFiles(folder, [{ name: 'S001_T01.wav', trackNames: ['QU', 'LO'], channels: [spoken(-26, -60, 1), spoken(-30, -58, 2)] }]);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  await page.getByLabel('Sound files').setInputFiles(file!);
  await page.getByRole('button', { name: 'Yes, they are spoken' }).click();
  await expect(page.getByText('Slates are spoken on the recordings')).toBeVisible();
  const rows = async () => ask<RecordingRow[]>(marvet.address, 'GET', `/trials/${trialId}/recordings`);
  await expect.poll(async () => (await rows())[0]?.state).toBe('done');
  const [row] = await rows();
  await page.goto(`${marvet.address}/trials/${trialId}/takes/${row!.id}`);
  const judged = async () => (await ask<RecordingDetail>(marvet.address, 'GET', `/trials/${trialId}/recordings/${row!.id}`)).judged!;
  const before = await judged();
  const edge = page.getByRole('slider', { name: 'What is judged begins' });
  await edge.focus();
  for (let press = 0; press < 4; press++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await judged()).by).toBe('hand');
  await expect.poll(async () => (await judged()).span[0] - before.span[0]).toBeCloseTo(0.2, 1);
  const box = (await edge.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await judged()).span[0]).toBeGreaterThan(before.span[0] + 0.3);
  await region(page, 'The part that is judged').getByRole('button', { name: 'Take the mark away' }).click();
  await expect.poll(async () => (await judged()).span[0]).toBeCloseTo(before.span[0], 2);
  await page.getByRole('link', { name: 'All takes' }).click();
  await expect(page).toHaveURL(/\/takes$/);
});

test('a file that was refused can be chosen again', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/takes`);
  const bad = { name: 'picture.wav', mimeType: 'audio/wav', buffer: Buffer.from('no audio at all, but long enough') };
  for (let time = 1; time <= 2; time++) {
    await page.getByLabel('Sound files').setInputFiles(bad);
    await expect(page.getByText(/It is none of the files that are read/)).toHaveCount(time);
  }
});

test('placements and rigs are records with numbers, started from usual ones', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=places`);
  await page.getByRole('button', { name: 'Placement', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'collar' }).click();
  await dialog.getByLabel('From the mouth (m)').fill('0,12');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(region(page, 'Placements')).toContainText('0.12 m from the mouth, 95° off its axis, 0.06 m under the chin');
  await page.getByRole('button', { name: 'Rig', exact: true }).click();
  await dialog.getByRole('button', { name: 'hidden under wool' }).click();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(region(page, 'Rigs')).toContainText('2 layers of wool, 5 dB each');
  await page.getByRole('button', { name: 'Keep collar in the library' }).click();
  const other = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${other.trialId}/kit?part=places`);
  await page.getByRole('button', { name: 'Use collar in this trial' }).click();
  await expect(page.getByRole('button', { name: 'Change collar' })).toBeVisible();
  await expect(region(page, 'Placements')).toContainText('0.12 m from the mouth');
  await page.getByRole('button', { name: 'Remove collar from the library' }).click();
  await expect(region(page, 'Placements in the library')).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(region(page, 'Placements in the library')).toContainText('collar');
});
