import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import type { RecordingRow } from '../core/contract/recordings.ts';
import { heardClips } from '../server/testing/heardClips.ts';
import { accessible } from './accessible.ts';
import { bringTake, twoOfOneTake } from './heardTakes.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-comparing-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

async function newRound(page: Page, at: string, how: string, comparisons: string): Promise<void> {
  await page.goto(`${marvet.address}${at}/listen`);
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Make the round' }) });
  await form.getByLabel('Takes').selectOption({ index: 1 });
  await form.getByLabel('How').selectOption(how);
  await form.getByLabel(/^Comparisons/).fill(comparisons);
  await form.getByLabel(/^Comparisons/).blur();
  await accessible(page);
}

async function takeSeat(page: Page, name: string): Promise<void> {
  await page.getByLabel('Listener').fill(name);
  await page.getByLabel('Listened on').fill('closed headphones');
  await page.getByRole('button', { name: 'Listen blind' }).click();
  await expect(page.getByRole('heading', { name: 'Blind listening' })).toBeVisible();
}

const apart = (a: Float64Array, b: Float64Array) => a.reduce((sum, value, index) => sum + Math.abs(value - (b[index] as number)), 0);

/** The clips that the page was given, as an ear that hears everything would. */
async function clipsOf(page: Page, number: number): Promise<Float64Array[]> {
  const listenerId = new URL(page.url()).pathname.split('/').at(-1);
  const { clips } = await heardClips((address) => fetch(`${marvet.address}/api${address}`), `/listen/${listenerId}/comparisons/${number}/pieces`);
  return clips.map(([samples]) => samples as Float64Array);
}

test('whether X is A or B: what it can find is told before, it is heard and answered by key, and told apart at the end', async ({ page }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  await newRound(page, at, 'same', '4');
  await expect(page.getByText('4 comparisons by one listener prove nothing, whatever is answered: guessing gets all of them too often. Choose more.')).toBeVisible();
  await page.getByLabel('Comparisons').fill('6');
  await page.getByLabel('Comparisons').blur();
  await expect(page.getByText(/Of 6 comparisons by one listener 6 must be right/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Orla');
  for (let number = 0; number < 6; number++) {
    await expect(page.getByText(`Comparison ${number + 1} of 6`)).toBeVisible();
    await expect(page.getByRole('button', { name: /^(Play|Pause)/ })).toBeEnabled();
    if (number === 0) {
      await accessible(page);
      await expect(page.getByText('Is X the recording that A is, or the one that B is?')).toBeVisible();
      await page.getByLabel('Listening level in dB').fill('-12');
      await expect(page.getByText('Not played since this page was opened: A, B and X.')).toBeVisible();
      await page.keyboard.press('Space');
      await expect(page.getByText('Not played since this page was opened: B and X.')).toBeVisible();
    }
    // How loud it is, and that it plays, stays from one to the next.
    await expect(page.getByLabel('Listening level in dB')).toHaveValue('-12');
    await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
    await page.keyboard.press('x');
    await expect(page.getByRole('button', { name: /^X/ })).toHaveAttribute('aria-pressed', 'true');
    const [a, b, x] = (await clipsOf(page, number)) as [Float64Array, Float64Array, Float64Array];
    const isA = apart(x, a) < apart(x, b);
    await page.keyboard.press(isA ? '1' : '2');
    await expect(page.getByRole('radio', { name: isA ? 'A' : 'B' })).toBeChecked();
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('All comparisons are answered')).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('region', { name: /^What came of/ })).toContainText(/Quoinholt and Lodestar\.|Lodestar and Quoinholt\./);
  await expect(page.getByRole('region', { name: /^What came of/ })).toContainText('Told apart: 6 of 6 right, and who guesses gets as many in 1.6 % of tests.');
  await accessible(page);
});

test('which is better, by pointer and on a phone: a choice each way round is no preference', async ({ page, browser }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  await newRound(page, at, 'better', '6');
  await expect(page.getByText(/Of 6 comparisons by one listener 6 must go one way to be more than chance/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Tam');
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await context.newPage();
  await phone.goto(page.url());
  for (let number = 0; number < 6; number++) {
    await expect(phone.getByText(`Comparison ${number + 1} of 6`)).toBeVisible();
    await expect(phone.getByRole('button', { name: 'Next' })).toBeDisabled();
    await phone.locator('.picks').getByText('A', { exact: true }).click();
    await phone.getByRole('button', { name: 'Next' }).click();
  }
  await phone.getByRole('button', { name: 'Finish' }).click();
  await expect(phone.getByText('Thank you.')).toBeVisible();
  await context.close();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('region', { name: /^What came of/ })).toContainText(
    'No preference is shown: 3 of 6 choices each, and without one they lie so far apart in 100 % of tests.',
  );
});

test('checks are hidden among clips with points: the listener meets two more, and the host sees how steady they were', async ({ page }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  await page.goto(`${marvet.address}${at}/listen`);
  await page.getByLabel('Takes').selectOption({ index: 1 });
  await page.getByLabel('one clip twice, under two letters').check();
  await page.getByLabel('one clip made worse on purpose').check();
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Orla');
  await expect(page.getByRole('button', { name: /^(Play|Pause)/ })).toBeEnabled();
  for (const letter of ['A', 'B', 'C', 'D'])
    await page
      .getByRole('radiogroup', { name: `Words are clear, clip ${letter}` })
      .getByText('6', { exact: true })
      .click();
  // A letter is heard by its key though an answer has the focus.
  await page.keyboard.press('d');
  await expect(page.getByRole('region', { name: 'Clips' }).getByRole('button', { name: /^D/ })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByRole('row', { name: /hidden: the same once more/ })).toHaveCount(1);
  await expect(page.getByRole('row', { name: /hidden: made worse on purpose/ })).toHaveCount(1);
  await expect(page.getByText('The same clip twice: 0.0 points apart. The one made worse: under 0 % of the others. Less steady than one would build on')).toBeVisible();
  await accessible(page);
});

test('which is which is guessed once the scores are closed, and counted against chance once the host closes the round', async ({ page }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  await page.goto(`${marvet.address}${at}/listen`);
  await page.getByLabel('Takes').selectOption({ index: 1 });
  await page.getByLabel('Identities open').selectOption('once I close the round');
  await page.getByRole('button', { name: 'Make the round' }).click();
  await takeSeat(page, 'Orla');
  for (const letter of ['A', 'B'])
    await page
      .getByRole('radiogroup', { name: `Words are clear, clip ${letter}` })
      .getByText('6', { exact: true })
      .click();
  for (const ear of ['Left ear', 'Right ear', 'Middle']) await page.getByRole('button', { name: ear }).click();
  expect(await page.content()).not.toContain('Quoinholt');
  await page.getByRole('button', { name: 'Guess which is which' }).click();
  await page.getByLabel('Clip A is').selectOption('Quoinholt');
  await page.getByLabel('Clip B is').selectOption('Quoinholt');
  // A candidate is one clip only: taken for another it is free where it was.
  await expect(page.getByLabel('Clip A is').locator('option:checked')).toHaveText('not guessed yet');
  await page.getByLabel('Clip A is').selectOption('Lodestar');
  await accessible(page);
  await page.getByRole('button', { name: 'Keep the guess and finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  await expect(page.getByText('Done. What was answered opens once you close the round.')).toBeVisible();
  await expect(page.getByRole('region', { name: /^Guesses in/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Close the round' }).click();
  await expect(page.getByText('Identities open for good, and nobody listens in this round any more.')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Close it and open identities' }).click();
  await expect(page.getByRole('region', { name: /^Guesses in/ })).toContainText(
    /Which is which: [02] of 2 guessed right; who guesses blindly gets as many in (100|50) % of cases: it is not shown that they are known by ear\./,
  );
});

test('three listeners at once, each in a browser of their own: the host sees how far they are, then their scores and whether they agree', async ({ page, browser }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  await bringTake(marvet.address, folder, at.split('/')[2] as string, 2);
  const recordings = await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  const [criterion] = await ask<{ id: string }[]>(marvet.address, 'GET', `${at}/criteria`);
  const draft = { title: 'Two takes', recordingIds: recordings.map(({ id }) => id), criterionIds: [criterion!.id] };
  const round = await ask<{ id: string }>(marvet.address, 'POST', `${at}/rounds`, draft);
  await page.goto(`${marvet.address}${at}/listen`);
  const listeners = await Promise.all(
    ['Orla', 'Tam', 'Wren'].map(async (name) => {
      const { id } = await ask<{ id: string }>(marvet.address, 'POST', `${at}/rounds/${round.id}/listeners`, { name, listenedOn: 'closed headphones' });
      const context = await browser.newContext();
      const own = await context.newPage();
      await own.goto(`${marvet.address}/listen/${id}`);
      await expect(own.getByRole('button', { name: 'Play' })).toBeEnabled();
      return { name, own, context };
    }),
  );
  for (const [seat, { own }] of listeners.entries()) {
    for (const [at, letter] of ['A', 'B', 'C', 'D'].entries())
      await own
        .getByRole('radiogroup', { name: `Words are clear, clip ${letter}` })
        .getByText(String(at + seat), { exact: true })
        .click();
    // Without a reload, and without the scores.
    await expect(page.getByText('4 of 4 scores given.')).toHaveCount(seat + 1);
  }
  expect(await page.getByRole('table').count()).toBe(0);
  for (const { own } of listeners) {
    await own.getByRole('button', { name: 'Finish' }).click();
    await expect(own.getByText('Thank you.')).toBeVisible();
  }
  await expect(page.getByRole('region', { name: 'Agreement of listeners in Two takes' })).toContainText(
    /Words are clear: .*\(Kendall's W [01]\.\d\d; by chance in [\d.]+ % of cases\)\./,
  );
  await expect(page.getByRole('table')).toHaveCount(3);
  await Promise.all(listeners.map(({ context }) => context.close()));
});
