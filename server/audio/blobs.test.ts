import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readConfig } from '../config.ts';
import { type BlobStore, openBlobs } from './blobs.ts';

let folder: string;
let blobs: BlobStore;
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'marvet-blobs-'));
  blobs = await openBlobs(folder);
});
afterEach(() => rm(folder, { recursive: true, force: true }));

async function* chunks(...parts: string[]): AsyncGenerator<Uint8Array> {
  for (const part of parts) yield new TextEncoder().encode(part);
}

const stored = async (bytes: AsyncIterable<Uint8Array>) => (await blobs.stage(bytes)).keep();

describe('blobs', () => {
  it('lie under their SHA-256, whole', async () => {
    const { sha256, sizeBytes } = await stored(chunks('over ', 'the ', 'water'));
    expect(sha256).toBe(createHash('sha256').update('over the water').digest('hex'));
    expect(sizeBytes).toBe(14);
    expect(await readFile(blobs.pathOf(sha256), 'utf8')).toBe('over the water');
    expect(await readdir(join(folder, 'incoming'))).toEqual([]);
  });

  it('the same bytes twice are one blob', async () => {
    const first = await stored(chunks('same'));
    expect(await stored(chunks('sa', 'me'))).toEqual(first);
    expect(await readdir(join(folder, 'blobs', first.sha256.slice(0, 2)))).toEqual([first.sha256]);
  });

  it('a stream that breaks off leaves nothing', async () => {
    async function* broken(): AsyncGenerator<Uint8Array> {
      yield new Uint8Array(1000);
      throw new Error('line cut');
    }
    await expect(blobs.stage(broken())).rejects.toThrow('line cut');
    expect(await readdir(join(folder, 'incoming'))).toEqual([]);
    expect(await readdir(join(folder, 'blobs'))).toEqual([]);
  });

  it('what an earlier stop left half written is cleared', async () => {
    await writeFile(join(folder, 'incoming', 'half'), 'x');
    await openBlobs(folder);
    expect(await readdir(join(folder, 'incoming'))).toEqual([]);
  });
});

describe('the environment', () => {
  it('has defaults', () => {
    expect(readConfig({})).toMatchObject({ port: 4810, doorPort: 4811, doorAddress: null });
    expect(readConfig({ PORT: '', MARVET_DATA: '/tmp/x' })).toMatchObject({ port: 4810, dataFolder: '/tmp/x' });
  });
  it.each([
    ['harbour', 'PORT must be a number'],
    ['70000', 'PORT must be 0 to 65535'],
    ['1.5', 'PORT must be a whole number'],
  ])('PORT=%s is told', (PORT, why) => {
    expect(() => readConfig({ PORT })).toThrow(why);
  });

  it('an address of the door that is none is told', () => {
    expect(() => readConfig({ DOOR_ADDRESS: 'harbour' })).toThrow('DOOR_ADDRESS must be an address such as');
  });
});
