import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { filled } from '../core/audio/filled.ts';
import type { FileRow, RecordingRow } from '../core/contract/recordings.ts';
import { newId } from '../core/domain/identity.ts';
import type { Take } from '../core/domain/take.ts';
import { fieldRecordingWav } from '../core/simulate/fieldRecording.ts';
import { dryClip } from '../demo/dryClip.ts';
import { accessible } from './accessible.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

let marvet: RunningMarvet;
test.beforeAll(async () => {
  marvet = await runMarvet();
});
test.afterAll(() => marvet.dispose());

const RATE_HZ = 48_000;
/** Seconds after the first start at which takes were started, and how long they ran. */
const LOGGED: [atS: number, lengthS: number][] = [
  [0, 11],
  [140, 16],
  [420, 9],
  [515, 21],
];
/** A quicker morning, for what runs on over all of it. */
const CLOSE_TOGETHER: [atS: number, lengthS: number][] = [
  [0, 11],
  [44, 16],
  [115, 9],
  [147, 21],
];
const CARDS = [
  { card: 'Gull', aheadS: 26 * 3600 - 340 },
  { card: 'Tern', aheadS: -5 * 3600 + 71 },
];

const VOICE = dryClip('ferrier-neutral', RATE_HZ);
/** A voice for as long as it takes, each file at another place of it. */
const spokenFor = (lengthS: number, number: number) => filled(Math.round(lengthS * RATE_HZ), (frame) => VOICE[(frame + number * RATE_HZ) % VOICE.length] as number);

/** A file as a recorder writes it: by the time of the place. */
const recordedAt = (atMs: number, channels: Float64Array[], trackNames: string[]) => {
  const startedAtMs = atMs - new Date(atMs).getTimezoneOffset() * 60_000;
  return fieldRecordingWav({ channels, sampleRateHz: RATE_HZ, project: '', scene: '', take: '', tape: '', note: '', trackNames, startedAtMs });
};

/** A trial whose takes were logged three hours ago, one soon after the other, and a folder for what was recorded meanwhile. */
async function quickMorning() {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const takes = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  const firstMs = Date.now() - 3 * 3600_000;
  await ask(marvet.address, 'POST', `${at}/log`, { lines: loggedLines(takes, firstMs, CLOSE_TOGETHER) });
  return { at, takes, beganMs: firstMs - 20_000, folder: await mkdtemp(join(tmpdir(), 'marvet-day-')) };
}

/** The log of the takes, as it was written on the day. */
const loggedLines = (takes: readonly Take[], firstMs: number, logged = LOGGED) =>
  logged.flatMap(([atS, lengthS], index) => {
    const line = { takeId: takes[index]!.id };
    const startMs = firstMs + atS * 1000;
    return [
      { ...line, id: newId(), kind: 'start', atMs: startMs },
      { ...line, id: newId(), kind: 'stop', atMs: startMs + lengthS * 1000 },
    ];
  });

/** Two cards of machine-named files, each by a clock of its own, and a false start. */
async function twoCards(firstMs: number): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'marvet-cards-'));
  for (const { card, aheadS } of CARDS) {
    await mkdir(join(folder, card));
    const write = (number: number, atS: number, lengthS: number) => {
      const bytes = recordedAt(firstMs + (atS + aheadS) * 1000, [spokenFor(lengthS, number)], ['']);
      return writeFile(join(folder, card, `REC_${String(number).padStart(4, '0')}.WAV`), bytes);
    };
    for (const [index, [atS, lengthS]] of LOGGED.entries()) await write(index + 1, atS - 4 - 0.5 * index, lengthS + 9);
    await write(9, 280, 5);
  }
  return folder;
}

test('two cards of machine-named files, hours off: each finds its take, is put there at once, told whose it is, moved by keyboard, and taken back', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const takes = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  const firstMs = Date.now() - 3 * 3600_000;
  await ask(marvet.address, 'POST', `${at}/log`, { lines: loggedLines(takes, firstMs) });
  const folder = await twoCards(firstMs);
  await page.goto(`${marvet.address}${at}/takes`);
  await page.getByLabel('A folder with sound').setInputFiles(folder);
  await expect(page.getByText('10 of 10 are here')).toBeVisible();
  await page.getByRole('button', { name: /^Places/ }).click();

  const recorders = page.getByRole('table', { name: 'Recorders' });
  await expect(recorders.getByRole('row', { name: /Gull/ })).toContainText(/about 1 d 1 h 54 min \d+ s ahead, .*99 % sure/);
  await expect(recorders.getByRole('row', { name: /Tern/ })).toContainText(/4 h 58 min \d+ s behind/);
  const table = page.getByRole('region', { name: 'Table of places' });
  await expect(table.getByRole('row', { name: /REC_0009/ }).first()).toContainText('by its clock nothing was logged then');
  await accessible(page);
  await page.getByRole('button', { name: 'Put the 8 that are surer than 90 %' }).click();
  const rows = () => ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  const meant = (name: string) => takes[Number(name.slice(4, 8)) - 1]?.id ?? null;
  await expect.poll(async () => (await rows()).filter(({ takeId }) => takeId !== null).length).toBe(8);
  for (const { fileName, takeId } of await rows()) expect(takeId).toBe(meant(fileName));

  // Whose channel it is, is said once for a recorder.
  await recorders.getByLabel(/Channel 1 of .*Gull/).selectOption('Quoinholt');
  await recorders.getByLabel(/Channel 1 of .*Tern/).selectOption('Lodestar');
  await expect.poll(async () => (await rows()).filter(({ setupId }) => setupId !== null).length).toBe(8);

  // By keyboard: the false start of the first card is said to be of the second take, and undone.
  const choice = table.getByLabel('Take of REC_0009.WAV').first();
  await choice.focus();
  await page.keyboard.press('0');
  await page.keyboard.press('2');
  await expect.poll(async () => (await rows()).filter(({ takeId }) => takeId === takes[1]!.id).length).toBe(3);
  await expect(page.getByText(/lies there by hand; by its clock it is of no take/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await rows()).filter(({ takeId }) => takeId === takes[1]!.id).length).toBe(2);

  // A file is heard before it is put anywhere.
  await table.getByRole('button', { name: 'Hear REC_0009.WAV' }).first().click();
  const player = page.getByLabel('Channel 1 of REC_0009.WAV');
  await player.evaluate((element: HTMLAudioElement) => element.play());
  await expect.poll(() => player.evaluate((element: HTMLAudioElement) => element.currentTime)).toBeGreaterThan(0.2);

  // Measured in their takes, and two of one take are compared.
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  await expect.poll(async () => (await files()).filter(({ state }) => state === 'done').length, { timeout: 60_000 }).toBe(10);
  await page.getByRole('button', { name: /^Recordings/ }).click();
  await expect(page.getByRole('region', { name: 'Table of recordings' }).getByRole('row')).toHaveCount(11);
  await rm(folder, { recursive: true });
});

test('a clock that is set by hand moves all files of its recorder, and is found again', async ({ page }) => {
  const { trialId } = await smallTrial(marvet.address);
  const at = `/trials/${trialId}`;
  const takes = await ask<Take[]>(marvet.address, 'GET', `${at}/takes`);
  const firstMs = Date.now() - 3 * 3600_000;
  // One take only: where the clock may be anything, it says little.
  await ask(marvet.address, 'POST', `${at}/log`, {
    lines: [
      { id: newId(), takeId: takes[0]!.id, kind: 'start', atMs: firstMs },
      { id: newId(), takeId: takes[0]!.id, kind: 'stop', atMs: firstMs + 11_000 },
    ],
  });
  const folder = await twoCards(firstMs);
  await page.goto(`${marvet.address}${at}/takes?view=places`);
  await page.getByLabel('A folder with sound').setInputFiles(join(folder, 'Tern'));
  await expect(page.getByText('5 of 5 are here')).toBeVisible();
  await expect(page.getByRole('button', { name: 'None left that is surer than 90 %' })).toBeDisabled();
  await page.getByLabel(/Seconds by which .*Tern.* is ahead/).fill(String(-5 * 3600 + 71));
  await page.getByLabel(/Seconds by which .*Tern.* is ahead/).blur();
  await page.getByRole('button', { name: 'Put the 1 that is surer than 90 %' }).click();
  const rows = () => ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`);
  await expect.poll(async () => (await rows()).filter(({ takeId }) => takeId !== null).map(({ fileName }) => fileName)).toEqual(['REC_0001.WAV']);
  await page.getByRole('button', { name: 'Find it' }).click();
  await expect(page.getByRole('button', { name: 'Find it' })).toHaveCount(0);
  await rm(folder, { recursive: true });
});

test('a transmitter that recorded all day is cut about its takes once its clock is known, and each part is heard and compared', async ({ page }) => {
  const { at, takes, beganMs, folder } = await quickMorning();
  const words = spokenFor(195, 1);
  const bytes = recordedAt(beganMs, [words, words.map((sample) => 0.5 * sample)], ['QU', 'LO']);
  await writeFile(join(folder, 'TX_0001.WAV'), bytes);
  await page.goto(`${marvet.address}${at}/takes?view=places`);
  await page.getByLabel('Sound files').setInputFiles(join(folder, 'TX_0001.WAV'));
  await expect(page.getByText('1 of 1 are here')).toBeVisible();
  await page.getByRole('button', { name: 'It is right' }).click();
  const table = page.getByRole('region', { name: 'Table of places' });
  await expect(table).toContainText('runs over 01, 02, 03, 04: it is to be cut');
  await page.getByRole('button', { name: 'Cut TX_0001.WAV into 4 takes' }).click();
  await expect(page.getByText('Every file is in its place, and no clock contradicts.')).toBeVisible();
  const rows = async () => (await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`)).sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0));
  await expect.poll(async () => (await rows()).filter(({ takeId, setupId }) => takeId !== null && setupId !== null).length).toBe(8);
  expect((await rows()).filter(({ channels: [channel] }) => channel === 0).map(({ takeId, startS }) => [takeId, Math.round(startS ?? 0)])).toEqual([
    [takes[0]!.id, 15],
    [takes[1]!.id, 59],
    [takes[2]!.id, 130],
    [takes[3]!.id, 162],
  ]);
  // One part is looked into: it begins where it was cut, and is its own length.
  const files = () => ask<FileRow[]>(marvet.address, 'GET', `${at}/files`);
  await expect.poll(async () => (await files())[0]?.state, { timeout: 60_000 }).toBe('done');
  const [part, other] = (await rows()).filter(({ takeId }) => takeId === takes[1]!.id);
  await page.goto(`${marvet.address}${at}/takes/${part!.id}`);
  await expect(page.getByText('cut out about its take by the clock of its recorder')).toBeVisible();
  const audio = page.getByLabel('This recording');
  await audio.evaluate((element: HTMLAudioElement) => element.play());
  await expect.poll(() => audio.evaluate((element: HTMLAudioElement) => Math.round(element.duration))).toBe(26);
  // The two channels of one take are the same words, half as loud.
  await page.goto(`${marvet.address}${at}/takes/pair/${other!.id}/${part!.id}`);
  await expect(page.getByText(/6\.0 dB/).first()).toBeVisible();
  // Joined again it is one file without a take, and that is undone too.
  await page.goto(`${marvet.address}${at}/takes?view=places`);
  await page.getByLabel('those that are in place too').check();
  await page.getByRole('button', { name: 'Join TX_0001.WAV again' }).click();
  await expect.poll(async () => (await rows()).length).toBe(2);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await rows()).length).toBe(8);
  await rm(folder, { recursive: true });
});

test('a recording that its recorder split in the middle of a take is told, joined, cut about its takes, and comes apart again', async ({ page }) => {
  const { at, takes, beganMs, folder } = await quickMorning();
  const [seamS, lengthS] = [70.5, 100];
  const whole = spokenFor(lengthS, 1);
  await writeFile(join(folder, 'TX_0001.WAV'), recordedAt(beganMs, [whole.subarray(0, seamS * RATE_HZ)], ['QU']));
  await writeFile(join(folder, 'TX_0002.WAV'), recordedAt(beganMs + seamS * 1000, [whole.subarray(seamS * RATE_HZ)], ['QU']));
  await page.goto(`${marvet.address}${at}/takes?view=places`);
  await page.getByLabel('Sound files').setInputFiles([1, 2].map((number) => join(folder, `TX_000${number}.WAV`)));
  await expect(page.getByText('2 of 2 are here')).toBeVisible();
  const split = page.getByRole('region', { name: 'Recordings in several files' });
  await expect(split).toContainText('TX_0001.WAV goes on in TX_0002.WAV: one recording that its recorder split, by their time references');
  await accessible(page);
  await split.getByRole('button', { name: 'Join the 2' }).click();
  await expect(page.getByText('TX_0001 to 0002.wav is one recording; its parts are in the bin as they came')).toBeVisible();
  await expect(split).toBeHidden();
  const files = async () => (await ask<FileRow[]>(marvet.address, 'GET', `${at}/files`)).map(({ name }) => name).sort();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(files).toEqual(['TX_0001.WAV', 'TX_0002.WAV']);
  await split.getByRole('button', { name: 'Join the 2' }).click();
  await expect.poll(files).toEqual(['TX_0001 to 0002.wav']);

  await page.getByRole('button', { name: 'It is right' }).click();
  await page.getByRole('button', { name: 'Cut TX_0001 to 0002.wav into 2 takes' }).click();
  await expect(page.getByText('Every file is in its place, and no clock contradicts.')).toBeVisible();
  // The take over the seam is whole, as long as the log has it, with five seconds before and after.
  const rows = async () => (await ask<RecordingRow[]>(marvet.address, 'GET', `${at}/recordings`)).filter(({ takeId }) => takeId === takes[1]!.id);
  await expect.poll(async () => (await rows()).map(({ startS, endS, table }) => [startS, endS, table !== null])).toEqual([[59, 85, true]]);
  await rm(folder, { recursive: true });
});
