import { readdirSync } from 'node:fs';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { Trial } from '@marvet/core/domain/trial';
import { whiteNoise } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { closeServices, openServices } from '../start.ts';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';
import { unzipped } from '../testing/zips.ts';

let harness: Harness;
let trialId: string;
const sound = plainWav(whiteNoise(-30, 2, 1));
beforeAll(async () => {
  harness = await openHarness();
  trialId = (await readyTrial(harness)).trial.id;
  await harness.upload(trialId, 'S01T01.wav', sound);
  await harness.services.work.runner.idle();
});
afterAll(() => harness.close());

describe('a copy of everything', () => {
  it('unpacked is a data folder, with what was written before it and the bytes of every file', async () => {
    // Written while the copy is asked for: in it or not, but never half.
    const [answer] = await Promise.all([
      harness.raw('GET', '/storage/copy.zip'),
      ...Array.from({ length: 8 }, (_, index) => harness.call('POST', '/trials', { name: `Meanwhile ${index}` })),
    ]);
    const bytes = Buffer.from(await answer.arrayBuffer());
    expect(answer.headers.get('content-length')).toBe(String(bytes.length));
    const folder = await mkdtemp(join(tmpdir(), 'marvet-copy-'));
    for (const [name, content] of await unzipped(bytes)) {
      await mkdir(dirname(join(folder, name)), { recursive: true });
      await writeFile(join(folder, name), content);
    }
    const copy = await openServices(folder);
    try {
      expect(copy.troubles).toEqual([]);
      expect((await copy.store.trials.findOneByOrFail({ id: trialId })).name).toBe('Jetty');
      const [file] = await copy.store.files.findBy({ trialId });
      expect(file?.state).toBe('done');
      expect(copy.blobs.has(file!.sha256)).toBe(true);
    } finally {
      await closeServices(copy);
      await rm(folder, { recursive: true, force: true });
    }
    // Nothing of the copy stays behind.
    await expect.poll(() => readdirSync(join(harness.folder, 'incoming'))).toEqual([]);
  });

  it('that nobody reads to its end leaves nothing behind, and holds no write up', async () => {
    const answer = await harness.raw('GET', '/storage/copy.zip');
    await answer.body?.cancel();
    expect((await harness.call<Trial>('POST', '/trials', { name: 'After it' })).status).toBe(201);
    await expect.poll(() => readdirSync(join(harness.folder, 'incoming'))).toEqual([]);
  });
});
