import { gzipSync } from 'node:zlib';
import { expect, type Page, test } from '@playwright/test';
import type { RecordingDetail, RecordingRow } from '../core/contract/recordings.ts';
import type { VerdictRow } from '../core/decide/verdict.ts';
import { EVENT_KINDS } from '../core/domain/measureId.ts';
import type { Take } from '../core/domain/take.ts';
import type { Trial } from '../core/domain/trial.ts';
import { accessible } from './accessible.ts';
import { DEMO_DATA, DEMO_FOLDER } from './demoFolder.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask } from './smallTrial.ts';

let marvet: RunningMarvet;
let saltreach: Trial;
let wheelhouse: Trial;
let costume: Trial;
let hireShelf: Trial;
let reedWalk: Trial;
let landing: Trial;
test.beforeAll(async () => {
  test.setTimeout(600_000);
  marvet = await runMarvet({ demo: DEMO_FOLDER, copyOf: DEMO_DATA });
  const trials = await ask<Trial[]>(marvet.address, 'GET', '/trials');
  saltreach = trials.find((trial) => trial.name === 'Saltreach')!;
  wheelhouse = trials.find((trial) => trial.name === 'Wheelhouse boom')!;
  costume = trials.find((trial) => trial.name === 'Fishwife costume')!;
  hireShelf = trials.find((trial) => trial.name === 'Hire shelf')!;
  reedWalk = trials.find((trial) => trial.name === 'Reed bank walk')!;
  landing = trials.find((trial) => trial.name.startsWith('Ferry landing'))!;
});
test.afterAll(() => marvet.dispose());

test('the demo is complete to a verdict, and the dearest does not win', async () => {
  expect(saltreach.progress).toMatchObject({ candidates: 5, recordings: 175, measured: 175, measuring: 0, listeners: 3, verdictOpened: true });
  expect(saltreach.progress.done).toBeGreaterThanOrEqual(36);
  const { rows } = await ask<{ rows: VerdictRow[] }>(marvet.address, 'GET', `/trials/${saltreach.id}/verdict`);
  expect(rows.every((row) => row.missing.length === 0)).toBe(true);
  const dearest = rows.reduce((most, row) => ((row.candidate.price ?? 0) > (most.candidate.price ?? 0) ? row : most));
  expect(rows[0]?.rank).toBe(1);
  expect(dearest.rank).not.toBe(1);
  expect(saltreach.expectations[0]?.revealed?.candidateId).toBe(dearest.candidate.id);
});

test('a second start changes nothing', async () => {
  const before = await ask(marvet.address, 'GET', `/trials/${saltreach.id}/takes`);
  await marvet.stop();
  await marvet.start();
  expect(await ask(marvet.address, 'GET', `/trials/${saltreach.id}/takes`)).toEqual(before);
  expect(await ask<Trial[]>(marvet.address, 'GET', '/trials')).toHaveLength(6);
});

test('the second trial stops after its plan', async () => {
  const takes = await ask<Take[]>(marvet.address, 'GET', `/trials/${wheelhouse.id}/takes`);
  expect(takes.length).toBeGreaterThanOrEqual(8);
  expect(takes.every((take) => take.status === 'planned')).toBe(true);
});

test('every kind of event that can be found is somewhere in the demo', async () => {
  for (const kind of EVENT_KINDS) {
    const found = await Promise.all(
      [saltreach, hireShelf].map(({ id }) => ask<Record<string, number>>(marvet.address, 'GET', `/trials/${id}/recordings/figure/events.${kind}.perMinute`)),
    );
    expect(Math.max(...found.flatMap((all) => Object.values(all))), kind).toBeGreaterThan(0);
  }
});

test('seven links are judged against the same wire by cable', async () => {
  const { reference } = hireShelf;
  const figure = (id: string) => ask<Record<string, number>>(marvet.address, 'GET', `/trials/${hireShelf.id}/recordings/figure/${id}`);
  expect(Object.keys(await figure('pair.spectralDistanceDb')).length).toBeGreaterThan(20);
  const detail = async (id: string) => ask<RecordingDetail>(marvet.address, 'GET', `/trials/${hireShelf.id}/recordings/${id}`);
  const taken = Object.entries(await figure('pair.denoise.noiseReductionDb'));
  const most = await detail(taken.reduce((a, b) => (b[1] > a[1] ? b : a))[0]);
  expect(['HO', 'GA']).toContain(most.trackName);
  expect((await detail(most.against!.referenceId)).trackName).toBe('CA');
  expect(reference?.kind).toBe('candidate');
});

test('the reed bank was walked three times: a range on both sides, and a spot that speaks for the place', async ({ page }) => {
  await page.goto(`${marvet.address}/trials/${reedWalk.id}/takes?view=range`);
  const held = page.getByRole('table', { name: 'How far each link holds' });
  for (const side of ['facing', 'turned']) await expect(held.getByRole('row', { name: new RegExp(`Quoinholt Osier ${side}`) })).toContainText(/reliable to \d+ m \(/);
  await expect(page.getByRole('table', { name: 'Spots where links broke up on walks' })).toContainText(/facing.*speaks for the place/);
});

const VIEWS: [string, () => string, (page: Page) => Promise<unknown>][] = [
  ['trials', () => '/', (page) => page.getByRole('region', { name: 'Trials' }).waitFor()],
  ['question', () => `/trials/${saltreach.id}/question`, (page) => page.getByRole('region', { name: 'Criteria' }).waitFor()],
  ['kit', () => `/trials/${saltreach.id}/kit`, (page) => page.getByRole('region', { name: 'Candidates' }).waitFor()],
  ['levels', () => `/trials/${costume.id}/kit?part=levels`, (page) => page.getByRole('region', { name: 'Levels through the chain' }).waitFor()],
  ['pre-flight', () => `/trials/${saltreach.id}/kit?part=preflight`, (page) => page.getByRole('region', { name: 'Pre-flight' }).waitFor()],
  ['library', () => `/trials/${saltreach.id}/kit?part=library`, (page) => page.getByRole('row', { name: /Marshgate Eight/ }).waitFor()],
  [
    'an item',
    () => `/trials/${saltreach.id}/kit?part=library`,
    async (page) => {
      await page.getByRole('button', { name: 'Change Marshgate Eight recorder' }).click();
      await page.getByText('More data').click();
    },
  ],
  [
    'a split chain',
    () => `/trials/${costume.id}/kit`,
    async (page) => {
      await page.getByRole('button', { name: 'Change Same boom to the camera' }).click();
      await expect(page.getByRole('dialog').getByLabel('Split off from')).toHaveValue(/.+/);
    },
  ],
  [
    'starting points',
    () => `/trials/${costume.id}/question`,
    async (page) => {
      await page.getByRole('button', { name: 'Start over' }).click();
      await page.getByRole('radio', { name: 'Headsets for a cast' }).check();
    },
  ],
  [
    'a criterion',
    () => `/trials/${costume.id}/question`,
    async (page) => {
      await page.getByRole('button', { name: 'Change Practical noise floor' }).click();
      await page.getByText('Only at some conditions').click();
      await page.getByLabel('Rules a candidate out beyond a limit').check();
    },
  ],
  [
    'weights two by two',
    () => `/trials/${saltreach.id}/question`,
    async (page) => {
      await page.getByText('Which of two matters more').click();
      await page.getByText('the comparisons agree with each other').waitFor();
    },
  ],
  [
    'design',
    () => `/trials/${costume.id}/plan?part=design`,
    (page) => page.getByRole('region', { name: 'Fairness before the fact' }).getByText('always change together').waitFor(),
  ],
  ['order', () => `/trials/${costume.id}/plan?part=order`, (page) => page.getByRole('region', { name: 'Takes in their order' }).waitFor()],
  ['the day', () => `/trials/${costume.id}/plan?part=day`, (page) => page.getByRole('region', { name: 'The day', exact: true }).waitFor()],
  ['a fault', () => `/trials/${wheelhouse.id}/plan?part=fault`, (page) => page.getByRole('region', { name: 'Tests' }).waitFor()],
  ['slates', () => `/trials/${wheelhouse.id}/plan/slates`, (page) => page.getByRole('article', { name: 'Slate 01' }).waitFor()],
  ['plan', () => `/trials/${wheelhouse.id}/plan`, (page) => page.getByRole('region', { name: 'Cells' }).waitFor()],
  ['run sheet', () => `/trials/${saltreach.id}/plan/run-sheet`, (page) => page.getByRole('region', { name: 'Run sheet' }).waitFor()],
  ['placing', () => `/trials/${wheelhouse.id}/placing`, (page) => page.getByRole('region', { name: 'The booms side by side' }).waitFor()],
  ['range', () => `/trials/${saltreach.id}/takes?view=range`, (page) => page.getByRole('table', { name: 'How far each link holds' }).waitFor()],
  ['body', () => `/trials/${saltreach.id}/placing?part=body`, (page) => page.getByRole('table', { name: 'What is to be expected' }).waitFor()],
  ['foreseen and found', () => `/trials/${saltreach.id}/placing?part=found`, (page) => page.getByRole('table', { name: 'How right it was' }).waitFor()],
  ['rooms', () => `/trials/${saltreach.id}/placing?part=rooms`, (page) => page.getByRole('region', { name: 'The room', exact: true }).waitFor()],
  [
    'range walk',
    () => `/trials/${reedWalk.id}/field?view=walk`,
    async (page) => {
      await page.getByRole('button', { name: 'Slate before' }).click();
      await page.getByRole('img', { name: /^The way of the walk: up to 1\d\d m from the receiver/ }).waitFor();
      await page.getByText('As a table').click();
    },
  ],
  ['devices', () => `/trials/${reedWalk.id}/field?view=devices`, (page) => page.getByText('Stand-in recorder').waitFor()],
  ['field', () => `/trials/${wheelhouse.id}/field`, (page) => page.getByRole('button', { name: /^Start take/ }).waitFor()],
  [
    'takes',
    () => `/trials/${saltreach.id}/takes`,
    async (page) => {
      await page.getByRole('checkbox', { name: /Take 01 Quoinholt/ }).check();
      await page.getByRole('checkbox', { name: /Take 03 Lowbrack/ }).check();
      await page.getByText('Not fair').waitFor();
    },
  ],
  ['files', () => `/trials/${saltreach.id}/takes?view=files`, (page) => page.getByRole('region', { name: 'Table of files' }).waitFor()],
  [
    'inside a take',
    () => `/trials/${saltreach.id}/takes`,
    async (page) => {
      await page.getByRole('region', { name: 'Table of recordings' }).getByRole('link').first().click();
      await page.getByRole('slider', { name: /Level over time/ }).waitFor();
    },
  ],
  [
    'what noise reduction took',
    () => `/trials/${hireShelf.id}/takes`,
    async (page) => {
      await page.getByRole('checkbox', { name: /Take 01 Hobbleford, noise reduction/ }).check();
      await page.getByRole('checkbox', { name: /Take 01 Belt recorder/ }).check();
      await page.getByRole('button', { name: 'Difference' }).click();
      await page.getByText(/^Noise is \d+ dB lower against the voice/).waitFor();
    },
  ],
  ['listen', () => `/trials/${saltreach.id}/listen`, (page) => page.getByRole('region', { name: 'New round' }).waitFor()],
  [
    'candidate',
    () => `/trials/${saltreach.id}/verdict`,
    async (page) => {
      await page.getByRole('link', { name: 'Quoinholt Osier', exact: true }).click();
      await expect(page.getByText(/^Place 1 of 5, \d+ points of 100 \(\d+ to \d+ in 95 of 100 draws\)\. Best in/)).toBeVisible();
      await expect(page.getByText('wool over the grille: the s is gone')).toBeVisible();
      await expect(page.getByText('Open, a little chest.')).toBeVisible();
    },
  ],
  [
    'blind listening',
    () => `/trials/${saltreach.id}/listen`,
    async (page) => {
      await page.getByRole('textbox', { name: 'Listener' }).first().fill('Axe');
      await page.getByRole('textbox', { name: 'Listened on' }).first().fill('nothing');
      await page.getByRole('button', { name: 'Listen blind' }).first().click();
      await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled();
    },
  ],
  ['verdict', () => `/trials/${saltreach.id}/verdict`, (page) => page.getByRole('region', { name: 'Price against score' }).waitFor()],
  ['verdict, how sure', () => `/trials/${saltreach.id}/verdict`, (page) => page.getByText('Explains alone').waitFor()],
  ['report', () => `/trials/${saltreach.id}/verdict/report`, (page) => page.locator('tr[data-raw]').first().waitFor()],
  ['bin', () => `/trials/${saltreach.id}/bin`, (page) => page.getByRole('region', { name: 'Bin of this trial' }).waitFor()],
];

for (const [name, path, ready] of VIEWS) {
  test(`axe finds nothing in either theme: ${name}`, async ({ page }) => {
    const troubles: string[] = [];
    page.on('console', (message) => message.type() === 'error' && troubles.push(message.text()));
    page.on('pageerror', (error) => troubles.push(error.message));
    await page.goto(marvet.address + path());
    await ready(page);
    await accessible(page);
    // What dusk changes is colour; all else was looked at in daylight.
    // Behind an open dialog the button is out of the mouse's reach, not of an event's.
    await page.getByRole('button', { name: 'Dusk', includeHidden: true }).dispatchEvent('click');
    await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
    await accessible(page, ['color-contrast']);
    expect(troubles).toEqual([]);
  });
}

test('the verdict says how sure it is, what would turn it over and what made the difference, and the report says the same', async ({ page }) => {
  await page.goto(`${marvet.address}/trials/${saltreach.id}/verdict`);
  const sure = page.getByRole('region', { name: 'How sure that is' });
  await expect(sure.getByText(/^Quoinholt Osier is clearly first: it stands above each other one in at least 98 % of draws\. It is best in \d+ % of 2,000 draws\.$/)).toBeVisible();
  await expect(sure.getByRole('row', { name: /Fenntide Two.*breaks the limit of Connector holds in 100 % of draws/ })).toBeVisible();
  await expect(sure.getByText(/draws level if "[^"]+" weighs \d+ % instead of [\d.]+ %/)).toBeVisible();
  const given = await sure.getByRole('row', { name: /Quoinholt Osier/ }).textContent();
  await sure.getByLabel('Weights').selectOption('weights unknown: any are as likely');
  await expect(sure.getByRole('row', { name: /Quoinholt Osier/ })).not.toHaveText(given as string);
  const made = page.getByRole('region', { name: 'What made the difference' });
  const sentence = (await made.getByText(/What was varied explains \d+ %/).textContent()) as string;
  expect(sentence).toMatch(/^Station made [\d.]+ dB \([\d.]+ to [\d.]+\)/);
  await made.getByLabel('Figure').selectOption('Practical noise floor, A');
  await expect(made.getByText(sentence)).toHaveCount(0);

  await page.goto(`${marvet.address}/trials/${saltreach.id}/verdict/report`);
  await expect(page.getByText(sentence)).toBeVisible();
  await expect(page.getByText(/^Quoinholt Osier is clearly first:/)).toBeVisible();
});

test('filters and order of the table are in the address and survive a reload', async ({ page }) => {
  await page.goto(`${marvet.address}/trials/${saltreach.id}/takes`);
  await page.getByLabel('Station').selectOption('reed bank');
  await page.getByLabel('Candidate').selectOption('Witherley Heron');
  const table = page.getByRole('region', { name: 'Table of recordings' });
  await table.getByRole('button', { name: 'Voice over noise dB' }).click();
  await page.reload();
  await expect(page.getByLabel('Station')).toHaveValue(/.+/);
  const values = (await table.locator('tbody td:nth-child(8)').allTextContents()).filter(Boolean).map((text) => Number(text.replace('−', '-')));
  expect(values.length).toBeGreaterThan(3);
  expect([...values].sort((a, b) => a - b)).toEqual(values);
});

test('what was foreseen of the demo stands beside what was found, and a spot is learned from its takes', async ({ page }) => {
  await page.goto(`${marvet.address}/trials/${saltreach.id}/placing?part=found`);
  const sums = page.getByRole('table', { name: 'How right it was' });
  for (const kind of ['voice over noise', 'decay', 'top against the boom']) await expect(sums.getByRole('row', { name: new RegExp(`^${kind} net loft`) })).toBeVisible();
  await page.getByRole('button', { name: 'decay', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Foreseen against found: decay' })).toBeVisible();
  await page.getByRole('table', { name: 'Farthest off' }).getByRole('link').first().click();
  await page.getByRole('slider', { name: /Level over time/ }).waitFor();

  await page.goto(`${marvet.address}/trials/${saltreach.id}/placing?part=body`);
  await expect(
    page
      .getByRole('table', { name: 'What is to be expected' })
      .getByText(/^learned from \d+ takes/)
      .first(),
  ).toBeVisible();
});

test('how far each link holds is told with its doubt, and what was not tried is not told', async ({ page }) => {
  await page.goto(`${marvet.address}/trials/${saltreach.id}/takes?view=range`);
  const table = page.getByRole('table', { name: 'How far each link holds' });
  await expect(table.getByRole('row', { name: /Lowbrack Bittern.*reliable to \d+ m \([\d.]+ m to \d+ m\)/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /Quoinholt Osier.*no break-up seen to 40 m/ })).toBeVisible();
  // The boom goes by cable.
  await expect(table.getByRole('row', { name: /Brackmoor/ })).toBeHidden();
  await page.getByRole('group', { name: 'Where' }).getByRole('button', { name: 'wheelhouse' }).click();
  await expect(page).toHaveURL(/station=/);

  // And in the report, as a limit of use.
  await page.goto(`${marvet.address}/trials/${saltreach.id}/verdict/report`);
  await expect(page.getByRole('table', { name: 'How far each link holds: slipway' }).getByRole('row', { name: /Lowbrack Bittern.*reliable to/ })).toBeVisible();
});

test('the first view loads less than 250 kB of script, compressed', async ({ page }) => {
  const sizes: Promise<number>[] = [];
  page.on('response', (response) => {
    if (response.url().endsWith('.js')) sizes.push(response.body().then((body) => gzipSync(body).byteLength));
  });
  await page.goto(marvet.address);
  await page.getByRole('region', { name: 'Trials' }).waitFor();
  const total = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  expect(total).toBeGreaterThan(50_000);
  expect(total).toBeLessThan(250_000);
});

test('a tape pressed anywhere is picked up into the tray', async ({ page }) => {
  await page.goto(`${marvet.address}/trials/${saltreach.id}/listen`);
  // Somebody sits down to listen and leaves: until that seat is taken away nobody sees the scores of the others.
  await expect(page.getByText('What was answered opens once every listener of this round is done').first()).toBeVisible();
  await page.getByRole('button', { name: 'Delete Axe' }).click();
  const heard = page.getByRole('button', { name: /^Take \d+ Lowbrack Bittern in the tray$/ }).first();
  const slate = ((await heard.getAttribute('aria-label')) ?? '').split(' ')[1];
  await heard.click();
  await page.goto(`${marvet.address}/trials/${saltreach.id}/plan/run-sheet`);
  await page.getByRole('button', { name: `Take ${slate} Quoinholt Osier in the tray` }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toContainText('Fair. Only the candidate differs');
});

test('two recorders that ran on and a camera, all by wrong clocks: the camera finds its takes by its clock, the others by what sounds in both', async ({ page }) => {
  const at = `/trials/${landing.id}`;
  const rows = () => ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  const takes = (await ask<Take[]>(marvet.address, 'GET', `${at}/takes`)).sort((a, b) => a.slate - b.slate);
  expect((await rows()).every(({ takeId }) => takeId === null)).toBe(true);
  await page.goto(`${marvet.address}${at}/takes?view=places`);
  const recorders = page.getByRole('table', { name: 'Recorders' });
  await recorders.getByLabel(/Channel 1 of DUNLIN/).selectOption('Camera, its own pair');
  await recorders.getByLabel(/Channel 1 of BELT/).selectOption('Belt recorder');
  await recorders.getByLabel(/Channel 1 of MIXER/).selectOption('Brackmoor boom');
  await page.getByRole('button', { name: 'Put the 4 that are surer than 90 %' }).click();
  await expect.poll(async () => (await rows()).filter(({ takeId }) => takeId !== null).length).toBe(4);
  for (const name of ['BELT_0007.wav', 'MIXER_0007.wav']) {
    await page.getByRole('button', { name: `Cut ${name} into 4 takes` }).click({ timeout: 90_000 });
    await expect(page.getByText(`${name} is cut about 4 takes`)).toBeVisible();
  }
  const placed = (await rows()).filter(({ takeId }) => takeId !== null);
  for (const { id, setups } of takes) {
    const own = placed.filter(({ takeId }) => takeId === id);
    expect(own.map(({ setupId }) => setups.find((setup) => setup.id === setupId)?.candidateId).sort()).toEqual(setups.map(({ candidateId }) => candidateId).sort());
  }
  // A camera's pair is one recording of two channels.
  expect(placed.filter(({ channels }) => channels.length === 2)).toHaveLength(4);
  await expect.poll(async () => (await rows()).every(({ table }) => table !== null), { timeout: 60_000 }).toBe(true);
  await page.goto(`${marvet.address}${at}/takes`);
  await page.getByRole('checkbox', { name: /Take 01 Belt recorder/ }).check();
  await page.getByRole('checkbox', { name: /Take 01 Camera/ }).check();
  await page.getByRole('button', { name: 'Difference' }).click();
  await expect(page.getByRole('row', { name: 'Later than the second' })).toContainText(/\d\.\d\d ms/, { timeout: 60_000 });
});
