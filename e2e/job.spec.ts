import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { spoken } from '../core/testing/signals.ts';
import { writeRecorderFiles } from './audio.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-wav-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const stage = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .click();

async function addItem(page: Page, kind: string, name: string, price: string): Promise<void> {
  await page.getByRole('button', { name: 'Item', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Kind').selectOption(kind);
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByLabel('Price').fill(price);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
}

async function addCandidate(page: Page, name: string, items: string[]): Promise<void> {
  await page.getByRole('button', { name: 'Candidate', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill(name);
  for (const item of items) {
    await dialog.getByLabel('Item to add').selectOption({ label: item });
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  }
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
}

test('from a question to a verdict, on audio', async ({ page }) => {
  test.slow();
  await page.goto(marvet.address);
  await page.getByLabel('What is to be decided?').fill('Which lavalier carries over the water?');
  await page.getByRole('button', { name: 'New trial' }).click();

  await test.step('Question: criteria, a weight and its share, a dealbreaker', async () => {
    await page.getByRole('button', { name: 'Start from a common question' }).click();
    await page.getByRole('radio', { name: 'Any question' }).check();
    await page.getByRole('button', { name: 'Start from this' }).click();
    await expect(page.getByText('5 criteria')).toBeVisible();
    await page.getByLabel('Weight of Voice over noise').fill('75');
    await page.getByLabel('Weight of Voice over noise').blur();
    await expect(page.getByRole('row', { name: /Voice over noise/ })).toContainText('50 %');
    await page.getByRole('button', { name: 'Change Build and connectors' }).click();
    await page.getByLabel('Rules a candidate out beyond a limit').check();
    await page.getByLabel('Limit (points)').fill('3');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('row', { name: /Build and connectors/ })).toContainText('below 3');
    await page.getByRole('button', { name: 'Delete Sounds like the person' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('row', { name: /Sounds like the person/ })).toBeVisible();
  });

  await test.step('Kit: items, chains in signal order, totals, marks', async () => {
    await stage(page, 'Kit');
    await page.getByLabel('Parts of the kit').getByText('Library').click();
    await addItem(page, 'microphone', 'Osier capsule', '200');
    await addItem(page, 'transmitter', 'Weir transmitter', '400');
    await addItem(page, 'microphone', 'Sprat capsule', '60');
    await page.getByLabel('Parts of the kit').getByText('Candidates').click();
    await addCandidate(page, 'Osier', ['Osier capsule', 'Weir transmitter']);
    await addCandidate(page, 'Sprat', ['Sprat capsule']);
    await expect(page.getByRole('article', { name: 'Osier' })).toContainText('600 EUR');
    await expect(page.getByRole('note').filter({ hasText: 'Radio' })).toContainText('local law');
    await page.getByLabel('Build and connectors, Osier, points').fill('8');
    await page.getByLabel('Build and connectors, Osier, points').blur();
    await page.getByLabel('Build and connectors, Sprat, points').fill('2');
    await page.getByLabel('Build and connectors, Sprat, points').blur();
  });

  await test.step('Question: the expected winner is sealed', async () => {
    await stage(page, 'Question');
    await page.getByLabel('Who expects it?').fill('Mixer');
    await page.getByLabel('Who will win?').selectOption('Sprat');
    await page.getByRole('button', { name: 'Seal it' }).click();
    await expect(page.getByText(/Mixer: sealed on/)).toBeVisible();
  });

  await test.step('Plan: a station with a danger, distances, a cell left out, slates, run sheet', async () => {
    await stage(page, 'Plan');
    await page.getByRole('button', { name: 'Station', exact: true }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill('jetty');
    await dialog.getByLabel('water').check();
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('note').filter({ hasText: 'jetty: water' })).toBeVisible();
    for (const script of ['Plosives', 'Sibilants', 'Counting, turn at five', 'Room tone']) await page.getByRole('checkbox', { name: script }).uncheck();
    await page.getByRole('checkbox', { name: '10 m' }).check();
    await expect(page.getByText('cells of 4')).toBeVisible();
    const cell = page.getByRole('button', { name: 'jetty, bare, Neutral, Sprat, 10 m' });
    await cell.click();
    await expect(cell).toHaveAttribute('aria-pressed', 'false');
    await cell.click();
    await expect(cell).toHaveAttribute('aria-pressed', 'true');
    await page.getByRole('button', { name: 'Make slates' }).click();
    await page.getByRole('link', { name: 'Run sheet' }).click();
    await expect(page.getByRole('region', { name: 'Run sheet' })).toContainText('Life jackets');
    await expect(page.getByRole('row', { name: /^02/ })).toContainText('10 m');
  });

  await test.step('Field: two takes are run', async () => {
    await stage(page, 'Field');
    for (const slate of ['01', '02']) {
      await expect(page.getByRole('region', { name: `Take ${slate}` })).toBeVisible();
      await page.getByRole('button', { name: /^Start take/ }).click();
      await page.getByRole('button', { name: /^Stop/ }).click();
      if (slate === '01') await page.getByRole('button', { name: /^Next: 02/ }).click();
    }
    await expect(page.getByText('Everything is on the server.')).toBeVisible();
    await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('2/2');
  });

  await test.step('Takes: files find their takes; a loose one by hand; the broken one is told', async () => {
    await stage(page, 'Takes');
    const paths = await writeRecorderFiles(folder, [
      { name: 'S001_T01.wav', trackNames: ['OS', 'SP'], channels: [spoken(-26, -66, 1), spoken(-30, -48, 11)] },
      { name: 'harbour.wav', trackNames: ['', ''], channels: [spoken(-27, -60, 21), spoken(-33, -47, 31)] },
    ]);
    const photo = join(folder, 'photo.wav');
    await writeFile(photo, 'not a sound at all');
    await page.getByLabel('Sound files').setInputFiles([...paths, photo]);
    await expect(page.getByText(/photo\.wav: It is none of the files that are read/)).toBeVisible();
    await expect(page.getByText('matched by file name')).toBeVisible();
    await page.getByRole('button', { name: /^Files/ }).click();
    await page.getByRole('button', { name: 'Match harbour.wav' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Take', { exact: true }).selectOption({ index: 2 });
    await dialog.getByLabel('Candidate of channel 1').selectOption('Osier');
    await dialog.getByLabel('Candidate of channel 2').selectOption('Sprat');
    await dialog.getByRole('button', { name: 'Match' }).click();
    await expect(dialog).toBeHidden();
    await page.getByRole('button', { name: /^Recordings/ }).click();
    await expect(page.getByRole('region', { name: 'Table of recordings' }).getByRole('row')).toHaveCount(5);
    await expect(page.getByRole('region', { name: 'Table of recordings' })).toContainText(/\b39|40|41\b/);
    await page.getByRole('region', { name: 'Table of recordings' }).getByRole('link', { name: '01' }).first().click();
    await expect(page.getByRole('slider', { name: /3 stretches of words, 4 pauses/ })).toBeVisible();
    await expect(page.getByRole('row', { name: 'Noise floor −66.0 dBFS' })).toBeVisible();
  });

  await test.step('Tray: an unfair pair is said and mended', async () => {
    await stage(page, 'Takes');
    await page.getByRole('checkbox', { name: 'Take 01 Osier in the tray' }).check();
    await page.getByRole('checkbox', { name: 'Take 02 Sprat in the tray' }).check();
    const tray = page.getByRole('region', { name: 'Tray' });
    await expect(tray).toContainText('Not fair: distance differs.');
    await tray.getByRole('button', { name: /^Use/ }).click();
    await expect(tray).toContainText('Fair. Only the candidate differs.');
    await tray.getByRole('button', { name: /^Listen/ }).click();
  });

  await test.step('Listen: blind, scored, finished', async () => {
    await page.getByRole('button', { name: 'Make the round' }).click();
    await page.getByRole('textbox', { name: 'Listener' }).fill('Orla');
    await page.getByRole('textbox', { name: 'Listened on' }).fill('closed headphones');
    await page.getByRole('button', { name: 'Listen blind' }).click();
    await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled();
    for (const criterion of ['Words are clear', 'Sounds like the person']) {
      for (const [letter, points] of [
        ['A', '7'],
        ['B', '4'],
      ] as const) {
        const scale = page.getByRole('radiogroup', { name: `${criterion}, clip ${letter}` });
        await scale.getByText(points, { exact: true }).click();
        await expect(scale.getByRole('radio', { name: `${points} points` })).toBeChecked();
      }
    }
    await page.getByRole('button', { name: 'Finish' }).click();
    await expect(page.getByText('Thank you.')).toBeVisible();
    await page.goBack();
  });

  await test.step('Verdict: ranking, reason, expectation, CSV, report', async () => {
    await stage(page, 'Verdict');
    await expect(page.getByText('Every candidate has a value on every criterion.')).toBeVisible();
    await page.getByRole('button', { name: 'Open the verdict' }).click();
    await expect(page.getByText(/Ruled out: Build and connectors is below its limit \(2 against 3 points\)/)).toBeVisible();
    await expect(page.getByRole('region', { name: 'Expected and found' })).toContainText(/Mixer expected\s*SP Sprat/);
    await expect(page.getByRole('region', { name: 'Expected and found' })).toContainText(/Found\s*OS Osier/);
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'CSV' }).click();
    const csv = await readFile(await (await download).path(), 'utf8');
    expect(csv).toMatch(/Osier,1,Voice over noise,3\d\.\d+,dB,/);
    await page.getByRole('link', { name: 'Report' }).click();
    await expect(page.getByRole('region', { name: /report$/ })).toContainText('Orla, closed headphones');
    await page.reload();
    await expect(page.getByRole('region', { name: /report$/ })).toBeVisible();
  });
});
