import { createHash } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { filled } from '@marvet/core/audio/filled';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import type { Take } from '@marvet/core/domain/take';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial, recorderWav } from '../testing/harness.ts';
import { unzipped } from '../testing/zips.ts';

let harness: Harness;
let at: string;
let trialId: string;
beforeAll(async () => {
  harness = await openHarness();
  ({ at } = await readyTrial(harness));
  trialId = at.split('/')[2] as string;
});
afterAll(() => harness.close());

const noise = (seed: number) => filled(24_000, (frame) => 0.1 * Math.sin((frame * seed) / 9));
const shaOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

const fetched = async () => {
  const answer = await harness.raw('GET', `/trials/${trialId}/files/sounds.zip`);
  const bytes = Buffer.from(await answer.arrayBuffer());
  expect(answer.headers.get('content-length')).toBe(String(bytes.length));
  expect(answer.headers.get('content-disposition')).toBe('attachment; filename="Jetty.zip"');
  return unzipped(bytes);
};

describe('the files of a trial, taken away', () => {
  const poly = recorderWav([noise(1), noise(2)], '1', '1', ['QU', 'LO']);
  const loose = plainWav(noise(3));

  it('are there to the last byte, named by slate and tape, with every figure beside them', async () => {
    await harness.upload(trialId, 'REC_0007.WAV', poly);
    await harness.upload(trialId, '../up "and" away.wav', loose);
    await expect.poll(async () => (await harness.call<{ state: string }[]>('GET', `${at}/files`)).body.every(({ state }) => state === 'done'), { timeout: 20_000 }).toBe(true);
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    expect(take?.slate).toBe(1);
    const parts = await fetched();
    expect([...parts.keys()]).toEqual(['01 QU LO REC_0007.WAV', 'no take .._up _and_ away.wav', 'figures.csv']);
    expect(shaOf(parts.get('01 QU LO REC_0007.WAV') as Buffer)).toBe(shaOf(poly));
    expect(shaOf(parts.get('no take .._up _and_ away.wav') as Buffer)).toBe(shaOf(loose));
    const figures = await harness.call('GET', `${at}/recordings/figures.csv`);
    expect(parts.get('figures.csv')?.toString()).toBe(figures.text);
  });

  it('are there as copies that say slate, take and candidates themselves, with the same samples', async () => {
    const answer = await harness.raw('GET', `/trials/${trialId}/files/named.zip`);
    const bytes = Buffer.from(await answer.arrayBuffer());
    expect(answer.headers.get('content-length')).toBe(String(bytes.length));
    const parts = await unzipped(bytes);
    const copy = bufferSource(parts.get('01 QU LO REC_0007.WAV') as Buffer);
    const layout = readWavHeader(copy);
    expect(layout.format).toMatchObject({ scene: '1', take: '1', trackNames: ['QU Quoin', 'LO Lodestar'], tape: null });
    const before = readWavHeader(bufferSource(poly));
    for (const channel of [0, 1]) expect(readChannel(copy, layout, channel)).toEqual(readChannel(bufferSource(poly), before, channel));
  });

  it('those whose bytes are missing are named, and hold the others up in nothing', async () => {
    const { sha256 } = (await harness.call<{ name: string; sha256: string }[]>('GET', `${at}/files`)).body.find(({ name }) => name === 'REC_0007.WAV')!;
    await rm(harness.services.blobs.pathOf(sha256));
    const parts = await fetched();
    expect([...parts.keys()]).toEqual(['no take .._up _and_ away.wav', 'figures.csv', 'MISSING.txt']);
    expect(parts.get('MISSING.txt')?.toString()).toContain('REC_0007.WAV');
  });

  it('of no trial are none', async () => {
    expect((await harness.call('GET', '/trials/00000000-0000-4000-8000-000000000000/files/sounds.zip')).status).toBe(404);
  });
});
