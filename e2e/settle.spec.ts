import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { VerdictView } from '../core/contract/verdict.ts';
import type { RankDoubt } from '../core/decide/doubt/rankDoubt.ts';
import { turnOvers } from '../core/decide/doubt/turnOver.ts';
import type { EventsTold } from '../core/decide/eventsTold.ts';
import type { Take } from '../core/domain/take.ts';
import type { Trial } from '../core/domain/trial.ts';
import { MEASURES, signed } from '../core/measure/catalogue.ts';
import { accessible } from './accessible.ts';
import { DEMO_DATA, DEMO_FOLDER } from './demoFolder.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { seedTakes } from './seedTakes.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
let folder: string;
let saltreach: Trial;
test.beforeAll(async () => {
  test.setTimeout(600_000);
  marvet = await runMarvet({ demo: DEMO_FOLDER, copyOf: DEMO_DATA });
  folder = await mkdtemp(join(tmpdir(), 'marvet-settle-'));
  saltreach = (await ask<Trial[]>(marvet.address, 'GET', '/trials')).find(({ name }) => name === 'Saltreach')!;
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const at = (stage: string) => `${marvet.address}/trials/${saltreach.id}/${stage}`;
const verdictNow = () => ask<VerdictView>(marvet.address, 'GET', `/trials/${saltreach.id}/verdict`);

test('a report is saved as one file, opens from a folder, and says figure by figure what the app says', async ({ page, context }) => {
  await page.goto(at('verdict/report'));
  await expect(page.locator('tr[data-raw]').first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'Who gets what' }).first()).toContainText('Ferrier');
  await expect(page.getByRole('region', { name: 'Limits of use' })).toContainText('Words stay clear');
  await accessible(page);
  // Paper is white, whatever the screen is.
  await page.getByRole('button', { name: 'Dusk' }).click();
  const inkOf = () => page.getByRole('heading', { name: 'Limits of use' }).evaluate((heading) => getComputedStyle(heading).color);
  expect(await inkOf()).toBe('rgb(243, 239, 230)');
  await page.emulateMedia({ media: 'print' });
  expect(await inkOf()).toBe('rgb(23, 27, 30)');
  await page.emulateMedia({ media: 'screen' });
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'One file' }).click()]);
  expect(saved.suggestedFilename()).toBe('Saltreach report.html');
  const text = await readFile(await saved.path(), 'utf8');
  expect(text).not.toMatch(/<script|src="(?!data:)|url\("(?!data:)/);
  const place = join(folder, 'report.html');
  await writeFile(place, text);

  await marvet.stop();
  const away = await context.newPage();
  const asked: string[] = [];
  away.on('request', (request) => asked.push(request.url()));
  await away.goto(`file://${place}`);
  await expect(away.getByText(/is clearly first/)).toBeVisible();
  expect(asked.filter((address) => !address.startsWith('data:') && !address.startsWith('file:'))).toEqual([]);
  // The fonts of the app came along.
  expect(await away.evaluate(() => [...document.fonts].some((font) => font.status === 'loaded'))).toBe(true);
  const figures = away.locator('.sheet', { has: away.getByRole('heading', { name: 'Figures', exact: true }) });
  const shown = await figures.locator('tbody tr').evaluateAll((rows) => rows.map((row) => [...row.querySelectorAll('td')].map((cell) => cell.textContent ?? '')));
  const rawRows = await away.locator('tr[data-raw]').count();
  await away.close();

  await marvet.start();
  const { rows, criteria } = await verdictNow();
  // The last row is the price.
  expect(shown).toHaveLength(criteria.length + 1);
  for (const [index, criterion] of criteria.entries()) {
    for (const [column, row] of rows!.entries()) {
      const value = row.cells[index]!.value!;
      expect(shown[index]![3 + column]).toContain(signed(value, criterion.measureId ? MEASURES[criterion.measureId].digits : 1));
    }
  }
  const all = await ask<unknown[]>(marvet.address, 'GET', `/trials/${saltreach.id}/verdict/raw`);
  expect(rawRows).toBe(Math.min(600, all.length));
});

test('gear is shared out within the budget; a wish that cannot be met is named with what it conflicts with', async ({ page }) => {
  await page.goto(at('verdict'));
  const shared = page.getByRole('region', { name: 'Who gets what' }).first();
  await expect(shared.getByRole('row', { name: /Ferrier \(1\).*1 ×/ })).toBeVisible();
  await expect(shared.getByText(/points of 100 in the mean over people, each role counted as it is said to count, for [\d,]+ EUR of 9,000 EUR\./)).toBeVisible();
  await expect(shared.getByText(/^Second best: /)).toBeVisible();

  // Less money than all wishes cost: the budget stands in the conflict, and what everything else costs is said.
  await page.goto(at('question'));
  const roles = page.getByRole('region', { name: 'For whom, and for how much' });
  await roles.getByLabel('Budget').fill('1500');
  await roles.getByLabel('Budget').blur();
  await expect(roles.getByLabel('Budget')).toHaveValue('1500');
  await expect.poll(async () => (await ask<Trial>(marvet.address, 'GET', `/trials/${saltreach.id}`)).budget?.amount).toBe(1500);
  await page.goto(at('verdict'));
  await expect(shared.getByText(/^No share-out meets these \d wishes together: .*to spend at most 1,500 EUR/)).toBeVisible();
  const least = (await shared.getByText(/Everything else that is asked for costs at least/).textContent())!;
  const cost = Number(/at least ([\d,]+) EUR/.exec(least)![1]!.replace(',', ''));

  // With just that it can be met, and a role that asks for what nobody has cannot, whatever money there is.
  await page.goto(at('question'));
  await roles.getByLabel('Budget').fill(String(cost));
  await roles.getByLabel('Budget').blur();
  await expect.poll(async () => (await ask<Trial>(marvet.address, 'GET', `/trials/${saltreach.id}`)).budget?.amount).toBe(cost);
  await roles
    .getByText(/worn or hidden$/)
    .last()
    .click();
  await roles.getByLabel('A criterion that Passengers asks something of').selectOption('Voice over noise');
  const limit = roles.getByLabel(/^Voice over noise at least .* for Passengers$/);
  await limit.fill('90');
  await limit.blur();
  await expect.poll(async () => JSON.stringify((await ask<Trial>(marvet.address, 'GET', `/trials/${saltreach.id}`)).roles)).toContain('"limit":90');
  await accessible(page);
  await page.goto(at('verdict'));
  await expect(
    shared.getByText(
      /^No share-out meets these 2 wishes together: gear for Passengers \(4\) and Voice over noise at least 90 dB for Passengers\. No candidate that may be given out meets it\.$/,
    ),
  ).toBeVisible();
  await page.goto(at('question'));
  await roles.getByText(/Voice over noise at least 90 dB$/).click();
  await roles.getByRole('button', { name: 'Passengers no longer asks for Voice over noise' }).click();
  // Taken away by mistake it comes back, and what was changed meanwhile stays.
  await roles.getByLabel('To spare for Passengers').fill('1');
  await roles.getByLabel('To spare for Passengers').blur();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await ask<Trial>(marvet.address, 'GET', `/trials/${saltreach.id}`)).roles.find(({ name }) => name === 'Passengers'))
    .toMatchObject({ spares: 1, least: [{ limit: 90 }] });
  await roles.getByLabel('To spare for Passengers').fill('0');
  await roles.getByLabel('To spare for Passengers').blur();
  await roles.getByRole('button', { name: 'Passengers no longer asks for Voice over noise' }).click();
  await expect
    .poll(async () => (await ask<Trial>(marvet.address, 'GET', `/trials/${saltreach.id}`)).roles.find(({ name }) => name === 'Passengers'))
    .toMatchObject({ spares: 0, least: [] });
  await page.goto(at('verdict'));
  await expect(shared.getByText(new RegExp(`for ${cost.toLocaleString('en')} EUR of ${cost.toLocaleString('en')} EUR\\.$`))).toBeVisible();
});

test('what a trial found is kept: on the item, and as what is believed of the same gear in another trial', async ({ page }) => {
  const { rows } = await verdictNow();
  const first = rows!.find(({ rank }) => rank === 1)!;
  await page.goto(at('kit?part=library'));
  await page.getByRole('button', { name: 'Change Quoinholt Osier lavalier' }).click();
  const kept = page.getByRole('region', { name: 'What trials found' });
  await expect(kept.getByText(new RegExp(`^Place 1 of ${rows!.length}, ${Math.round(first.score!)} points of 100, in \\d+ takes at slipway, `))).toBeVisible();
  await accessible(page);

  const again = await ask<Trial>(marvet.address, 'POST', `/trials/${saltreach.id}/copy`);
  await page.goto(`${marvet.address}/trials/${again.id}/question`);
  const believed = page.getByRole('region', { name: 'Believed from earlier trials' });
  await expect(believed.getByRole('region', { name: 'Believed of Quoinholt Osier' })).toContainText(`Place 1 of ${rows!.length}`);
  await accessible(page);
  // Believed is not measured: the new trial has no value yet.
  const fresh = await ask<VerdictView>(marvet.address, 'GET', `/trials/${again.id}/verdict`);
  expect(fresh.missing.every(({ criterionIds }) => criterionIds.length > 0)).toBe(true);
  await believed
    .getByRole('link', { name: /^Saltreach/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Limits of use' })).toBeVisible();
});

test('a verdict turned over by a weight is too close, and the takes that would settle it go into the plan', async ({ page }) => {
  const { rows, criteria } = await verdictNow();
  const turn = turnOvers(criteria, rows!).all.flatMap((each) => (each.kind === 'weight' ? [each] : []))[0]!;
  const criterion = criteria.find(({ id }) => id === turn.criterionId)!;
  const others = criteria.reduce((sum, { id, weight }) => sum + (id === criterion.id ? 0 : weight), 0);
  /** Gives the criterion a share of the whole, the others among themselves as they are. */
  const weigh = async (share: number) => {
    for (const each of (await verdictNow()).criteria as (typeof criterion & { version: number })[]) {
      const { id, trialId: _trial, ...draft } = each;
      const was = criteria.find((one) => one.id === id)!.weight;
      await ask(marvet.address, 'PUT', `/trials/${saltreach.id}/criteria/${id}`, { ...draft, weight: id === criterion.id ? 100 * share : (100 * (1 - share) * was) / others });
    }
  };
  // A little beyond where it is said to turn over, the other one is first.
  await weigh(turn.to + 0.02 * Math.sign(turn.to - turn.from));
  expect((await verdictNow()).rows!.find(({ rank }) => rank === 1)!.candidate.id).toBe(turn.candidateId);
  // On the way there it gets too close to call, so that more takes would tell.
  for (const part of [0.5, 0.6, 0.7, 0.8, 0.9]) {
    await weigh(turn.from + part * (turn.to - turn.from));
    const doubt = await ask<RankDoubt>(marvet.address, 'GET', `/trials/${saltreach.id}/verdict/doubt?weights=given`);
    const rival = doubt.places.find(({ candidateId }) => candidateId === turn.candidateId)!;
    if (doubt.places.find(({ candidateId }) => candidateId === doubt.first)!.beats[doubt.places.indexOf(rival)]! < 0.97) break;
  }
  const before = (await ask<Take[]>(marvet.address, 'GET', `/trials/${saltreach.id}/takes`)).length;

  await page.goto(at('verdict'));
  await expect(page.getByText(/^Too close to call between/)).toBeVisible();
  const apart = page.getByRole('region', { name: 'What would tell them apart' });
  const press = apart.getByRole('button', { name: /^Plan \d+ takes more$/ });
  const more = Number(/\d+/.exec((await press.textContent()) as string)![0]);
  await press.click();
  await expect(page.getByText(new RegExp(`^Each setup is planned \\d+ times: ${more} new slates are in Field`))).toBeVisible();
  const takes = await ask<Take[]>(marvet.address, 'GET', `/trials/${saltreach.id}/takes`);
  expect(takes.length - before).toBe(more);
  expect(takes.filter(({ status }) => status === 'planned').length).toBeGreaterThanOrEqual(more);
  // Planned takes are counted: nothing more is asked for.
  await expect(press).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  const takesNow = async () => (await ask<Take[]>(marvet.address, 'GET', `/trials/${saltreach.id}/takes`)).length;
  await expect.poll(takesNow).toBe(before);

  // Two pages press at once: one of them plans, the other is told, and nothing is planned twice.
  const other = await page.context().newPage();
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await other.route('**/plan', async (route) => {
    if (route.request().method() === 'PUT') await held;
    await route.continue();
  });
  await other.goto(at('verdict'));
  await other.getByRole('button', { name: /^Plan \d+ takes more$/ }).click();
  await press.click();
  await expect.poll(takesNow).toBe(before + more);
  letGo();
  await expect(other.getByText('This plan was changed on another page in the meantime. Nothing was overwritten.')).toBeVisible();
  expect(await takesNow()).toBe(before + more);
  await other.close();
});

test('prices hold the batteries of a year once hours of use are given, and say so', async ({ page }) => {
  const priceOf = async () => (await verdictNow()).rows!.find(({ candidate }) => candidate.name === 'Quoinholt Osier')!.candidate;
  const { price, batteries } = await priceOf();
  await page.goto(at('question'));
  const hours = page.getByRole('region', { name: 'For whom, and for how much' }).getByLabel('Hours a year');
  await hours.fill('600');
  await hours.blur();
  // Twice the hours are twice the batteries.
  await expect.poll(async () => (await priceOf()).batteries!.price).toBeCloseTo(2 * batteries!.price, 6);
  const told = (await priceOf()).price!;
  expect(told - price!).toBeCloseTo(batteries!.price, 6);
  await page.goto(at('verdict'));
  const table = page.getByRole('region', { name: 'What the scores are made of' });
  await expect(table).toContainText(`Prices hold the batteries of a year: ${Math.round(2 * batteries!.price)} EUR of Quoinholt Osier`);
  await expect(table.getByRole('row', { name: /Price of the chain/ })).toContainText(`${Math.round(told).toLocaleString('en')} EUR`);
  await page.goto(at('question'));
  await hours.fill('');
  await hours.blur();
  await expect.poll(async () => (await priceOf()).batteries).toBeUndefined();
  expect((await priceOf()).price).toBeCloseTo(price! - batteries!.price, 6);
});

test('a candidate tells what was found in its takes, heard at its moment, and which factors work on each other is asked', async ({ page }) => {
  await page.goto(at('verdict'));
  const made = page.getByRole('region', { name: 'What made the difference' });
  await made.getByLabel('Ask about two together').selectOption({ label: 'Candidate with Windscreen' });
  const together = made.getByRole('region', { name: 'Which work on each other' });
  await expect(together.getByRole('listitem')).toHaveText(/Candidate with Windscreen\. (No sign that|From) .*It explains \d+ % alone\./);
  await expect(page).toHaveURL(/together=candidate\*windscreen|together=candidate%2Awindscreen/);
  await together.getByRole('button', { name: 'No longer ask about Candidate with Windscreen' }).click();
  await expect(together).toContainText('Asked about none');
  await page.getByRole('link', { name: 'Lowbrack Bittern' }).first().click();
  const found = page.getByRole('region', { name: 'Found in its takes' });
  const moments = await ask<EventsTold[]>(marvet.address, 'GET', `/trials/${saltreach.id}/verdict/events`);
  const own = moments.find(({ candidateId }) => page.url().endsWith(candidateId))!;
  const [worst] = own.kinds;
  await expect(found).toContainText(`${own.recordings} recordings, ${own.minutes.toFixed(1)} minutes`);
  await found
    .getByRole('button', { name: /^Hear / })
    .first()
    .click();
  const { startS, endS } = worst!.worst[0]!.event;
  const player = found.locator('audio');
  // It plays from a second before to a second after, and stays there.
  await expect.poll(() => player.evaluate((audio: HTMLAudioElement) => audio.paused && audio.currentTime > 0)).toBe(true);
  const stoppedS = await player.evaluate((audio: HTMLAudioElement) => audio.currentTime);
  expect(stoppedS).toBeGreaterThan(startS);
  expect(stoppedS).toBeLessThan(endS + 1.5);
});

test('the doubt of a long trial shows how far it is, is cancelled by a press, and is taken up again', async ({ page }) => {
  const { trialId, chainIds } = await smallTrial(marvet.address);
  seedTakes(marvet.dataFolder, trialId, chainIds, 3000);
  for (const [position, measureId] of (['noise.snrDb', 'levels.truePeakDbtp', 'levels.samplePeakDbfs', 'noise.floorDbfs', 'spectrum.tiltDbPerOctave'] as const).entries())
    await ask(marvet.address, 'POST', `/trials/${trialId}/criteria`, { name: `Figure ${position}`, kind: 'measured', measureId, weight: 1, best: 40, worst: 0, position });
  await ask(marvet.address, 'POST', `/trials/${trialId}/verdict/open`);
  await page.goto(`${marvet.address}/trials/${trialId}/verdict`);
  const sure = page.getByRole('region', { name: 'How sure that is' });
  await expect(sure.getByRole('progressbar', { name: 'Takes and listeners are drawn anew' })).toBeVisible();
  await sure.getByRole('button', { name: 'Cancel' }).click();
  await expect(sure.getByRole('alert')).toContainText('It was cancelled. Nothing else was touched.');
  await sure.getByRole('button', { name: 'Try again' }).click();
  await expect(sure.getByRole('progressbar')).toBeVisible();
  await expect(sure).toContainText('2,000 times', { timeout: 60_000 });
});
