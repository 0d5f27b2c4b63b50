import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { interleaved } from '@marvet/core/audio/wavParts';
import { CAPTURE_FORMAT, type CaptureDraft, pieceFrames } from '@marvet/core/domain/capture';
import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import { measureFile } from '@marvet/core/measure/report';
import { voiced } from '@marvet/core/testing/voiced';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Services } from '../api/services.ts';
import { withFileSource } from '../audio/fileSource.ts';
import { figuresOf } from '../jobs/keepReport.ts';
import { closeServices, openServices } from '../start.ts';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

const RATE = 48_000;
const FRAMES = pieceFrames(RATE);
const LENGTH_S = 6.1;

let harness: Harness;
let trialId: string;
let take: Take;
beforeEach(async () => {
  harness = await openHarness();
  const { at } = await readyTrial(harness);
  trialId = at.split('/')[2] as string;
  [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body as [Take];
});
afterEach(() => harness.close());

const sound = [Float32Array.from(voiced(LENGTH_S)), Float32Array.from(voiced(LENGTH_S, -50))];
const piece = (number: number) =>
  interleaved(
    sound.map((channel) => channel.subarray(number * FRAMES, (number + 1) * FRAMES)),
    CAPTURE_FORMAT,
  );
const PIECES = Math.ceil((sound[0] as Float32Array).length / FRAMES);

const draft = (): CaptureDraft => ({
  id: newId(),
  takeId: take.id,
  sampleRateHz: RATE,
  startedAtMs: Date.now(),
  part: 1,
  channels: take.setups.slice(0, 2).map(({ id }, index) => ({ name: `CH${index + 1}`, setupId: id })),
});
const announce = async (made = draft()) => {
  await harness.call('POST', `/trials/${trialId}/captures`, made);
  return made.id;
};
const put = async (id: string, number: number, bytes = piece(number)) => {
  const answer = await harness.raw('PUT', `/trials/${trialId}/captures/${id}/pieces/${number}`, bytes);
  return { status: answer.status, body: (await answer.json()) as { pieces?: number; error?: { code: string } } };
};
const finish = (id: string, body = {}) => harness.call<{ fileId: string | null }>('POST', `/trials/${trialId}/captures/${id}/finish`, body);

/** The samples of a stored file, channel by channel. */
async function stored({ store, blobs }: Services, fileId: string): Promise<Float64Array[]> {
  const { sha256 } = await store.files.findOneByOrFail({ id: fileId });
  return withFileSource(blobs.pathOf(sha256), (source) => {
    const layout = readWavHeader(source);
    expect(layout.warnings).toEqual([]);
    return Array.from({ length: layout.format.channels }, (_, channel) => readChannel(source, layout, channel));
  });
}
const near = (read: Float64Array, meant: Float32Array) => read.length === meant.length && read.every((value, index) => Math.abs(value - (meant[index] as number)) < 1e-6);

describe('a take that is recorded straight in', () => {
  it('is there sample by sample, slated, in its place, measured as any file is, as soon as it ends', async () => {
    const id = await announce();
    for (let number = 0; number < PIECES; number++) expect((await put(id, number)).status).toBe(200);
    // Its figures are there with the answer: nothing is queued.
    const { body } = await finish(id);
    expect(await harness.services.store.jobs.findBy({ kind: 'measure' })).toEqual([]);
    const { store, blobs } = harness.services;
    const file = await store.files.findOneByOrFail({ id: body.fileId as string });
    expect(file).toMatchObject({
      name: `Jetty_S001_T01.wav`,
      state: 'done',
      format: { channels: 2, bitDepth: 24, sampleRateHz: RATE, scene: '1', take: '1', trackNames: ['CH1', 'CH2'] },
    });
    const channels = await stored(harness.services, file.id);
    expect(channels.map((channel, index) => near(channel, sound[index] as Float32Array))).toEqual([true, true]);
    const recordings = (await store.recordings.findBy({ fileId: file.id })).sort((a, b) => a.channels[0]! - b.channels[0]!);
    expect(recordings.map(({ takeId, setupId, matchedBy }) => ({ takeId, setupId, matchedBy }))).toEqual(
      take.setups.slice(0, 2).map(({ id: setupId }) => ({ takeId: take.id, setupId, matchedBy: 'recorded here' })),
    );
    const { report } = withFileSource(blobs.pathOf(file.sha256), (source) => measureFile(source));
    recordings.forEach(({ figures }, index) => {
      const meant = figuresOf(report.channels[index]!, report.format.durationS);
      expect(Object.keys(figures!)).toEqual(Object.keys(meant));
      for (const [measureId, value] of Object.entries(meant)) expect(figures![measureId as keyof typeof meant]).toBeCloseTo(value, 3);
    });
    expect(await readdir(join(harness.folder, 'captures'))).toEqual([]);
  });

  it('a piece counts once however often it is sent; one that is missing is asked for; announcing twice is one recording', async () => {
    const made = draft();
    const id = await announce(made);
    expect((await put(id, 0)).body.pieces).toBe(1);
    expect((await put(id, 0)).body.pieces).toBe(1);
    expect(await put(id, 2)).toMatchObject({ status: 409, body: { error: { code: 'missing' } } });
    expect(await announce(made)).toBe(id);
    expect((await put(id, 1)).body.pieces).toBe(2);
    const { body } = await finish(id);
    const [left] = await stored(harness.services, body.fileId as string);
    expect(near(left as Float64Array, sound[0]!.subarray(0, 2 * FRAMES))).toBe(true);
    expect((await finish(id)).body.fileId).toBe(body.fileId);
    expect(await put(id, 2)).toMatchObject({ status: 410, body: { error: { code: 'closed' } } });
  });

  it('what was none of its samples is refused and nothing is lost by it', async () => {
    const id = await announce();
    await put(id, 0);
    expect((await put(id, 1, new Uint8Array(7))).status).toBe(422);
    expect((await put(id, 1, new Uint8Array(FRAMES * 6 + 6))).status).toBe(422);
    expect((await put(id, 1)).body.pieces).toBe(2);
  });

  it('sixteen channels at the highest rate are taken too', async () => {
    const sampleRateHz = 192_000;
    const id = await announce({ ...draft(), sampleRateHz, channels: Array.from({ length: 16 }, (_, index) => ({ name: `CH${index + 1}`, setupId: null })) });
    expect(await put(id, 0, new Uint8Array(pieceFrames(sampleRateHz) * 16 * 3))).toMatchObject({ status: 200, body: { pieces: 1 } });
  });

  it('an accident goes to the bin, whole; one of which nothing came leaves nothing', async () => {
    const id = await announce();
    await put(id, 0);
    const { body } = await finish(id, { binned: true });
    expect((await harness.services.store.files.findOneByOrFail({ id: body.fileId as string })).binnedAtMs).not.toBeNull();
    const empty = await announce();
    expect((await finish(empty)).body.fileId).toBeNull();
    expect(await readdir(join(harness.folder, 'captures'))).toEqual([]);
  });

  it('is of a take of this trial and its candidates only', async () => {
    const strange = { ...draft(), channels: [{ name: 'X', setupId: newId() }] };
    expect((await harness.call('POST', `/trials/${trialId}/captures`, strange)).status).toBe(422);
    expect((await harness.call('POST', `/trials/${trialId}/captures`, { ...draft(), takeId: newId() })).status).toBe(404);
    expect((await harness.call('POST', `/trials/${trialId}/captures`, { ...draft(), channels: [] })).status).toBe(422);
  });
});

describe('a server that stops in the middle', () => {
  it('of announcing a recording leaves nothing that spoils it when it is announced again', async () => {
    const made = draft();
    await writeFile(join(harness.folder, 'captures', `${made.id}.wav`), 'RIF');
    await announce(made);
    await put(made.id, 0);
    const { body } = await finish(made.id);
    const [left] = await stored(harness.services, body.fileId as string);
    expect(near(left as Float64Array, sound[0]!.subarray(0, FRAMES))).toBe(true);
  });

  it('goes on with the recording where it was, and loses no piece that it acknowledged', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'marvet-capture-'));
    let services = await openServices(folder);
    try {
      const made = draft();
      await services.store.write(async (tables) => {
        await tables.trials.insert(await harness.services.store.trials.findOneByOrFail({ id: trialId }));
        await tables.takes.insert(take);
      });
      await services.captures.begin(trialId, made);
      for (let number = 0; number < PIECES; number++) {
        if (number % 5 === 4) {
          await closeServices(services);
          services = await openServices(folder);
          expect(await services.captures.open(trialId)).toMatchObject([{ id: made.id, pieces: number }]);
        }
        await services.captures.put(trialId, made.id, number, piece(number));
      }
      const { fileId } = await services.captures.finish(trialId, made.id);
      const channels = await stored(services, fileId as string);
      expect(channels.map((channel, index) => near(channel, sound[index] as Float32Array))).toEqual([true, true]);
    } finally {
      await closeServices(services);
      await rm(folder, { recursive: true, force: true });
    }
  });
});
