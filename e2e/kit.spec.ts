import type { Chain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { expect, test } from '@playwright/test';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const LIBRARY = [
  { kind: 'microphone', name: 'Sedge capsule', sensitivityMvPerPa: 7.746, selfNoiseDba: 20, maxSplDb: 130, outputConnector: 'miniature, 3-pin', powerNeeds: 'plug-in' },
  { kind: 'adapter', name: 'Sedge adapter', inputConnector: 'miniature, 3-pin', outputConnector: 'locking mini-jack' },
  {
    kind: 'transmitter',
    name: 'Sedge transmitter',
    inputConnector: 'locking mini-jack',
    outputConnector: 'radio',
    powerGives: 'bias',
    inputMaxDbu: -10,
    inputNoiseDbuA: -114,
    gainMinDb: 0,
    gainMaxDb: 40,
  },
  { kind: 'receiver', name: 'Sedge receiver', inputConnector: 'radio', outputConnector: 'XLR, 3-pin', inputNoiseDbuA: -90, outputMaxDbu: 18 },
  { kind: 'recorder', name: 'Sedge recorder', inputConnector: 'XLR, 3-pin', inputMaxDbu: 4, inputNoiseDbuA: -126, gainMinDb: -20, gainMaxDb: 60, powerGives: 'phantom 48 V' },
] as const;

/** A trial whose first chain is made of the library without its adapter, as it came out of the bag. */
async function bagOfKit(): Promise<string> {
  const { trialId } = await smallTrial(marvet.address);
  const items: Item[] = [];
  for (const draft of LIBRARY) items.push(await ask<Item>(marvet.address, 'POST', '/items', draft));
  const [chain] = await ask<Chain[]>(marvet.address, 'GET', `/trials/${trialId}/chains`);
  const { id, trialId: _trial, ...draft } = chain!;
  const links = items.filter(({ kind }) => kind !== 'adapter').map((item) => ({ itemId: item.id, settings: {} }));
  await ask(marvet.address, 'PUT', `/trials/${trialId}/chains/${id}`, { ...draft, links });
  return trialId;
}

test('a chain with three faults: each is told with its remedy, and gone when it is mended', async ({ page }) => {
  const trialId = await bagOfKit();
  await page.goto(`${marvet.address}/trials/${trialId}/kit`);
  const card = page.getByRole('article', { name: 'Quoinholt' });
  await expect(card.getByText('Does not go together')).toHaveCount(3);
  await expect(card).toContainText('Sedge capsule ends in miniature, 3-pin, Sedge transmitter takes locking mini-jack.');
  await expect(card).toContainText('Sedge capsule wants plug-in power, Sedge transmitter gives bias: it stays silent or thin.');
  await expect(card).toContainText('Line into mic: full scale of Sedge receiver is 18 dBu, 14 dB more than Sedge recorder takes as it is set.');

  await test.step('put the adapter between, and a pad on the recorder', async () => {
    await page.getByRole('button', { name: 'Change Quoinholt' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Item to add').selectOption({ label: 'Sedge adapter' });
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
    for (let step = 0; step < 3; step++) await dialog.getByRole('button', { name: 'Move Sedge adapter up' }).press('Enter');
    await dialog.getByLabel('Pad in dB of Sedge recorder').fill('14');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(card.getByText('Does not go together')).toHaveCount(1);
  });

  await test.step('the capsule is the other make, for bias', async () => {
    const parts = page.getByRole('navigation', { name: 'Parts of the kit' }).or(page.getByLabel('Parts of the kit'));
    await parts.getByText('Library').click();
    await page.getByRole('button', { name: 'Change Sedge capsule' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Is fed with').selectOption('bias');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toBeHidden();
    await parts.getByText('Candidates').click();
    await expect(card).toContainText('All joints fit.');
  });
});

test('levels through a chain: what clips, what is advised, and undone', async ({ page }) => {
  const trialId = await bagOfKit();
  await page.goto(`${marvet.address}/trials/${trialId}/kit?part=levels&voice=shout&at=0.1`);
  const levels = page.getByRole('region', { name: 'Levels through the chain' });
  // A shout at 10 cm is 84 + 20 dB; at 0 dB the recorder clips 14 dB below the transmitter, which does at 124 dB SPL.
  await expect(levels).toContainText('Sedge recorder clips: peaks are 6 dB too high for it, and no later gain repairs that.');
  await expect(
    levels
      .getByRole('row', { name: /Sedge transmitter/ })
      .getByRole('cell')
      .nth(4),
  ).toHaveText('8');
  await levels.getByLabel('Voice', { exact: true }).selectOption('normal');
  await levels.getByLabel('Distance').selectOption('0.2');
  await expect(page).toHaveURL(/voice=normal/);
  // 74 dB SPL is -60 dBu. Peaks of 89 dB SPL, 3 dB less against a sine, with 6 dB to spare: 32 dB at the transmitter, then 18 dBu into 4 dBu.
  await expect(levels).toContainText('Sedge transmitter 32 dB, Sedge recorder −13 dB. That can be reached.');
  await levels.getByRole('button', { name: 'Set these gains' }).click();
  await expect(levels).toContainText('The voice lies at −20 dBFS on average, its peaks at −5 dBFS.');
  await expect(levels.getByRole('button', { name: 'Set as advised' })).toBeDisabled();
  await accessible(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(levels.getByRole('button', { name: 'Set these gains' })).toBeEnabled();
});
