import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import type { Take } from '../core/domain/take.ts';
import { readTrack, toGpx } from '../core/formats/trackPoints.ts';
import { placeFrom } from '../core/radio/bearing.ts';
import { walkScene } from '../core/simulate/walkScene.ts';
import { lineServer } from '../server/devices/standIns/lineServer.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
let folder: string;
test.beforeAll(async () => {
  marvet = await runMarvet();
  folder = await mkdtemp(join(tmpdir(), 'marvet-walk-'));
});
test.afterAll(async () => {
  await marvet.dispose();
  await rm(folder, { recursive: true, force: true });
});

const MARKS_M = [10, 20, 40, 60, 80];
const RECEIVER = { latitudeDeg: 52.0312, longitudeDeg: 2.6521 };
const STEP_S = 12;

/** Two wireless candidates, and pegs out to 80 m. */
async function walkTrial(): Promise<{ trialId: string; chainIds: string[] }> {
  const { trialId, chainIds } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const { id: itemId } = await ask<{ id: string }>(marvet.address, 'POST', '/items', { kind: 'transmitter', name: 'Sedge pack' });
  for (const chain of await ask<{ id: string; version: number }[]>(marvet.address, 'GET', `${at}/chains`))
    await ask(marvet.address, 'PUT', `${at}/chains/${chain.id}`, { ...chain, links: [{ itemId, settings: {} }] });
  const plan = await ask<{ factors: { kind: string; levels: object[] }[] }>(marvet.address, 'GET', `${at}/plan`);
  const levels = MARKS_M.map((value) => ({ id: String(value), label: `${value} m`, value, ticked: true }));
  await ask(marvet.address, 'PUT', `${at}/plan`, { ...plan, factors: plan.factors.map((factor) => (factor.kind === 'distance' ? { ...factor, levels } : factor)) });
  return { trialId, chainIds };
}

const walkOf = async (trialId: string) => (await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`))[0] as Take;
const press = (page: Page, name: RegExp | string) => page.getByRole('button', { name, exact: typeof name === 'string' }).click();

test('a whole range walk with a receiver and positions, to a range and a limit of use', async ({ page }) => {
  test.slow();
  const { trialId } = await walkTrial();
  // The walk lies some minutes back: the device kept what it heard, and the page's clock runs through it.
  const startMs = Date.now() - 10 * 60_000;
  const scene = walkScene({ seed: 3, toM: 80, speedMs: 80 / (MARKS_M.length * STEP_S) });
  const receiver = await lineServer(0, (say) => {
    const groups = ['1', '2'];
    const channels = [
      ...groups.flatMap((group) => [{ id: `rf${group}`, quantity: 'radioLevelDbm', name: 'Aerials', group }]),
      { id: 'lat', quantity: 'latitudeDeg', name: 'Latitude', group: 'on the talker' },
      { id: 'lon', quantity: 'longitudeDeg', name: 'Longitude', group: 'on the talker' },
    ];
    say(JSON.stringify({ hello: 1, name: 'Bench receiver', kind: 'receiver', session: 'walk', now: Date.now(), channels }));
    for (let second = 0; second < 170; second++) {
      const moment = scene.at(second);
      const { latitudeDeg: lat, longitudeDeg: lon } = placeFrom(RECEIVER, moment.asideM, moment.distanceM);
      say(JSON.stringify({ n: second + 1, at: startMs + second * 1000, values: { rf1: Math.max(...moment.radioDbm[0]!), rf2: Math.max(...moment.radioDbm[1]!), lat, lon } }));
    }
  });
  try {
    await page.goto(`${marvet.address}/trials/${trialId}/field?view=devices`);
    await press(page, 'Adopt a device');
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Adopt', exact: true }).click();
    await expect(dialog.getByText('Give it a name')).toBeVisible();
    await dialog.getByLabel('Name').fill('Bench receiver');
    await dialog.getByLabel('Port').fill(String(receiver.port));
    await dialog.getByRole('button', { name: 'Adopt', exact: true }).click();
    const device = page.getByRole('list', { name: 'Devices' }).getByRole('listitem').filter({ hasText: 'Bench receiver' }).first();
    await expect(device).toContainText('live');
    await device.getByLabel('Bench receiver 1 belongs to').selectOption({ label: 'QU Quoinholt' });
    await expect(device.getByLabel('Bench receiver 1 belongs to').locator('option:checked')).toHaveText('QU Quoinholt');
    await device.getByLabel('Bench receiver 2 belongs to').selectOption({ label: 'LO Lodestar' });
    await expect(device.getByLabel('Bench receiver 2 belongs to').locator('option:checked')).toHaveText('LO Lodestar');

    // The clock of the page is meant to be in the past: without its time of sending nothing is put right.
    await page.route('**/log', async (route) => {
      const { lines } = route.request().postDataJSON() as { lines: unknown[] };
      await route.continue({ postData: JSON.stringify({ lines }) });
    });
    await page.clock.install({ time: startMs });
    await page.goto(`${marvet.address}/trials/${trialId}/field?view=walk`);
    await press(page, /^Start take/);
    const goOn = () => page.clock.fastForward(STEP_S * 1000);
    await press(page, /^turned/);
    for (const metres of MARKS_M) {
      await goOn();
      await press(page, new RegExp(`^Passed ${metres} m`));
      if (metres === 60) await press(page, 'Lodestar broke up');
      if (metres === 80) await press(page, 'All of them broke up');
    }
    await press(page, 'Lodestar is unusable');
    await expect(page.getByRole('button', { name: 'Lodestar is back again' })).toBeVisible();
    await goOn();
    await press(page, 'Lodestar is back again');
    await press(page, /^facing/);
    await press(page, /^back/);
    for (const metres of MARKS_M.toReversed().slice(1)) {
      await goOn();
      await press(page, new RegExp(`^Passed ${metres} m`));
    }
    // Pressed by mistake, and taken back.
    await press(page, 'Quoinholt broke up');
    await press(page, 'Take back: QU broke up');
    await page.getByText('What is in the way, what else is on air').click();
    await press(page, 'power line');
    await page.getByLabel('In other words').fill('access point on the shed');
    await page.getByLabel('Its radio level, dBm').fill('-64');
    await page.getByLabel('Its radio level, dBm').blur();
    await press(page, 'On air');
    await goOn();
    await press(page, /^Stop/);
    await expect(page.getByRole('button', { name: /^Next/ })).toBeVisible();

    await expect(page.getByRole('img', { name: /^The way of the walk: up to (79|8\d) m from where it began, \d break-ups pressed/ })).toBeVisible();
    await expect(page.getByRole('figure', { name: 'Radio level against distance' })).toBeVisible();
    await page.getByText('As a table').click();
    await expect(page.getByRole('row', { name: /Quoinholt turned/ })).toBeVisible();
    await accessible(page);

    await expect.poll(async () => (await walkOf(trialId)).walk.filter(({ what }) => what === 'mark').length).toBe(9);
    const { walk } = await walkOf(trialId);
    expect(walk.filter(({ what }) => what === 'link')).toHaveLength(4);
    expect(walk.some((entry) => entry.what === 'on air' && entry.text === 'access point on the shed' && entry.levelDbm === -64)).toBe(true);

    await page.getByRole('link', { name: 'How far each link holds' }).click();
    const told = page.getByRole('table', { name: 'How far each link holds' });
    await expect(told.getByRole('row', { name: /Lodestar turned/ })).toContainText(/reliable to \d+ m \(/);
    await expect(page.getByText(/spots? where links broke up speaks? for neither place nor device yet/)).toBeVisible();

    // As a criterion with a limit it decides, and as a limit of use it stands in the report.
    await ask(marvet.address, 'POST', `/trials/${trialId}/criteria`, {
      name: 'Holds when turned',
      kind: 'measured',
      measureId: 'range.turnedM',
      weight: 2,
      best: 100,
      worst: 10,
      // Farther than anybody walked: that it rules out does not hang on where the links broke up this time.
      dealbreaker: { side: 'below', limit: 300 },
    });
    await ask(marvet.address, 'POST', `/trials/${trialId}/verdict/open`);
    await page.goto(`${marvet.address}/trials/${trialId}/verdict`);
    await expect(page.getByText(/Holds when turned is below its limit/)).toHaveCount(2);
    await page.goto(`${marvet.address}/trials/${trialId}/verdict/report`);
    const limits = page.getByRole('region', { name: 'How far each link holds' });
    await expect(limits.getByRole('row', { name: /Lodestar facing/ })).toContainText('no break-up seen to');
    await expect(limits.getByRole('row', { name: /Lodestar turned/ })).toContainText(/reliable to \d+ m/);
  } finally {
    await receiver.close();
  }
});

test('a track goes out as GPX and CSV and comes in from a file, and is taken for the walk of its time only', async ({ page }) => {
  const { trialId } = await walkTrial();
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=walk`);
  await press(page, /^Start take/);
  await press(page, /^Passed 10 m/);
  await press(page, /^Stop/);
  await expect(page.getByRole('button', { name: /^Next/ })).toBeVisible();
  const { startedAtMs } = await walkOf(trialId);
  const points = Array.from({ length: 40 }, (_, second) => ({ atMs: startedAtMs! - 20_000 + second * 1000, accuracyM: null, ...placeFrom(RECEIVER, second, 0) }));
  const [right, wrong] = [join(folder, 'walk.gpx'), join(folder, 'other.gpx')];
  await writeFile(right, toGpx('Jetty', points));
  await writeFile(
    wrong,
    toGpx(
      'Jetty',
      points.map((point) => ({ ...point, atMs: point.atMs - 86_400_000 })),
    ),
  );
  const box = page.getByLabel('A track of this walk, GPX, CSV or NMEA');
  await box.setInputFiles(wrong);
  await expect(page.getByText(/none of its 40 points is within an hour of this take/)).toBeVisible();
  await box.setInputFiles(right);
  await expect(page.getByText(/walk.gpx: 40 points are the way of this take/)).toBeVisible();
  await expect(page.getByRole('img', { name: /^The way of the walk: up to 39 m/ })).toBeVisible();
  // A track of another walk by mistake would be taken back.
  await press(page, 'Take the track back');
  await expect(page.getByRole('img', { name: /^The way of the walk/ })).toBeHidden();
  await box.setInputFiles(right);
  await expect(page.getByRole('img', { name: /^The way of the walk: up to 39 m/ })).toBeVisible();
  for (const kind of ['GPX', 'CSV']) {
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: `Track of 01 as ${kind}` }).click()]);
    const back = readTrack(await readFile(await download.path(), 'utf8'));
    expect(back.points.map(({ atMs }) => atMs)).toEqual(points.map(({ atMs }) => atMs));
  }
});

test('this phone tells where it is, once the browser may', async ({ page, context }) => {
  const { trialId } = await walkTrial();
  await context.grantPermissions(['geolocation'], { origin: marvet.address });
  await context.setGeolocation({ ...{ latitude: RECEIVER.latitudeDeg, longitude: RECEIVER.longitudeDeg }, accuracy: 4 });
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=walk`);
  await press(page, /^Start take/);
  await page.getByLabel(/^Take where this phone is/).check();
  await expect(page.getByText('± 4 m')).toBeVisible();
  await press(page, 'The receiver stands here');
  const away = placeFrom(RECEIVER, 0, 30);
  await context.setGeolocation({ latitude: away.latitudeDeg, longitude: away.longitudeDeg, accuracy: 5 });
  await expect(page.getByText('± 5 m')).toBeVisible();
  await press(page, /^Stop/);
  await expect(page.getByRole('img', { name: /^The way of the walk: up to 30 m from the receiver/ })).toBeVisible();
});

test('Space stops the take, whatever was pressed by pointer before', async ({ page }) => {
  const { trialId } = await walkTrial();
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=walk`);
  await press(page, /^Start take/);
  await press(page, 'Quoinholt broke up');
  await page.keyboard.press('Space');
  await expect.poll(async () => (await walkOf(trialId)).status).toBe('done');
  expect((await walkOf(trialId)).walk).toHaveLength(1);
});

test('a walk by keys alone', async ({ page }) => {
  const { trialId } = await walkTrial();
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=walk`);
  await expect(page.getByRole('button', { name: /^Passed 10 m/ })).toBeVisible();
  for (const key of ['Space', 'm', 'm', 'f', '1', '0', 'Shift+2', 'o', 'm', 'Shift+2', 'Space']) await page.keyboard.press(key);
  await expect(page.getByRole('button', { name: /^Next/ })).toBeVisible();
  await expect.poll(async () => (await walkOf(trialId)).status).toBe('done');
  const { walk, setups } = await walkOf(trialId);
  const told = walk.map((entry) =>
    entry.what === 'mark'
      ? entry.distanceM
      : entry.what === 'leg'
        ? `${entry.heading} ${entry.side}`
        : entry.what === 'link'
          ? `${entry.setupIds.map((id) => setups.findIndex((setup) => setup.id === id) + 1)} ${entry.state}`
          : entry.what,
  );
  expect(told).toEqual([10, 20, 'out turned', '1 broke up', '1,2 broke up', '2 unusable', 'back turned', 10, '2 back again']);
});

test('everything of a rolling take is within reach of a thumb, and start and stop never move', async ({ page }) => {
  const { trialId } = await walkTrial();
  await page.setViewportSize({ width: 390, height: 844 });
  for (const view of ['', '?view=walk']) {
    await page.goto(`${marvet.address}/trials/${trialId}/field${view}`);
    const act = page.locator('.runner-act');
    await expect(act).toBeVisible();
    const before = await act.boundingBox();
    if (view === '') await act.click();
    await expect(act).toHaveText(/^Stop/);
    expect(await act.boundingBox()).toEqual(before);
    const names =
      view === ''
        ? [/^Wind/, /^Traffic/, /^Break-up/, /^Handling/, /^Spoiled/, /^Not started/]
        : [/^Passed/, /^turned/, /^back/, 'All of them broke up', 'Quoinholt broke up', 'Lodestar broke up', 'Lodestar is unusable'];
    for (const name of names) {
      const button = page.getByRole('button', { name });
      const box = (await button.boundingBox())!;
      expect(box.height).toBeGreaterThanOrEqual(44);
      expect(box.y + box.height, String(name)).toBeLessThanOrEqual(844);
      // Nothing lies over it.
      await button.click({ trial: true });
    }
    if (view === '') {
      // What is switched is within reach too, once it is opened.
      await page.getByText('Switch something while it rolls').click();
      for (const name of ['noise reduction on', 'limiter in', 'pad out']) {
        const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
        expect(box.height).toBeGreaterThanOrEqual(44);
        await page.getByRole('button', { name, exact: true }).click({ trial: true });
        expect(box.y + box.height, name).toBeLessThanOrEqual(before!.y);
      }
    }
    await page.mouse.wheel(0, 600);
    expect(await act.boundingBox()).toEqual(before);
  }
});

test('stand-ins are started, adopted, seen live, noted, lost with one alarm, and back again', async ({ page }) => {
  const { trialId } = await walkTrial();
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=devices`);
  await press(page, 'Start and adopt them');
  const devices = page.getByRole('list', { name: 'Devices' });
  await expect(devices.getByText('live', { exact: true })).toHaveCount(5);
  await expect(devices.getByLabel('Stand-in receiver, two channels 1 belongs to').locator('option:checked')).toHaveText('QU Quoinholt');
  await accessible(page);
  await press(page, 'Runner');
  await press(page, 'Note as this take’s');
  await expect.poll(async () => (await walkOf(trialId)).noiseDba).toBeGreaterThan(30);
  await press(page, 'Devices');
  await press(page, 'Stop them');
  await press(page, 'Runner');
  const alarms = page.getByRole('list', { name: 'Alarms of devices' });
  await expect(alarms.getByRole('alert')).toHaveCount(5);
  await expect(alarms).toContainText('Stand-in recorder: gone, nothing listens at its address');
  await accessible(page);
  await press(page, /^Put away: Stand-in recorder/);
  await expect(alarms.getByRole('alert')).toHaveCount(4);
  await press(page, 'Devices');
  await press(page, 'Start and adopt them');
  await expect(devices.getByText('live', { exact: true })).toHaveCount(5);
  await expect(devices.getByRole('checkbox')).toHaveCount(5);
  await press(page, 'Delete Stand-in wind meter');
  await expect(devices.getByText('Stand-in wind meter')).toBeHidden();
  await press(page, 'Undo');
  await expect(devices.getByText('Stand-in wind meter')).toBeVisible();
});

test('what a meter kept by itself is laid on the takes of its time', async ({ page }) => {
  const { trialId } = await walkTrial();
  await page.goto(`${marvet.address}/trials/${trialId}/field`);
  await press(page, /^Start take/);
  await press(page, /^Stop/);
  await expect(page.getByRole('button', { name: /^Next/ })).toBeVisible();
  await expect.poll(async () => (await walkOf(trialId)).status).toBe('done');
  const take = await walkOf(trialId);
  const rows = Array.from({ length: 56 }, (_, second) => `${new Date(take.startedAtMs! - 55_000 + second * 1000).toISOString()},${40 + second / 10}`);
  const path = join(folder, 'meter.csv');
  await writeFile(path, ['time,LAF dB(A)', ...rows].join('\n'));
  await press(page, 'Devices');
  // Opened before the view has settled, it may be closed again by what comes in.
  const fold = page.locator('details', { hasText: 'A meter that is read afterwards' }).last();
  await expect(async () => {
    if (!(await fold.evaluate((element: HTMLDetailsElement) => element.open))) await page.getByText('A meter that is read afterwards').click();
    await expect(fold).toHaveAttribute('open');
  }).toPass();
  for (const _time of [1, 2]) {
    await page.getByLabel('CSV with a column of times').setInputFiles(path);
    await expect(page.getByText(/meter.csv: 56 rows from .* lie with the takes of their time/)).toBeVisible();
  }
  const { devices } = await ask<{ devices: { channels: { sum: { mean: number; count: number } }[] }[] }>(marvet.address, 'GET', `/trials/${trialId}/readings/${take.id}`);
  const { mean, count } = devices[0]!.channels[0]!.sum;
  expect(mean).toBeCloseTo(45.5, 0);
  // Chosen twice, it counts once.
  expect(count).toBeLessThan(3);
});

test('a level from the microphone of this page is marked as not calibrated until it is set against a known one', async ({ page, context }) => {
  // The simulated microphone of a machine without any sound can take a minute to wake.
  test.slow();
  const { trialId } = await walkTrial();
  await context.grantPermissions(['microphone'], { origin: marvet.address });
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=devices`);
  await page.getByText('A level from the microphone of this page').click();
  await page.getByLabel('Listen', { exact: true }).check();
  await expect(page.getByText('not calibrated: good for louder and quieter, not for dB A')).toBeVisible();
  await expect(page.getByText(/^−\d+ dBFS \(A\)$/).first()).toBeVisible({ timeout: 180_000 });
  await expect(page.getByText(/^Nothing is done to the sound, at/)).toBeVisible();
  const devices = page.getByRole('list', { name: 'Devices' });
  await expect(devices).toContainText('Level, A-weighted, not calibrated');
  await page.getByLabel('A meter beside it reads, dB A').fill('60');
  await page.getByLabel('A meter beside it reads, dB A').blur();
  await expect(page.getByText(/^\d+ dB A$/).first()).toBeVisible();
  await expect(devices.getByText(/^[\d.]+ dB A$/)).toBeVisible();
});
