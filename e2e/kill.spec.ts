import { readdir } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { filled } from '../core/audio/filled.ts';
import type { RecordingRow } from '../core/contract/recordings.ts';
import { newId } from '../core/domain/identity.ts';
import type { AudioFile } from '../core/domain/recording.ts';
import type { Take } from '../core/domain/take.ts';
import { fieldRecordingWav } from '../core/simulate/fieldRecording.ts';
import { spoken } from '../core/testing/signals.ts';
import { type RunningMarvet, runMarvet } from './marvet.ts';
import { ask, smallTrial } from './smallTrial.ts';

// The server goes away in here.
test.use({ serviceWorkers: 'allow' });

let marvet: RunningMarvet;
test.beforeEach(async () => {
  marvet = await runMarvet();
});
test.afterEach(() => marvet.dispose());

const long = (seed: number) => {
  const voice = spoken(-26, -60, seed);
  return filled(voice.length * 12, (index) => voice[index % voice.length]!);
};
const wav = (seed: number, scene: string) =>
  fieldRecordingWav({
    channels: [long(seed), long(seed + 50)],
    sampleRateHz: 48_000,
    project: 'P',
    scene,
    take: '1',
    tape: '',
    note: '',
    trackNames: ['QU', 'LO'],
    startedAtMs: 0,
  });
const upload = async (trialId: string, name: string, bytes: Uint8Array) =>
  (await fetch(`${marvet.address}/api/trials/${trialId}/files?name=${name}`, { method: 'POST', body: bytes as never })).json() as Promise<{ file: AudioFile }>;
const filesOf = (trialId: string) => ask<AudioFile[]>(marvet.address, 'GET', `/trials/${trialId}/files`);

test('killed in the middle of an upload: what was acknowledged is there, the half file is not', async () => {
  const { trialId } = await smallTrial(marvet.address);
  const { file } = await upload(trialId, 'S001.wav', wav(1, '1'));
  const [take] = await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`);
  await ask(marvet.address, 'POST', `/trials/${trialId}/log`, { lines: [{ id: newId(), takeId: take!.id, atMs: 5, kind: 'note', text: 'kept' }] });
  const bytes = wav(2, '2');
  const { port } = new URL(marvet.address);
  const half = request({ host: '127.0.0.1', port, method: 'POST', path: `/api/trials/${trialId}/files?name=S002.wav`, headers: { 'content-length': bytes.byteLength } });
  half.on('error', () => undefined);
  await new Promise<void>((resolve) => half.write(bytes.subarray(0, bytes.byteLength / 2), () => resolve()));
  await expect.poll(async () => (await readdir(join(marvet.dataFolder, 'incoming'))).length).toBeGreaterThan(0);
  await marvet.kill();
  await marvet.start();
  expect(await readdir(join(marvet.dataFolder, 'incoming'))).toEqual([]);
  expect((await filesOf(trialId)).map((each) => [each.id, each.name])).toEqual([[file.id, 'S001.wav']]);
  expect((await ask<Take[]>(marvet.address, 'GET', `/trials/${trialId}/takes`))[0]?.note).toBe('kept');
  const again = await upload(trialId, 'S002.wav', bytes);
  expect(again.file.sizeBytes).toBe(bytes.byteLength);
});

test('killed while measuring: after the start measuring goes on by itself', async () => {
  const { trialId } = await smallTrial(marvet.address);
  for (const slate of ['1', '2', '3', '4']) await upload(trialId, `S00${slate}.wav`, wav(Number(slate) * 10, slate));
  await expect.poll(async () => (await filesOf(trialId)).some((file) => file.state === 'measuring')).toBe(true);
  await marvet.kill();
  await marvet.start();
  await expect.poll(async () => (await filesOf(trialId)).map((file) => file.state), { timeout: 60_000 }).toEqual(['done', 'done', 'done', 'done']);
  const recordings = await ask<RecordingRow[]>(marvet.address, 'GET', `/trials/${trialId}/recordings`);
  expect(recordings).toHaveLength(8);
  expect(recordings.every((recording) => recording.table !== null && recording.setupId !== null)).toBe(true);
});

test('killed right after a score: the score is there, and the letters are the same', async () => {
  const { trialId, criterionId } = await smallTrial(marvet.address);
  await upload(trialId, 'S001.wav', wav(3, '1'));
  await expect.poll(async () => (await filesOf(trialId))[0]?.state, { timeout: 60_000 }).toBe('done');
  const ids = (await ask<{ id: string }[]>(marvet.address, 'GET', `/trials/${trialId}/recordings`)).map((each) => each.id);
  const round = await ask<{ id: string }>(marvet.address, 'POST', `/trials/${trialId}/rounds`, { title: 'R', recordingIds: ids, criterionIds: [criterionId] });
  const { id } = await ask<{ id: string }>(marvet.address, 'POST', `/trials/${trialId}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' });
  const heard = async () => Buffer.from(await (await fetch(`${marvet.address}/api/listen/${id}/pieces/0`)).arrayBuffer());
  const before = await heard();
  await ask(marvet.address, 'PUT', `/listen/${id}/ratings`, { letter: 'A', criterionId, points: 7, reason: 'open' });
  await marvet.kill();
  await marvet.start();
  expect(await ask(marvet.address, 'GET', `/listen/${id}`)).toMatchObject({ ratings: [{ letter: 'A', points: 7, reason: 'open' }] });
  expect((await heard()).equals(before)).toBe(true);
});

test('killed while a whole trial comes in: it is not there at all, or whole', async () => {
  test.setTimeout(240_000);
  const { trialId } = await smallTrial(marvet.address);
  for (const slate of ['1', '2', '3']) await upload(trialId, `S00${slate}.wav`, wav(Number(slate) * 7, slate));
  await expect.poll(async () => (await filesOf(trialId)).every((file) => file.state === 'done'), { timeout: 60_000 }).toBe(true);
  const answer = await fetch(`${marvet.address}/api/trials/${trialId}/archive.zip`);
  const archive = Buffer.from(await answer.arrayBuffer());
  const other = await runMarvet();
  const present = async () => (await ask<{ id: string }[]>(other.address, 'GET', '/trials')).some(({ id }) => id === trialId);
  try {
    for (const afterMs of [10, 40, 90, 160, 300, 600, 1200]) {
      const coming = fetch(`${other.address}/api/trials/archive`, { method: 'POST', body: archive as never }).catch(() => null);
      await new Promise((resolve) => setTimeout(resolve, afterMs));
      await other.kill();
      const told = await coming;
      await other.start();
      expect(await readdir(join(other.dataFolder, 'incoming'))).toEqual([]);
      // What was acknowledged is there; what was not may be, since the answer may have been lost on its way.
      if (told?.status === 201) expect(await present()).toBe(true);
      if (!(await present())) continue;
      await wholeAt(other.address);
      break;
    }
    if (!(await present())) expect((await fetch(`${other.address}/api/trials/archive`, { method: 'POST', body: archive as never })).status).toBe(201);
    await wholeAt(other.address);
  } finally {
    await other.dispose();
  }

  /** Every file of the trial is there with its figures and its sound. */
  async function wholeAt(address: string): Promise<void> {
    const files = await ask<AudioFile[]>(address, 'GET', `/trials/${trialId}/files`);
    expect(files.map(({ name, state }) => [name, state]).sort()).toEqual(['S001.wav', 'S002.wav', 'S003.wav'].map((name) => [name, 'done']));
    for (const { id, sizeBytes } of files) expect((await (await fetch(`${address}/api/trials/${trialId}/files/${id}/audio`)).arrayBuffer()).byteLength).toBe(sizeBytes);
    expect(await ask<RecordingRow[]>(address, 'GET', `/trials/${trialId}/recordings`)).toHaveLength(6);
  }
});
