import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import type { Chain } from '../core/domain/chain.ts';
import type { Item } from '../core/domain/item.ts';
import type { Station } from '../core/domain/station.ts';
import { readItemList } from '../core/formats/itemList.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const addItem = (draft: object) => ask<Item>(marvet.address, 'POST', '/items', draft);
async function setLinks(trialId: string, index: number, links: { itemId: string; settings: object }[], rest: object = {}): Promise<Chain> {
  const chains = await ask<Chain[]>(marvet.address, 'GET', `/trials/${trialId}/chains`);
  return ask<Chain>(marvet.address, 'PUT', `/trials/${trialId}/chains/${chains[index]!.id}`, { ...chains[index], links, ...rest });
}
async function saved(page: Page, name: string): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name, exact: true }).click();
  return readFile(await (await download).path(), 'utf8');
}

test('the library is taken away as CSV and JSON, and what comes back is the same', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await addItem({
    kind: 'recorder',
    name: 'Sluice recorder',
    price: 900,
    storageGb: 64,
    sampleRatesHz: [48_000, 96_000],
    wordLengths: ['24 bit', '32-bit float'],
    balancedInput: true,
    remark: '=not a formula',
  });
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=library`);
  const [csv, json] = [await saved(page, 'CSV'), await saved(page, 'JSON')];
  expect(csv).toContain("'=not a formula");
  for (const text of [csv, json]) {
    const row = readItemList(text).rows.find((each) => each.name === 'Sluice recorder');
    expect(row?.draft).toMatchObject({
      price: 900,
      storageGb: 64,
      sampleRatesHz: [48_000, 96_000],
      wordLengths: ['24 bit', '32-bit float'],
      balancedInput: true,
      remark: '=not a formula',
    });
  }
  await page.getByRole('button', { name: 'Bring in' }).click();
  await page.getByLabel('A list as CSV or JSON').setInputFiles({ name: 'library.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByRole('dialog').getByRole('row', { name: /Sluice recorder/ })).toContainText('replaces the one of this name');
  await page.getByLabel('A list as CSV or JSON').setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"kind":') });
  await expect(page.getByRole('alert')).toContainText('The file is not');
});

test('what an item rarely needs is kept as well, and refused with its range', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=library`);
  await page.getByRole('button', { name: 'Item', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Kind').selectOption('recorder');
  await dialog.getByLabel('Name').fill('Weir four');
  await dialog.getByText('More data').click();
  await dialog.getByLabel('Channels').fill('4');
  await dialog.getByLabel('Storage (GB)').fill('128');
  await dialog.getByLabel('Sample rates (Hz)').fill('48000 12');
  await dialog.getByLabel('Word lengths').or(dialog.getByLabel('24 bit')).last().check();
  await dialog.getByLabel('In the box').fill('strap');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('Rates are 8,000 to 384,000 Hz, a space between two')).toBeVisible();
  await dialog.getByLabel('Sample rates (Hz)').fill('48000, 96000');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  const items = await ask<Item[]>(marvet.address, 'GET', '/items');
  expect(items.find((item) => item.name === 'Weir four')).toMatchObject({
    channels: 4,
    storageGb: 128,
    sampleRatesHz: [48_000, 96_000],
    wordLengths: ['24 bit'],
    inTheBox: 'strap',
  });
});

test('settings of a link decide what is found, told and counted', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const microphone = await addItem({ kind: 'microphone', name: 'Dike capsule', sensitivityMvPerPa: 7.746, selfNoiseDba: 20, maxSplDb: 130, powerNeeds: 'bias' });
  const transmitter = await addItem({
    kind: 'transmitter',
    name: 'Dike transmitter',
    inputMaxDbu: -10,
    inputNoiseDbuA: -114,
    gainMinDb: 0,
    gainMaxDb: 40,
    powerGives: 'bias',
    storageGb: 16,
    batteryCount: 1,
    batteryType: 'AA',
    runningTimeH: 4,
  });
  const recorder = await addItem({ kind: 'recorder', name: 'Dike recorder', inputMaxDbu: 4, inputNoiseDbuA: -126, gainMinDb: -20, gainMaxDb: 60, channels: 2, owned: 1 });
  const links = (rateHz: number) => [
    { itemId: microphone.id, settings: {} },
    { itemId: transmitter.id, settings: { gainDb: 29, sampleRateHz: rateHz, wordLength: '24 bit', safetyTrackDb: -20 } },
    { itemId: recorder.id, settings: { gainDb: 10, sampleRateHz: 48_000, wordLength: '32-bit float', lineLevel: 'line' } },
  ];
  await setLinks(trialId, 0, links(96_000));
  await page.goto(`${marvet.address}/trials/${trialId}/kit`);
  const card = page.getByRole('article', { name: 'Quoinholt' });
  // No receiver is between them: that is the fault, not the rates, which an analogue joint has not.
  await expect(card).toContainText('Dike transmitter sends by radio: Dike recorder cannot hear it.');
  await expect(card).not.toContainText('runs at 96 kHz');
  // 16 GB at 96 kHz, 3 bytes, one track and its safety track: 7.7 h.
  await expect(card).toContainText(/records on Dike transmitter\s*7.7 h/);
  await expect(card).toContainText(/changes in 10 h\s*2/);
  await page.getByRole('button', { name: 'Change Quoinholt' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Sample rate of Dike transmitter').selectOption('48 kHz');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(card).toContainText(/records on Dike transmitter\s*15 h/);

  await page.getByLabel('Parts of the kit').getByText('Levels and noise').click();
  const levels = page.getByRole('region', { name: 'Levels through the chain' });
  await levels.getByLabel('Voice', { exact: true }).selectOption('shout');
  // A shout at 0.2 m is 98 dB SPL, -36 dBu, its peaks -21 dBu; full scale at 29 dB of gain is -39 dBu, of the safety track -19.
  await expect(levels).toContainText('The safety track of Dike transmitter keeps 5 dB over these peaks.');
  await expect(levels).toContainText('Dike recorder stores float: its gain cannot clip');
  await expect(levels).toContainText('Dike transmitter clips: peaks are 15 dB too high for it');
});

test('more candidates than channels, a copy for another placement, and a split that shares its capsule', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const capsule = await addItem({ kind: 'microphone', name: 'Marsh capsule', owned: 1 });
  const recorder = await addItem({ kind: 'recorder', name: 'Marsh recorder', channels: 2, owned: 1 });
  const links = [
    { itemId: capsule.id, settings: {} },
    { itemId: recorder.id, settings: {} },
  ];
  const first = await setLinks(trialId, 0, links);
  await setLinks(trialId, 1, links, { split: { chainId: first.id, links: 1 } });
  await page.goto(`${marvet.address}/trials/${trialId}/kit`);
  await expect(page.getByRole('article', { name: 'Lodestar' })).toContainText('Split off from Quoinholt after Marsh capsule: both hear the same moment.');
  await expect(page.getByText(/all go into Marsh recorder/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Copy Quoinholt' }).click();
  await expect(page.getByRole('article', { name: 'Quoinholt, copy' })).toBeVisible();
  await expect(page.getByText('Quoinholt, Lodestar, Quoinholt, copy all go into Marsh recorder: 3 channels where there are 2.')).toBeVisible();

  // One capsule is in two chains that are no split of each other, so these cannot share a take.
  await page.goto(`${marvet.address}/trials/${trialId}/plan?part=design`);
  const together = page.getByRole('region', { name: 'Recorded together' });
  await expect(together).toContainText('Quoinholt and Quoinholt, copy both need Marsh capsule, of which there is one');
  await expect(together.getByRole('group')).toHaveCount(2);
});

test('a photograph of a station is made small, kept, and shown again', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.setViewportSize({ width: 2600, height: 900 });
  await page.goto(`${marvet.address}/trials/${trialId}/plan`);
  const large = await page.screenshot();
  await page.getByRole('button', { name: 'Change jetty' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Add a photograph').setInputFiles({ name: 'jetty.png', mimeType: 'image/png', buffer: large });
  const image = dialog.getByRole('img', { name: 'jetty: jetty.png' });
  await expect(image).toBeVisible();
  await expect.poll(() => image.evaluate((picture: HTMLImageElement) => picture.naturalWidth)).toBe(1600);
  await dialog.getByLabel('Add a photograph').setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(dialog.getByRole('alert')).toContainText('cannot read that file as a picture');
  await page.reload();
  await page.getByRole('button', { name: 'Change jetty' }).click();
  await expect(image).toBeVisible();
  await dialog.getByRole('button', { name: 'Delete the photograph jetty.png' }).click();
  await expect(image).toBeHidden();
  await page.reload();
  await page.getByRole('button', { name: 'Change jetty' }).click();
  await dialog.getByRole('button', { name: 'jetty.png', exact: true }).click();
  await expect(image).toBeVisible();
  const [station] = await ask<Station[]>(marvet.address, 'GET', `/trials/${trialId}/stations`);
  expect(await ask<{ ownerId: string }[]>(marvet.address, 'GET', '/photos?ownerKind=station')).toEqual([expect.objectContaining({ ownerId: station!.id, type: 'image/jpeg' })]);
});

test('a tick of the pre-flight is taken back, and no longer counts when the setting has changed', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const recorder = await addItem({ kind: 'recorder', name: 'Fen recorder' });
  await setLinks(trialId, 0, [{ itemId: recorder.id, settings: { limiter: false } }]);
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=preflight`);
  const unit = page.getByRole('group', { name: /Fen recorder/ });
  await unit.getByLabel('limiter off').check();
  await expect(unit.getByText(/somebody, /)).toBeVisible();
  await page.reload();
  await unit.getByLabel('limiter off').uncheck();
  await expect(unit.getByText(/somebody, /)).toHaveCount(0);
  await unit.getByLabel('limiter off').check();
  await setLinks(trialId, 0, [{ itemId: recorder.id, settings: { limiter: true } }]);
  await page.reload();
  await expect(unit.getByLabel('limiter on, on purpose')).not.toBeChecked();
});
