import { createHash } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { UploadResult } from '@marvet/core/contract/answers';
import { voiced } from '@marvet/core/testing/voiced';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openArriving } from '../audio/arriving.ts';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';

let harness: Harness;
let at: string;
beforeAll(async () => {
  harness = await openHarness();
});
beforeEach(async () => {
  ({ at } = await readyTrial(harness));
});
afterAll(() => harness.close());

const bytes = plainWav(voiced(6));
const told = (name: string, sizeBytes = bytes.byteLength) => `name=${name}&modifiedMs=5&sizeBytes=${sizeBytes}`;
const put = async (name: string, fromByte: number, piece: Uint8Array) => {
  const response = await harness.raw('PUT', `${at}/files/arriving?${told(name)}&fromByte=${fromByte}`, piece);
  return ((await response.json()) as { receivedBytes: number }).receivedBytes;
};
const here = async (name: string) => (await harness.call<{ receivedBytes: number }>('GET', `${at}/files/arriving?${told(name)}`)).body.receivedBytes;
const finish = (name: string, size?: number) => harness.call<UploadResult & { error?: { code: string; message: string } }>('POST', `${at}/files/arriving?${told(name, size)}`);
const waiting = () => readdir(join(harness.folder, 'arriving'));

describe('a large file that comes piece by piece', () => {
  it('is in the end what it was, to its last byte, and nothing of it is left behind', async () => {
    expect(await here('S001_T01.wav')).toBe(0);
    for (let from = 0; from < bytes.byteLength; from += 200_000)
      expect(await put('S001_T01.wav', from, bytes.subarray(from, from + 200_000))).toBe(Math.min(bytes.byteLength, from + 200_000));
    const { status, body } = await finish('S001_T01.wav');
    expect([status, body.matchedBy]).toEqual([201, 'file name']);
    expect(body.file.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
    expect(await waiting()).toEqual([]);
  });

  it('is asked for from where it broke off, and a piece that does not fit there is not added', async () => {
    await put('a.wav', 0, bytes.subarray(0, 1000));
    expect(await put('a.wav', 5000, bytes.subarray(5000, 6000))).toBe(1000);
    expect(await put('a.wav', 0, bytes.subarray(0, 1000))).toBe(1000);
    expect(await here('a.wav')).toBe(1000);
    // Another file by the same name, of another length, is another file.
    expect((await harness.call<{ receivedBytes: number }>('GET', `${at}/files/arriving?${told('a.wav', 77)}`)).body.receivedBytes).toBe(0);
    expect((await finish('a.wav')).status).toBe(409);
  });

  it('keeps what came of a piece whose connection broke off, and never more than the file has', async () => {
    const file = { trialId: 't', name: 'b.wav', folder: null, modifiedMs: null, sizeBytes: 3000 };
    const arriving = await openArriving(join(harness.folder, 'other'));
    async function* broken() {
      yield bytes.subarray(0, 700);
      throw new Error('the cable was pulled');
    }
    await expect(arriving.append(file, 0, broken())).rejects.toThrow('the cable was pulled');
    expect(await arriving.receivedBytes(file)).toBe(700);
    async function* tooMuch() {
      yield bytes.subarray(700, 9000);
    }
    expect(await arriving.append(file, 700, tooMuch())).toBe(3000);
  });

  it('sent by two pages at once is each byte once', async () => {
    const pieces = [bytes.subarray(0, 400_000), bytes.subarray(0, 400_000)];
    expect(await Promise.all(pieces.map((piece) => put('c.wav', 0, piece)))).toEqual([400_000, 400_000]);
    await put('c.wav', 400_000, bytes.subarray(400_000));
    expect((await finish('c.wav')).body.file.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
  });

  it('that is no sound is refused in words and not kept', async () => {
    const text = new TextEncoder().encode('no sound at all, but long enough to be looked at');
    await harness.raw('PUT', `${at}/files/arriving?${told('notes.txt', text.byteLength)}&fromByte=0`, text);
    const { status, body } = await finish('notes.txt', text.byteLength);
    expect([status, body.error?.message]).toEqual([422, expect.stringContaining('notes.txt: It is none of the files that are read')]);
    expect((await harness.call<{ receivedBytes: number }>('GET', `${at}/files/arriving?${told('notes.txt', text.byteLength)}`)).body.receivedBytes).toBe(0);
  });

  it('to a trial that is not there is refused', async () => {
    const response = await harness.call('POST', `/trials/00000000-0000-4000-8000-000000000000/files/arriving?${told('x.wav')}`);
    expect(response.status).toBe(404);
  });
});
