import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { unzipped } from '../server/testing/zips.ts';
import { accessible } from './accessible.ts';
import { bringTake, twoOfOneTake } from './heardTakes.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-away-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

async function newRound(page: Page, at: string, how: string): Promise<void> {
  await page.goto(`${marvet.address}${at}/listen`);
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Make the round' }) });
  await form.getByLabel('Takes').selectOption({ index: 1 });
  await form.getByLabel('How').selectOption(how);
  await form.getByRole('button', { name: 'Make the round' }).click();
}

test('somebody who is not here listens blind by a page from a folder, and their answers are read in', async ({ page, context }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  await newRound(page, at, 'scores');
  await page.getByText('Somebody who is not here').click();
  await page.getByLabel('Who listens elsewhere').fill('Orla');
  await page.getByRole('button', { name: 'Make a page for them' }).click();
  await expect(page.getByText('Listens by a page that is sent; the answers are not read in yet.')).toBeVisible();
  await accessible(page);
  const [zip] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Fetch the page to send' }).click()]);
  const entries = await unzipped(await readFile(await zip.path()));
  const place = join(folder, 'reel.html');
  await writeFile(place, entries.get('reel.html') as Buffer);

  const away = await context.newPage();
  const asked: string[] = [];
  away.on('request', (request) => asked.push(request.url()));
  await away.goto(`file://${place}`);
  await away.getByRole('button', { name: 'Play' }).click();
  await expect(away.getByRole('button', { name: 'Pause' })).toBeVisible();
  await accessible(away);
  await away.getByRole('button', { name: 'Save my answers' }).click();
  await expect(away.getByText('2 answers are still open.')).toBeVisible();
  await away.getByRole('radio', { name: 'Words are clear, clip A: 8 points' }).check();
  await away.getByRole('radio', { name: 'Words are clear, clip B: 3 points' }).check();
  // What is written is not taken for a key: b would switch.
  await away.getByLabel('Words are clear, clip B: why').fill('');
  await away.getByLabel('Words are clear, clip B: why').pressSequentially('bare and hissy');
  await expect(away.getByRole('button', { name: /^A/ })).toHaveAttribute('aria-pressed', 'true');
  // Closed and opened again, nothing that was given is lost.
  await away.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(`file://${place}`);
  await expect(again.getByLabel('Words are clear, clip B: why')).toHaveValue('bare and hissy');
  await again.getByRole('button', { name: 'Save my answers' }).click();
  await expect(again.getByText('Say what you listened on.')).toBeVisible();
  await again.getByLabel('What you listened on').fill('closed headphones');
  const [file] = await Promise.all([again.waitForEvent('download'), again.getByRole('button', { name: 'Save my answers' }).click()]);
  expect(file.suggestedFilename()).toBe('answers of Orla.json');
  const answers = join(folder, 'answers of Orla.json');
  await file.saveAs(answers);
  expect(asked.filter((url) => !url.startsWith('file://') && !url.startsWith('blob:'))).toEqual([]);

  // A wrong file is refused in words, and what was there stays.
  await writeFile(join(folder, 'other.json'), '{"hello": 1}');
  await page.getByLabel('File of answers').setInputFiles(join(folder, 'other.json'));
  await expect(page.getByText('This is no file of answers.')).toBeVisible();
  await page.getByLabel('File of answers').setInputFiles(answers);
  await expect(page.getByText('The answers of Orla are in')).toBeVisible();
  await expect(page.getByText('on closed headphones')).toBeVisible();
  await expect(page.getByRole('cell', { name: 'bare and hissy' })).toBeVisible();
  const key = (await page.locator('code').textContent()) as string;
  const [seat] = (await ask<{ listeners: { letters: Record<string, string> }[] }[]>(marvet.address, 'GET', `${at}/rounds`))[0]!.listeners;
  const [quoinholt] = await ask<{ id: string; channels: number[] }[]>(marvet.address, 'GET', `${at}/recordings`).then((all) => all.filter(({ channels }) => channels[0] === 0));

  // The key opens the names on the page that was sent, and no other key does.
  await again.getByText('Which was which').click();
  await again.getByLabel('Key').fill('0000');
  await again.getByRole('button', { name: 'Open the names' }).click();
  await expect(again.getByText('That key does not fit.')).toBeVisible();
  await again.getByLabel('Key').fill(key);
  await again.getByRole('button', { name: 'Open the names' }).click();
  const letter = seat!.letters.A === quoinholt!.id ? 'A' : 'B';
  await expect(again.getByText(`${letter}: Quoinholt, take 01`)).toBeVisible();
});

test('clips are put in order by drag, by key and by step, equal ones together, and the order is told at the end', async ({ page }) => {
  const at = await twoOfOneTake(marvet.address, folder);
  const trialId = at.split('/').at(-1) as string;
  await bringTake(marvet.address, folder, trialId, 2);
  const recordings = await ask<{ id: string }[]>(marvet.address, 'GET', `${at}/recordings`);
  const [criterion] = await ask<{ id: string }[]>(marvet.address, 'GET', `${at}/criteria`);
  const round = await ask<{ id: string }>(marvet.address, 'POST', `${at}/rounds`, {
    title: 'Both takes in order',
    kind: 'ranked',
    recordingIds: recordings.map(({ id }) => id),
    criterionIds: [criterion?.id],
  });
  const seat = await ask<{ id: string }>(marvet.address, 'POST', `${at}/rounds/${round.id}/listeners`, { name: 'Tamo', listenedOn: 'buds' });
  await page.goto(`${marvet.address}/listen/${seat.id}`);
  const order = async () => (await page.locator('.order-row').allTextContents()).map((row) => row.replace(/\s*as good as above\s*/, '').replace(/\s+/g, ''));
  await expect.poll(order).toEqual(['1A', '2B', '3C', '4D']);
  await expect(page.getByRole('button', { name: 'Finish' })).toBeDisabled();
  // Dragged to the top.
  const grip = (letter: string) => page.getByRole('button', { name: `Drag clip ${letter}, Words are clear` });
  const [from, to] = [await grip('D').boundingBox(), await grip('A').boundingBox()];
  await page.mouse.move(from!.x + 10, from!.y + 10);
  await page.mouse.down();
  await page.mouse.move(to!.x + 10, to!.y + 30, { steps: 8 });
  await page.mouse.move(to!.x + 10, to!.y + 6, { steps: 4 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['1D', '2A', '3B', '4C']);
  // By key: picked up, one down, put down.
  await grip('D').focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/^Clip D is (picked up, |at )place 1 of 4$/)).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('Clip D is at place 2 of 4')).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(order).toEqual(['1A', '2D', '3B', '4C']);
  // By step, and two that are equally good.
  await page.getByRole('button', { name: 'Better: clip C, Words are clear' }).click();
  await page.getByRole('button', { name: 'As good as the one above: clip D, Words are clear' }).click();
  await expect.poll(order).toEqual(['1.5A', '1.5D', '3C', '4B']);
  await expect(page.getByText('This order is kept.')).toBeVisible();
  await accessible(page);
  await page.reload();
  await expect.poll(order).toEqual(['1.5A', '1.5D', '3C', '4B']);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByText('Thank you.')).toBeVisible();
  await page.goto(`${marvet.address}${at}/listen`);
  const found = page.getByRole('region', { name: 'What came of Both takes in order' });
  await expect(found.getByRole('row')).toHaveCount(5);
  await expect(found).toContainText('mean place 1.5');
  await accessible(page);
});
