import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import type { FileRow, RecordingDetail, RecordingRow } from '../core/contract/recordings.ts';
import { newId } from '../core/domain/identity.ts';
import type { LogLine } from '../core/domain/logLine.ts';
import type { Take } from '../core/domain/take.ts';
import { randomSource } from '../core/simulate/random.ts';
import { talkingDevice } from '../server/devices/standIns/lineServer.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

const STOPS = 100;
/** The page is closed and opened anew at every so many stops. */
const PAGE_EVERY = 10;
/** What is recorded beeps so often, and so long. */
const [BEEP_EVERY_S, BEEP_S] = [0.5, 0.02];
/** As exactly as a beep is found. A piece that is lost, or comes twice, moves it by 0.25 s. */
const HOLE_S = 0.01;

test('a hundred stops in a logged, metered and recorded walk, clean and hard, lose no line, no reading and at most the last second of sound, and double none', async ({
  context,
}) => {
  test.setTimeout(1_500_000);
  const marvet = await runMarvet();
  let read = 0;
  try {
    const { trialId } = await smallTrial(marvet.address);
    const at = `/trials/${trialId}`;
    const [take] = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
    // One browser with its own memory, in which pages come and go.
    await context.grantPermissions(['microphone']);
    const pages: { fromS: number; toS: number }[] = [];
    let page = await openRecorder(context, marvet, trialId);
    await page.getByRole('button', { name: /^Start take/ }).click();
    await expect.poll(async () => (await ask<Take[]>(marvet.address, 'GET', `${at}/takes`))[0]?.status).toBe('rolling');
    read = 0;
    const device = await meter(() => read++);
    await ask(marvet.address, 'POST', `${at}/devices`, { name: 'Meter', kind: 'sound level meter', way: { by: 'json lines', host: '127.0.0.1', port: device.port } });
    let recordedSinceS = await recordedSince(page);
    const random = randomSource(7);
    const acknowledged: string[] = [];
    let pressed = 0;
    for (let stop = 1; stop <= STOPS; stop++) {
      const before = acknowledged.length;
      const posting = post(marvet, trialId, take!.id, acknowledged);
      // A press of the page counts from when it is shown.
      await page.getByRole('button', { name: 'Quoinholt broke up' }).click();
      pressed++;
      await expect(page.getByRole('button', { name: 'Quoinholt broke up' })).toHaveText(new RegExp(`^Broke up ${pressed}$`));
      // At every stop something was acknowledged that must not be lost, however slow the machine is.
      await expect.poll(() => acknowledged.length).toBeGreaterThan(before);
      await new Promise((resolve) => setTimeout(resolve, 20 + 120 * random.uniform()));
      await (stop % 2 === 0 ? marvet.kill() : marvet.stop());
      await posting;
      if (stop % PAGE_EVERY === 0) {
        pages.push({ fromS: recordedSinceS, toS: await heardS(page) });
        await page.close();
      }
      await marvet.start();
      if (stop % PAGE_EVERY === 0 && stop < STOPS) {
        page = await openRecorder(context, marvet, trialId);
        recordedSinceS = await recordedSince(page);
      }
    }
    // The next page sends what the last one left.
    await openWalk(await context.newPage(), marvet, trialId);
    const takeNow = async () => (await ask<Take[]>(marvet.address, 'GET', `${at}/takes`))[0] as Take;
    await expect.poll(async () => (await takeNow()).walk.filter(({ what }) => what === 'link').length).toBe(STOPS);
    const lines = new Set((await ask<LogLine[]>(marvet.address, 'GET', `${at}/log`)).map(({ id }) => id));
    expect(acknowledged.length).toBeGreaterThanOrEqual(STOPS);
    expect(acknowledged.filter((id) => !lines.has(id))).toEqual([]);

    // Every page's sound is there to its last second, without a hole: the beeps of the input come at their time.
    const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
    // While a hundred stops went on nothing was measured to its end: how long that takes on a busy machine is not what is asked here.
    const settled = async () => (await files()).filter(({ state }) => state === 'done' || state === 'failed').length;
    await expect.poll(settled, { timeout: 300_000 }).toBe(pages.length);
    expect((await files()).map(({ state, failure }) => failure ?? state)).toEqual(pages.map(() => 'done'));
    const lengths = (await files()).map(({ format }) => format.durationS).sort((a, b) => b - a);
    const meant = pages.map(({ fromS, toS }) => toS - fromS).sort((a, b) => b - a);
    lengths.forEach((lengthS, index) => expect((meant[index] as number) - lengthS).toBeLessThan(1));
    const uneven: string[] = [];
    for (const { id } of await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`)) {
      const { report } = await ask<RecordingDetail>(marvet.address, 'GET', `${at}/recordings/${id}`);
      const [first, ...beeps] = report!.events.filter(({ kind }) => kind === 'clip').map(({ startS }) => startS);
      expect(beeps.length).toBeGreaterThan(5);
      // A recording may begin in the middle of a beep: the first is then seen late, by no more than its length, and never early.
      const firstS = (beeps[0] as number) - (first as number);
      if (firstS > BEEP_EVERY_S + HOLE_S || firstS < BEEP_EVERY_S - BEEP_S - HOLE_S) uneven.push(`${id}: ${first} to ${beeps[0]} s`);
      for (const [index, startS] of beeps.slice(1).entries()) {
        if (Math.abs(startS - (beeps[index] as number) - BEEP_EVERY_S) > HOLE_S) uneven.push(`${id}: ${beeps[index]} to ${startS} s`);
      }
    }
    expect(uneven).toEqual([]);

    // What the device told arrives whole in the end, each reading once: it keeps what nobody acknowledged.
    device.quiet();
    await expect.poll(() => device.unacknowledged()).toBe(0);
    await device.close();
    await ask(marvet.address, 'POST', `${at}/log`, { lines: [{ id: newId(), takeId: take!.id, atMs: Date.now() + 2000, kind: 'stop' }] });
    const told = await ask<{ devices: { channels: { sum: { count: number; mean: number } }[] }[] }>(marvet.address, 'GET', `${at}/readings/${take!.id}`);
    expect(told.devices[0]!.channels[0]!.sum).toMatchObject({ count: read, mean: 40 });
  } finally {
    await marvet.dispose();
  }
});

/** A meter that tells forty times a second. */
const meter = (onRead: () => void) =>
  talkingDevice(0, {
    hello: { name: 'Meter', kind: 'sound level meter', session: '', channels: [{ id: 'la', quantity: 'soundLevelDba', name: 'Level', group: '' }] },
    everyMs: 25,
    read: () => {
      onRead();
      return { values: { la: 40 } };
    },
  });

/** A page with the inputs open and the recorder armed; a take that rolls already is recorded from then on. */
async function openRecorder(context: BrowserContext, marvet: RunningMarvet, trialId: string): Promise<Page> {
  const page = await context.newPage();
  await page.addInitScript(beepToTheSample, [BEEP_EVERY_S, BEEP_S] as const);
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=record`);
  // A browser on a busy machine may be too slow to open its stand-in for an input, and says so: then it is pressed again.
  const found = page.getByRole('button', { name: 'Listen to it' });
  await expect(async () => {
    if (!(await found.isVisible())) await page.getByRole('button', { name: 'Look for inputs' }).click();
    await expect(found).toBeVisible({ timeout: 8000 });
  }).toPass({ timeout: 25_000 });
  await found.click();
  await page.getByLabel('Record every take as it is started and stopped').check();
  await page.getByRole('button', { name: 'Range walk' }).click();
  await expect(page.getByRole('button', { name: 'Quoinholt broke up' })).toBeVisible();
  return page;
}

/**
 * Runs in the page. The browser's stand-in for an input leaves sound out itself where the machine is busy; what comes in its place is
 * made inside the audio graph, where every sample follows the one before, however late it is worked out.
 */
function beepToTheSample([everyS, longS]: readonly [number, number]): void {
  AudioContext.prototype.createMediaStreamSource = function (this: AudioContext) {
    const beeps = this.createBuffer(2, Math.round(everyS * this.sampleRate), this.sampleRate);
    for (let channel = 0; channel < 2; channel++) {
      const samples = beeps.getChannelData(channel);
      for (let frame = 0; frame < longS * this.sampleRate; frame++) samples[frame] = frame % 48 < 24 ? 1 : -1;
    }
    const source = new AudioBufferSourceNode(this, { buffer: beeps, loop: true });
    source.start();
    (window as unknown as { audioOfInputs: AudioContext }).audioOfInputs = this;
    return source as AudioNode as MediaStreamAudioSourceNode;
  };
}

/** How much sound the page has heard, by its own clock: a browser on a busy machine renders its audio late, and what it never rendered is not lost. */
const heardS = (page: Page) => page.evaluate(() => (window as unknown as { audioOfInputs: AudioContext }).audioOfInputs.currentTime);

/** How much it had heard at a moment at which it is sure that it records. */
async function recordedSince(page: Page): Promise<number> {
  await expect(page.getByText('Recording 2 channels')).toBeVisible();
  return heardS(page);
}

async function openWalk(page: Page, marvet: RunningMarvet, trialId: string): Promise<Page> {
  await page.goto(`${marvet.address}/trials/${trialId}/field?view=walk`);
  await expect(page.getByRole('button', { name: 'Quoinholt broke up' })).toBeVisible();
  return page;
}

/** Posts notes one after the other until the server is gone; each that was answered is acknowledged. */
async function post({ address }: RunningMarvet, trialId: string, takeId: string, acknowledged: string[]): Promise<void> {
  for (;;) {
    const line = { id: newId(), takeId, atMs: Date.now(), kind: 'note', text: `note ${acknowledged.length}` };
    try {
      await ask(address, 'POST', `/trials/${trialId}/log`, { lines: [line] });
      acknowledged.push(line.id);
    } catch {
      // Not answered: nobody was told that it is kept.
      return;
    }
  }
}
