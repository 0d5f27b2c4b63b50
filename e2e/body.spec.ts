import { createHash } from 'node:crypto';
import { expect, type Page, test } from '@playwright/test';
import { bufferSource } from '../core/audio/byteSource.ts';
import { readChannel } from '../core/audio/readSamples.ts';
import { readWavHeader } from '../core/audio/readWavHeader.ts';
import { resample } from '../core/audio/resample.ts';
import type { Placement } from '../core/domain/placement.ts';
import type { Plan } from '../core/domain/plan.ts';
import type { RigRecord } from '../core/domain/rigRecord.ts';
import type { Sight } from '../core/domain/sight.ts';
import type { StoredStation } from '../core/domain/station.ts';
import { hearSetups, type SetupsToHear } from '../core/place/hearSetups.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const of = <Row>(trialId: string, what: string) => ask<Row[]>(marvet.address, 'GET', `/trials/${trialId}/${what}`);

/** A trial with somebody drawn who wears one lavalier. */
async function drawn(page: Page): Promise<string> {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing?part=body`);
  await page.getByRole('button', { name: 'Draw a wearer' }).click();
  await expect(page.getByRole('figure', { name: 'The body with its microphones' })).toBeVisible();
  return trialId;
}

const expected = (page: Page, name: string) => page.getByRole('table', { name: 'What is to be expected' }).getByRole('row', { name: new RegExp(name) });
const topDb = async (page: Page, name: string) => Number((await expected(page, name).getByRole('cell').nth(4).textContent())?.replace('−', '-'));

test('a lavalier is rigged under two cloths, and its colour changes; both become levels of the plan', async ({ page }) => {
  const trialId = await drawn(page);
  const bare = await topDb(page, 'breastbone, high');
  const rig = page.getByRole('region', { name: 'The rig over it' });
  await rig.getByLabel('Add a layer of cloth').selectOption('denim');
  await expect.poll(() => topDb(page, 'breastbone, high')).toBeLessThan(bare - 0.5);
  const denim = await topDb(page, 'breastbone, high');
  await rig.getByLabel('Add a layer of cloth').selectOption('windproof nylon');
  await expect.poll(() => topDb(page, 'breastbone, high')).toBeLessThan(denim - 1);
  await expect(expected(page, 'breastbone, high')).toContainText('rub high');
  await expect(page.getByText('Windproof nylon is crisp')).toBeVisible();

  // A cloth with a number that none can have is refused beside its box, and stays as it was.
  const weight = rig.getByRole('group', { name: 'denim' }).getByLabel('g/m²');
  await weight.fill('0');
  await weight.press('Tab');
  await expect(rig.getByText('5 to 5000. Still 400')).toBeVisible();
  await rig.getByRole('button', { name: 'Take the windproof nylon away' }).click();
  await expect.poll(() => topDb(page, 'breastbone, high')).toBeCloseTo(denim, 1);
  expect((await of<RigRecord>(trialId, 'rigs'))[0]?.layers.map(({ name }) => name)).toEqual(['denim']);

  // The same spot under another rig, side by side.
  await rig.getByRole('button', { name: 'Rig', exact: true }).click();
  await expect(rig.getByLabel('Rig', { exact: true }).locator('option:checked')).toHaveText('Rig 2');
  await rig.getByLabel('Beside it').selectOption('open');
  await expect(page.getByRole('region', { name: /^Colour at breastbone/ }).getByText('Rig 2', { exact: true })).toBeVisible();
  await accessible(page);

  await page.getByRole('button', { name: 'Make breastbone, high a level of the plan' }).click();
  await expect(page.getByText('breastbone, high is a level of the plan')).toBeVisible();
  await rig.getByRole('button', { name: 'Make Rig 2 a level of the plan' }).click();
  await expect(page.getByText('Rig 2 is a level of the plan')).toBeVisible();
  const plan = await ask<Plan>(marvet.address, 'GET', `/trials/${trialId}/plan`);
  const labels = (kind: string) => plan.factors.find((factor) => factor.kind === kind)?.levels.map(({ label }) => label);
  expect([labels('placement'), labels('rig')]).toEqual([['breastbone, high'], ['Rig 2']]);

  // And from the plan back to where it is drawn.
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Plan' }).click();
  await page.getByRole('group', { name: 'Placement' }).getByRole('link', { name: 'drawn' }).click();
  await expect(page.getByRole('figure', { name: 'The body with its microphones' })).toBeVisible();
});

test('a spot is moved by keys alone, its numbers follow, and what was deleted comes back', async ({ page }) => {
  const trialId = await drawn(page);
  await page.getByLabel('Add a spot').selectOption('lapel');
  await expect(expected(page, 'lapel')).toBeVisible();
  const at = async () => (await of<Placement>(trialId, 'placements')).find(({ spot }) => spot === 'lapel')!;
  const before = await at();
  await page.getByRole('button', { name: /^lapel \(\d\), seen from the front/ }).focus();
  for (let step = 0; step < 3; step++) await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(async () => (await at()).at?.upM).toBeCloseTo(before.at!.upM + 0.15, 2);
  const moved = await at();
  // Its distance is that of Pythagoras, and it is told on the page.
  const { forwardM, leftM, upM } = moved.at!;
  expect(moved.distanceM).toBeCloseTo(Math.hypot(forwardM, leftM, upM), 2);
  await expect(expected(page, 'lapel')).toContainText(`${Math.round(100 * Math.hypot(forwardM, leftM, upM))} cm`);

  await page.getByRole('button', { name: 'Delete lapel' }).click();
  await expect(expected(page, 'lapel')).toBeHidden();
  await page.getByText('lapel is in the bin').locator('..').getByRole('button', { name: 'Undo' }).click();
  await expect(expected(page, 'lapel')).toBeVisible();
});

test('a spot is moved with the pointer from the side: out of the chest, not across it', async ({ page }) => {
  const trialId = await drawn(page);
  const before = (await of<Placement>(trialId, 'placements'))[0]!;
  const spot = (await page.getByRole('button', { name: /^breastbone, high \(\d\), seen from the left/ }).boundingBox())!;
  await page.mouse.move(spot.x + spot.width / 2, spot.y + spot.height / 2);
  await page.mouse.down();
  await page.mouse.move(spot.x + spot.width / 2 + 40, spot.y + spot.height / 2, { steps: 4 });
  await page.mouse.up();
  const after = async () => (await of<Placement>(trialId, 'placements'))[0]!;
  await expect.poll(async () => (await after()).at?.forwardM ?? 0).toBeGreaterThan(0.03);
  expect((await after()).at?.leftM).toBe(0);
  expect((await after()).version).toBeGreaterThan(before.version);
});

test('who wears it is asked first, and its build and radio count', async ({ page }) => {
  await drawn(page);
  await expect(page.getByText('Wearer: not asked yet')).toBeVisible();
  await page.getByLabel(/^Consent/).fill('Agreed, collar only');
  await page.getByLabel(/^Consent/).press('Tab');
  await expect(page.getByText('Wearer: not asked yet')).toBeHidden();
  await page.getByText('The transmitter, and what the body takes').click();
  const rose = page.getByRole('figure', { name: /^What the body takes of the radio link/ });
  const ahead = async () => Number((await rose.locator('text').first().textContent())?.replace('−', '-'));
  const middle = await ahead();
  expect(middle).toBeLessThan(-8);
  await page.getByLabel('Build').selectOption('broad');
  await expect.poll(ahead).toBeLessThan(middle);
});

test('whether it is seen is asked twice and answered twice, with the spot in a photograph', async ({ page }) => {
  const trialId = await drawn(page);
  const seen = page.getByRole('region', { name: 'Seen or not' });
  await seen.getByText('Write down an answer').click();
  await seen.getByRole('button', { name: 'Keep the answer' }).click();
  await expect(seen.getByText('Say who').first()).toBeVisible();
  const answer = async (what: string) => {
    if (!(await seen.getByLabel('Who asked').isVisible())) await seen.getByText('Write down an answer').click();
    await seen.getByLabel('Who asked').fill('Mixer');
    await seen.getByLabel('Who answered').fill('Camera');
    await seen.getByLabel('Answer', { exact: true }).selectOption(what);
    await seen.getByRole('button', { name: 'Keep the answer' }).click();
    await expect(seen.locator('article').first().getByText(what, { exact: true })).toBeVisible();
  };
  await answer('seen, and refused');
  await answer('not seen');
  expect((await of<Sight>(trialId, 'sights')).map((each) => each.seen)).toEqual(['seen, and refused', 'not seen']);

  const photo = await page.screenshot({ type: 'png', clip: { x: 0, y: 0, width: 160, height: 90 } });
  await seen.locator('article').first().locator('input[type=file]').setInputFiles({ name: 'frame.png', mimeType: 'image/png', buffer: photo });
  const mark = seen.getByRole('button', { name: /^Mark the spot/ });
  await mark.focus();
  await page.keyboard.press('ArrowRight');
  await expect(seen.getByRole('button', { name: 'The spot is marked at 52 % across and 50 % down' })).toBeVisible();
  expect((await of<Sight>(trialId, 'sights'))[1]?.spot).toEqual({ across: 0.52, down: 0.5 });
});

test('a refrigerator in a room: added, moved by key, told at each microphone, taken away and brought back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing?part=rooms`);
  await expect(page.getByText('No noise is known here')).toBeVisible();
  await page.getByLabel('Add what is heard').selectOption('refrigerator');
  const table = page.getByRole('table', { name: 'Voice over noise at each microphone' });
  const over = async (name: string) =>
    Number(
      (
        await table
          .getByRole('row', { name: new RegExp(name) })
          .getByRole('cell')
          .nth(1)
          .textContent()
      )
        ?.replace('−', '-')
        .split(' ')[0],
    );
  await expect(table.getByRole('row', { name: /boom, 0.6 m above/ })).toContainText('refrigerator');
  expect(await over('boom, 0.6 m above')).toBeGreaterThan(await over('on the camera'));

  const before = await over('boom, 0.6 m above');
  await page.getByRole('button', { name: /^refrigerator, 1.0 m behind/ }).focus();
  for (let step = 0; step < 8; step++) await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(() => over('boom, 0.6 m above')).toBeGreaterThan(before + 6);
  await expect.poll(async () => (await of<StoredStation>(trialId, 'stations'))[0]?.acoustics.sources[0]?.awayM).toBe(5);
  // The boom would win by nothing more; moving away from it does.
  await expect(table).toContainText(/talker and microphone a metre/);
  await accessible(page);

  await page.getByRole('button', { name: 'Take refrigerator away' }).click();
  await expect(page.getByText('No noise is known here')).toBeVisible();
  await page.getByText('refrigerator was taken away').locator('..').getByRole('button', { name: 'Undo' }).click();
  await expect(table.getByRole('row', { name: /on the camera/ })).toContainText('refrigerator');

  // Wind behind each screen, with its doubt.
  await page.getByLabel('Wind m/s').fill('6');
  await page.getByLabel('Wind m/s').press('Tab');
  const wind = page.getByRole('table', { name: 'Wind against screens' });
  await expect(wind.getByRole('row', { name: /fur/ })).toContainText('± 6 dB');
});

test('dangers are drawn in the frame and told: a line that a pole could reach, and a path', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  await page.goto(`${marvet.address}/trials/${trialId}/placing`);
  await page.getByRole('button', { name: 'Draw a frame' }).click();
  await page.getByText('What is in the way', { exact: true }).click();
  await page.getByLabel('Add what is in the way').selectOption('overhead line');
  await expect(page.getByRole('note').filter({ hasText: 'Frame 1: overhead line' })).toContainText('of the line');
  // Higher up it is no longer within reach of any pole.
  await page.getByLabel('Up m').fill('20');
  await page.getByLabel('Up m').press('Tab');
  await expect(page.getByRole('note').filter({ hasText: 'Frame 1: overhead line' })).toBeHidden();
  const danger = async () => (await of<{ dangers: { kind: string; heightM: number }[] }>(trialId, 'frames'))[0]?.dangers[0];
  await expect.poll(danger).toMatchObject({ kind: 'overhead line', heightM: 20 });
});

test('what is worn is heard under two rigs beside a boom, blind if wanted, and the page renders the same samples as the server would', async ({ page }) => {
  test.slow();
  // What the page asks of its worker, and what comes back.
  await page.addInitScript(() => {
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        this.addEventListener('message', async ({ data }) => {
          if (data.kind !== 'done') return;
          const hashes = [];
          for (const { samples } of data.heard) {
            const digest = await crypto.subtle.digest('SHA-256', samples.slice().buffer);
            hashes.push([...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join(''));
          }
          Object.assign(window, { heardHashes: hashes });
        });
      }
      override postMessage(message: unknown, options?: StructuredSerializeOptions | Transferable[]) {
        Object.assign(window, { askedOfWorker: message });
        super.postMessage(message, options as StructuredSerializeOptions);
      }
    };
  });
  await drawn(page);
  await page.getByLabel('Add a layer of cloth').selectOption('denim');
  await page.getByRole('button', { name: 'Rig', exact: true }).click();
  await page.getByLabel('Beside it').selectOption('open');
  const hear = page.getByRole('region', { name: 'Hear it, simulated' });
  await hear.getByLabel('Where').selectOption('jetty');
  await hear.getByRole('button', { name: 'Hear it' }).click();
  const heard = hear.getByRole('group', { name: 'Simulated microphones' });
  await expect(heard.getByRole('button', { name: /^breastbone, high, open/ })).toBeVisible({ timeout: 60_000 });
  await expect(heard.getByRole('button', { name: /^boom/ })).toBeVisible();

  await expect.poll(() => page.evaluate(() => (window as unknown as { heardHashes?: string[] }).heardHashes?.length)).toBe(3);
  const [hashes, asked] = await page.evaluate(() => {
    const { heardHashes, askedOfWorker } = window as unknown as { heardHashes: string[]; askedOfWorker: { voice: { url: string } } };
    return [heardHashes, askedOfWorker] as const;
  });
  const { voice: words, ...setups } = asked as unknown as Omit<SetupsToHear, 'voice' | 'rateHz'> & { voice: { url: string } };
  const source = bufferSource(new Uint8Array(await (await fetch(words.url)).arrayBuffer()));
  const layout = readWavHeader(source);
  const voice = resample(readChannel(source, layout, 0), layout.format.sampleRateHz, 48_000);
  const here = hearSetups({ ...setups, voice, rateHz: 48_000 });
  expect(here.map(({ samples }) => createHash('sha256').update(new Uint8Array(samples.buffer)).digest('hex'))).toEqual(hashes);

  await hear.getByRole('button', { name: 'Hear them blind' }).click();
  await expect(heard.getByRole('button', { name: 'A', exact: true })).toBeVisible();
  await expect(heard.getByText('turned up')).toBeHidden();
  await heard.getByRole('button', { name: 'B', exact: true }).click();
  await expect(heard.getByRole('button', { name: 'B', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await hear.getByRole('button', { name: 'Open the letters' }).click();
  await expect(heard.getByRole('button', { name: /^boom/ })).toBeVisible();
});

test('a close recording of one’s own is heard instead of the shipped words, and one that cannot be read is refused in words', async ({ page }) => {
  test.slow();
  await drawn(page);
  const hear = page.getByRole('region', { name: 'Hear it, simulated' });
  const own = hear.getByLabel('A close recording of your own');
  await own.setInputFiles({ name: 'notes.txt', mimeType: 'audio/wav', buffer: Buffer.from('no sound at all') });
  await expect(hear.getByRole('alert')).toContainText('notes.txt cannot be read as sound');
  await own.setInputFiles('core/simulate/voices/netmaker-counting.wav');
  await expect(hear.getByLabel('Who speaks').locator('option:checked')).toHaveText('netmaker-counting.wav');
  await hear.getByRole('button', { name: 'Hear it' }).click();
  await expect(hear.getByRole('group', { name: 'Simulated microphones' }).getByRole('button', { name: 'Play' })).toBeVisible({ timeout: 60_000 });
});
