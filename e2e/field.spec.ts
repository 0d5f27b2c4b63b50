import { expect, test } from '@playwright/test';
import type { Take } from '../core/domain/take.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const takesOf = (trialId: string) => ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);

test('logging goes on while the server is away, and each line arrives once', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await page.getByRole('button', { name: /^Start take/ }).click();
  await expect.poll(async () => (await takesOf(trialId))[0]?.status).toBe('rolling');
  await expect(page.getByText('Everything is on the server.')).toBeVisible();
  await marvet.kill();
  await page.getByRole('button', { name: /^Wind/ }).click();
  await page.getByRole('button', { name: /^Stop/ }).click();
  await page.getByRole('button', { name: /^Next: 02/ }).click();
  await page.getByRole('button', { name: /^Start take/ }).click();
  await page.getByRole('button', { name: /^Stop/ }).click();
  await page.getByRole('button', { name: /^Do again/ }).click();
  await expect(page.getByRole('region', { name: 'Take 02/2' })).toBeVisible();
  await page.getByLabel(/^Note/).fill('gull over the jetty');
  await page.getByLabel(/^Note/).blur();
  await expect(page.getByText(/6 lines are kept in this browser until the server is back/)).toBeVisible();
  await marvet.start();
  await expect(page.getByText('Everything is on the server.')).toBeVisible();
  const takes = await takesOf(trialId);
  expect(takes.map((take) => [take.slate, take.pass, take.status, take.flags.map((mark) => mark.flag), take.note])).toEqual([
    [1, 1, 'done', ['wind'], ''],
    [2, 1, 'done', [], ''],
    [2, 2, 'planned', [], 'gull over the jetty'],
    [3, 1, 'planned', [], ''],
    [4, 1, 'planned', [], ''],
  ]);
  expect(await ask<unknown[]>(marvet.address, 'GET', `/trials/${trialId}/log`)).toHaveLength(7);
});

test('lines written before the page was closed are sent when it opens again', async ({ page, context }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await expect(page.getByRole('region', { name: 'Take 01' })).toBeVisible();
  await marvet.kill();
  await page.getByRole('button', { name: /^Start take/ }).click();
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await page.close();
  await marvet.start();
  const later = await context.newPage();
  await later.goto(`${marvet.address}/trials/${trialId}/field`);
  await expect(later.getByText('Everything is on the server.')).toBeVisible();
  expect((await takesOf(trialId))[0]?.status).toBe('rolling');
});

test('the whole of Field by keyboard alone', async ({ page }) => {
  const { trialId, chainIds } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await expect(page.getByRole('region', { name: 'Take 01' })).toBeVisible();
  const key = (name: string) => page.keyboard.press(name);
  await key('Space');
  await expect(page.getByText(/^Rolling/)).toBeVisible();
  for (const flag of ['w', 't', 'b', 'h', 'x', 't']) await key(flag);
  await expect(page.getByRole('button', { name: /^Traffic/ })).toHaveAttribute('aria-pressed', 'false');
  await key('Space');
  await expect(page.getByRole('button', { name: /^Next: 02/ })).toBeVisible();
  await key('n');
  await page.keyboard.type('boat passed');
  const focused = () => page.evaluate(() => document.activeElement?.textContent ?? '');
  while (!(await focused()).startsWith('Wind, noise')) await key('Tab');
  await key('Enter');
  await key('Tab');
  await page.keyboard.type('4.5');
  await key('Tab');
  await page.keyboard.type('61');
  await key('Tab');
  await page.keyboard.type('18');
  await key('Tab');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await key('r');
  await expect(page.getByRole('region', { name: 'Take 01/2' })).toBeVisible();
  await key('s');
  await expect(page.getByText('Skipped', { exact: true })).toBeVisible();
  await key('ArrowRight');
  await expect(page.getByRole('region', { name: 'Take 02', exact: true })).toBeVisible();
  await key('Shift+?');
  await expect(page.getByRole('dialog')).toContainText('Do the take again');
  await key('Escape');
  await expect(page.getByText('Everything is on the server.')).toBeVisible();
  const [first, again] = await takesOf(trialId);
  expect(first).toMatchObject({ status: 'done', note: 'boat passed', windMs: 4.5, noiseDba: 61, controls: [{ name: 'Talker', value: 'Ferrier' }] });
  expect(first?.flags.map((mark) => mark.flag)).toEqual(['wind', 'break-up', 'handling', 'spoiled']);
  expect(first?.gains[first.setups.find((setup) => setup.candidateId === chainIds[0])!.id]).toEqual({ transmitter: 18 });
  expect(again).toMatchObject({ pass: 2, status: 'skipped' });
});

test('the danger of a station stands in Field, may be put away, and blocks nothing', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  const caution = page.getByRole('note').filter({ hasText: 'jetty: water' });
  // Named in a line, and told in full on a press.
  await page.locator('summary', { hasText: 'jetty: water' }).click();
  await expect(caution).toContainText('goes before this plan');
  await expect(page.getByRole('button', { name: /^Start take/ })).toBeEnabled();
  await page.getByRole('button', { name: 'Put away: jetty: water' }).click();
  await expect(caution).toBeHidden();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Take 01' })).toBeVisible();
  await expect(caution).toBeHidden();
});

test('the talker is shown the words over the whole screen, and silence is counted down; the keys of the runner rest meanwhile', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.clock.install();
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  const shown = page.getByRole('dialog', { name: /^For the talker/ });
  await page.getByRole('button', { name: 'Slate after' }).waitFor();
  await page.keyboard.press('p');
  await expect(shown).toBeVisible();
  await accessible(page);
  // To be read at three metres: no letter under two centimetres on a laptop's screen.
  const largePx = () => shown.locator('.prompt-large').evaluate((element) => Number.parseFloat(getComputedStyle(element).fontSize));
  expect(await largePx()).toBeGreaterThan(75);
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  await expect(shown).toBeHidden();
  await expect(page.getByRole('button', { name: /^Start take/ })).toBeVisible();

  // The slate with room tone.
  while (!(await page.getByText('Ten seconds of silence').isVisible())) await page.getByRole('button', { name: 'Slate after' }).click();
  await page.getByRole('button', { name: 'Show it to the talker (P)' }).click();
  await expect(shown.getByRole('timer')).toHaveText('10');
  await shown.getByRole('button', { name: 'Begin' }).click();
  await page.clock.runFor(3500);
  await expect(shown.getByRole('timer')).toHaveText('7');
  await page.clock.runFor(7000);
  await expect(shown.getByRole('timer')).toHaveText('Thank you');
  await shown.getByRole('button', { name: 'Close' }).click();
  await expect(shown).toBeHidden();
});

test('an incident is written down, tried again in later takes, counted, and told to be repeatable; offline too', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await page.getByText('Incidents', { exact: true }).click();
  await page.getByLabel('Something odd was heard').fill('crunch');
  await page.getByLabel('What was on').fill('limiter');
  await page.getByRole('button', { name: 'It was on Quoinholt' }).click();
  await page.getByRole('button', { name: 'Write it down' }).click();
  const incident = page.getByRole('article', { name: 'crunch' });
  await expect(incident).toContainText('heard once: repeat it at the same spot');
  await expect(incident).toContainText('QU, jetty, limiter');
  await expect(page.getByText('Everything is on the server.')).toBeVisible();

  // The next takes are logged while the server is away.
  await marvet.kill();
  for (let step = 0; step < 3; step++) {
    await page.getByRole('button', { name: 'Slate after' }).click();
    await incident.getByRole('button', { name: 'It came on Quoinholt' }).click();
    await incident.getByRole('button', { name: 'It stayed away on Lodestar' }).click();
    await expect(incident.getByRole('button', { name: 'It stayed away on Lodestar' })).toHaveAttribute('aria-pressed', 'true');
  }
  await expect(incident).toContainText('came 3 of 3 times again (29 to 100 %)');
  await expect(incident).toContainText('Next: the same ones at another place.');
  // Pressed by mistake, pressed again.
  await incident.getByRole('button', { name: 'It came on Quoinholt' }).click();
  await expect(incident).toContainText('came 2 of 2 times again');
  await incident.getByRole('button', { name: 'It stayed away on Quoinholt' }).click();
  await expect(incident).toContainText('came 2 of 3 times again');
  await marvet.start();
  await expect(page.getByText('Everything is on the server.')).toBeVisible();
  await accessible(page);

  const takes = await takesOf(trialId);
  expect(takes.map(({ incidents }) => incidents.map(({ heard }) => heard))).toEqual([['crunch'], [], [], []]);
  expect(takes.map(({ tried }) => tried.map((each) => [each.cameSetupIds.length, each.stayedSetupIds.length]))).toEqual([[], [[1, 1]], [[1, 1]], [[0, 2]]]);
  await page.reload();
  await expect(incident).toContainText('came 2 of 3 times again');

  await page.getByRole('button', { name: 'Take back: crunch' }).click();
  await expect(incident).toBeHidden();
  await page.getByText('crunch was taken back').locator('..').getByRole('button', { name: 'Undo' }).click();
  await expect(incident).toContainText('came 2 of 3 times again');
});

test('meters by a dial, gains of the take before, a start taken back, and photographs of the take', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await page.getByRole('button', { name: /^Start take/ }).click();
  await page.getByRole('button', { name: /^Not started/ }).click();
  await expect(page.getByRole('button', { name: /^Start take/ })).toBeVisible();
  await page.getByRole('button', { name: /^Start take/ }).click();
  await page.getByText('Wind, noise, gains, meters').click();
  const average = page.getByRole('spinbutton', { name: 'Quoinholt, average at the recorder' });
  await expect(average).toHaveAttribute('aria-valuetext', 'not seen');
  await page.getByRole('button', { name: 'Quoinholt, average at the recorder: more' }).click();
  await page.getByRole('button', { name: 'Quoinholt, average at the recorder: less' }).click();
  await average.press('ArrowDown');
  await expect(average).toHaveAttribute('aria-valuetext', '-24 dBFS');
  const peak = page.getByRole('spinbutton', { name: 'Quoinholt, peak at the recorder' });
  const box = (await peak.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 68, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(peak).toHaveAttribute('aria-valuetext', '-6 dBFS');
  await page.getByLabel('Quoinholt, recorder gain, dB').fill('33');
  await page.getByLabel('Quoinholt, recorder gain, dB').blur();
  await page.getByText('Photographs', { exact: true }).first().click();
  await page.locator('input[type=file]').first().setInputFiles('docs/screenshots/kit.png');
  await expect(page.getByRole('img', { name: /^Take 01: kit.png/ })).toBeVisible();
  await page.getByRole('button', { name: /^Stop/ }).click();
  await page.getByRole('button', { name: /^Next: 02/ }).click();
  await page.getByRole('button', { name: /^Start take/ }).click();
  await expect.poll(async () => (await takesOf(trialId))[1]?.status).toBe('rolling');
  const [first, second] = await takesOf(trialId);
  const own = (take: Take | undefined) => take!.setups.find((setup) => setup.candidateId === first!.setups[0]!.candidateId)!.id;
  expect(first?.meters[own(first)]).toEqual({ recorder: { averageDbfs: -24, peakDbfs: -6 } });
  expect(second?.gains[own(second)]).toEqual({ recorder: 33 });
  await accessible(page);
});

test('late in the day: a quicker order and what to drop first, one press each, and undone', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const plan = await ask<{ day: object }>(marvet.address, 'GET', `/trials/${trialId}/plan`);
  await ask(marvet.address, 'PUT', `/trials/${trialId}/plan`, { ...plan, day: { ...plan.day, endsAtMs: Date.now() - 60_000 } });
  // As somebody would do them who goes to and fro.
  const takes = await takesOf(trialId);
  const [a, b, c, d] = takes.map(({ id }) => id);
  await ask(marvet.address, 'POST', `/trials/${trialId}/log`, { lines: [{ id: crypto.randomUUID(), takeId: a, atMs: Date.now(), kind: 'order', takeIds: [a, c, b, d] }] });
  const orderOf = async () => (await takesOf(trialId)).map(({ slate }) => slate);
  expect(await orderOf()).toEqual([1, 3, 2, 4]);
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await expect(page.getByText(/^4 left, .* over the end of the day$/)).toBeVisible();
  await page.getByRole('button', { name: /^Quicker order, saves/ }).click();
  await expect.poll(orderOf).toEqual([1, 2, 3, 4]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(orderOf).toEqual([1, 3, 2, 4]);
  await page.getByRole('button', { name: /^Late\? Drop/ }).click();
  await expect.poll(async () => (await takesOf(trialId)).filter(({ status }) => status === 'skipped').length).toBe(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await takesOf(trialId)).every(({ status }) => status === 'planned')).toBe(true);
});

test('a note is spoken at a take, kept while the server is away, heard, deleted and brought back', async ({ page, context }) => {
  const { trialId } = await smallTrial(marvet.address);
  await context.grantPermissions(['microphone'], { origin: marvet.address });
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  const speak = async () => {
    await page.getByRole('button', { name: 'Speak a note' }).click();
    await expect(page.getByRole('button', { name: /^End the note 1/ })).toBeVisible();
    await page.getByRole('button', { name: /^End the note/ }).click();
  };
  await speak();
  const notes = page.getByLabel(/^Voice note of \d s$/);
  await expect(notes).toHaveCount(1);
  await expect.poll(() => notes.first().evaluate((audio: HTMLAudioElement) => audio.play().then(() => audio.currentTime > 0.1))).toBe(true);
  await marvet.kill();
  await speak();
  await expect(page.getByText('1 note is kept in this browser until the server is back.')).toBeVisible();
  await marvet.start();
  await expect(notes).toHaveCount(2);
  await page
    .getByRole('button', { name: /^Delete the voice note/ })
    .first()
    .click();
  await expect(notes).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(notes).toHaveCount(2);
});
