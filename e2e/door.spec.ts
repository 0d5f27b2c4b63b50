import { type Browser, type BrowserContext, chromium, expect, type Page, test } from '@playwright/test';
import type { WrittenLine } from '../core/contract/answers.ts';
import { newId } from '../core/domain/identity.ts';
import type { LogLine } from '../core/domain/logLine.ts';
import type { Take } from '../core/domain/take.ts';
import { accessible } from './accessible.ts';
import { CHROMIUM } from './browser.ts';
import { DOOR_ADDRESS, type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

const PHONE = { viewport: { width: 390, height: 844 } };
/** What installing the laptop's authority does to a phone: its browser finds nothing wrong with the connection. */
const TRUSTING = { ...CHROMIUM, args: [...CHROMIUM.args, '--ignore-certificate-errors'] };
const PHONE_LINES = 500;
const LAPTOP_LINES = 300;
const CLOCK_BEHIND_MS = 190_000;

let marvet: RunningMarvet;
let trialId: string;
let at: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  ({ trialId } = await smallTrial(marvet.address));
  at = `/trials/${trialId}`;
});
test.afterAll(() => marvet.dispose());

const takes = () => ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
const openDoor = () => ask(marvet.address, 'POST', '/door/open', { address: DOOR_ADDRESS, days: 1 });
const closeDoor = () => ask(marvet.address, 'POST', '/door/close');

/** A phone goes in with a code that the API gave. */
async function letIn(context: BrowserContext, name: string): Promise<Page> {
  const { code } = await ask<{ code: { code: string; url: string } }>(marvet.address, 'POST', '/door/code', { trialId, role: 'log' });
  const phone = await context.newPage();
  await phone.goto(`${code.url}#${code.code}`);
  await phone.getByLabel('What this device is called').fill(name);
  await phone.getByRole('button', { name: 'Come in' }).click();
  await expect(phone.getByRole('button', { name: /^Start take/ })).toBeVisible();
  return phone;
}

test('a phone is let in by a code, logs with the laptop away, and is put out again', async ({ page, browser }) => {
  await page.goto(`${marvet.address}${at}/field?view=phones`);
  await expect(page.getByText('The door is closed')).toBeVisible();
  await accessible(page);
  await page.getByLabel('Address of this computer').selectOption(DOOR_ADDRESS);
  await page.getByRole('button', { name: 'Open the door' }).click();
  await page.getByRole('button', { name: 'Give a code to log this trial' }).click();
  const digits = ((await page.locator('.door-digits').textContent()) ?? '').replace(/\s/g, '');
  await expect(page.getByText('The phone warns that the connection is not private')).toBeVisible();
  await accessible(page);

  // A phone that goes on past the warning, and trusts nothing.
  const phone = await (await browser.newContext({ ...PHONE, ignoreHTTPSErrors: true })).newPage();
  const { open } = await ask<{ open: { url: string } }>(marvet.address, 'GET', '/door');
  await phone.goto(`${open.url}${at}/field`);
  await expect(phone.getByRole('heading', { name: 'Come in' })).toBeVisible();
  await expect(phone.getByText('only once the phone trusts the laptop')).toBeVisible();
  await accessible(phone);
  await phone.getByLabel('Code, six digits').fill(digits === '000000' ? '000001' : '000000');
  await phone.getByLabel('What this device is called').fill('Assistant');
  await phone.getByRole('button', { name: 'Come in' }).click();
  await expect(phone.getByRole('alert').filter({ hasText: 'That is not the code' })).toBeVisible();
  await expect(page.getByText('1 wrong code was typed')).toBeVisible();
  await phone.getByLabel('Code, six digits').fill(`${digits.slice(0, 3)} ${digits.slice(3)}`);
  await phone.getByRole('button', { name: 'Come in' }).click();

  const start = phone.getByRole('button', { name: /^Start take/ });
  await expect(start).toBeVisible();
  await expect(phone.getByRole('link', { name: 'Verdict' })).toHaveCount(0);
  await expect(phone.getByText('Keep this page open while the laptop is away')).toBeVisible();
  await expect(page.getByRole('row', { name: /Assistant/ })).toContainText('log');
  await accessible(phone);

  // The laptop is carried away.
  await page.getByRole('button', { name: 'Close the door' }).click();
  await expect(page.getByText('The door is closed')).toBeVisible();
  await start.click();
  await phone.getByRole('button', { name: 'Wind' }).click();
  await phone.getByRole('button', { name: /^Stop/ }).click();
  await expect(phone.getByText('3 lines are kept in this browser until the laptop is back')).toBeVisible();
  expect((await takes())[0]?.status).toBe('planned');
  await page.getByRole('button', { name: 'Open the door' }).click();
  await expect.poll(async () => (await takes())[0]?.status).toBe('done');
  await expect(phone.getByText('Everything is on the laptop')).toBeVisible();

  // Who wrote what stands on the laptop.
  await page.getByRole('button', { name: 'Lines' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Assistant' })).toHaveCount(3);
  await page.getByRole('button', { name: 'Phones' }).click();
  await page.getByRole('button', { name: 'Put Assistant out' }).click();
  await expect(page.getByRole('row', { name: /Assistant/ })).toContainText('put out');
  await phone.getByRole('button', { name: /^Next/ }).click();
  await phone.getByRole('button', { name: /^Start take/ }).click();
  await expect(phone.locator('main').getByText('This device was put out at the laptop')).toHaveCount(1);
  // What it wrote since waits in it, and nothing of it came in.
  await expect(phone.getByText(/1 line is kept in this browser/)).toBeVisible();
  expect((await takes())[1]?.status).toBe('planned');
  await phone.context().close();
  await closeDoor();
});

test('Field opens without a server once it was opened with one, and shows what was logged meanwhile', async ({ page }) => {
  await page.goto(`${marvet.address}${at}/field`);
  await expect(page.getByText('Field opens here without the server too.')).toBeVisible();
  await page.goto(marvet.address);
  await expect(page.getByRole('link', { name: /^Jetty/ }).first()).toBeVisible();
  await page.goto(`${marvet.address}${at}/field`);
  await expect(page.getByText('Field opens here without the server too.')).toBeVisible();
  await marvet.kill();
  try {
    await page.getByRole('button', { name: /^Traffic( T)?$/ }).click();
    await page.reload();
    await expect(page.getByText('The server is away: as it was at')).toBeVisible();
    await expect(page.getByText('1 line is kept in this browser until the server is back')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Traffic( T)?$/ })).toHaveAttribute('aria-pressed', 'true');
    await accessible(page);
    await page.goto(`${marvet.address}${at}/plan/run-sheet`);
    await expect(page.getByRole('heading', { name: /run sheet/ })).toBeVisible();
    // An installed program opens on the list of trials.
    await page.goto(marvet.address);
    await expect(page.getByText('The server is away: as it was at')).toBeVisible();
    await expect(page.getByRole('link', { name: /^Jetty/ }).first()).toBeVisible();
    await page.goto(`${marvet.address}${at}/field`);
    await expect(page.getByRole('button', { name: /^Traffic( T)?$/ })).toBeVisible();
  } finally {
    await marvet.start();
  }
  await expect(page.getByText('Everything is on the server')).toBeVisible();
  await expect(page.getByText('The server is away')).toHaveCount(0);
  expect((await takes()).flatMap(({ flags }) => flags.map(({ flag }) => flag))).toContain('traffic');
});

test('a phone alone for a day: 500 lines, sent once, in order, merged with 300 of the laptop, and its clock put right', async () => {
  test.setTimeout(300_000);
  const browser: Browser = await chromium.launch(TRUSTING);
  try {
    const context = await browser.newContext(PHONE);
    // A phone whose clock is some minutes behind.
    await context.clock.install({ time: Date.now() - CLOCK_BEHIND_MS });
    await openDoor();
    let phone = await letIn(context, 'Phone alone');
    await expect(phone.getByText('Field opens here without the laptop too.')).toBeVisible();
    const slate = phone.url();
    await closeDoor();
    const before = (await ask<WrittenLine[]>(marvet.address, 'GET', `${at}/log/written`)).length;
    const takeId = (await takes()).find(({ status }) => status === 'planned')!.id;
    await phone.goto(`${slate.split('?')[0]}?take=${takeId}`);
    await phone.getByRole('button', { name: /^Start take/ }).click();
    for (let pressed = 1; pressed < PHONE_LINES - 1; pressed++) {
      await phone.keyboard.press('w');
      // The battery dies in between, and the page is opened again with the laptop far away.
      if (pressed === 200) {
        await expect(phone.getByText('201 lines are kept')).toBeVisible();
        await phone.close();
        phone = await context.newPage();
        await phone.goto(`${slate.split('?')[0]}?take=${takeId}`);
        await expect(phone.getByText('201 lines are kept')).toBeVisible();
        await expect(phone.getByText('The laptop is out of reach: as it was at')).toBeVisible();
        continue;
      }
      if (pressed % 50 === 25) {
        const posted = Array.from({ length: LAPTOP_LINES / 10 }, (_, index) => ({
          id: newId(),
          takeId,
          atMs: Date.now() + index,
          kind: 'note',
          text: `laptop ${pressed} ${index}`,
        }));
        await ask(marvet.address, 'POST', `${at}/log`, { lines: posted, sentAtMs: Date.now() });
      }
    }
    await phone.getByRole('button', { name: /^Stop/ }).click();
    await expect(phone.getByText(`${PHONE_LINES} lines are kept in this browser`)).toBeVisible();
    await openDoor();
    await expect(phone.getByText('Everything is on the laptop')).toBeVisible({ timeout: 60_000 });
    await expect(phone.getByText("This device's clock is 3 min behind the laptop's")).toBeVisible();

    const written = await ask<WrittenLine[]>(marvet.address, 'GET', `${at}/log/written`);
    const own = written.filter(({ writer }) => writer === 'Phone alone').map(({ line }) => line);
    expect(own).toHaveLength(PHONE_LINES);
    expect(written.length - before).toBeLessThanOrEqual(PHONE_LINES + LAPTOP_LINES);
    expect(new Set(written.map(({ line }) => line.id)).size).toBe(written.length);
    // In the order in which they were pressed, the newest first, and on the laptop's clock.
    expect(own.map(({ kind }) => kind)).toEqual(['stop', ...Array.from({ length: PHONE_LINES - 2 }, (_, index) => (index % 2 === 0 ? 'unflag' : 'flag')), 'start']);
    expect(Math.abs(own[0]!.atMs - Date.now())).toBeLessThan(120_000);
    const [take] = (await takes()).filter(({ id }) => id === takeId);
    expect(take).toMatchObject({ status: 'done' });
    expect(take!.flags.filter(({ flag }) => flag === 'wind')).toEqual([]);
    // The newest note of the laptop stands, though the phone's lines came after it.
    const lastNote = written.map(({ line }) => line).find((line): line is Extract<LogLine, { kind: 'note' }> => line.kind === 'note');
    expect(take!.note).toBe(lastNote!.text);
  } finally {
    await browser.close();
    await closeDoor();
  }
});
