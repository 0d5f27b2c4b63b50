import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import type { VoiceNote } from '@marvet/core/domain/voiceNote';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { checkData } from '../store/check.ts';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

let harness: Harness;
let at: string;
let takeId: string;
beforeEach(async () => {
  harness = await openHarness();
  ({ at } = await readyTrial(harness));
  takeId = (await harness.call<Take[]>('GET', `${at}/takes`)).body[0]!.id;
});
afterEach(() => harness.close());

const OGG = new TextEncoder().encode('OggS and some sound');
const post = (id: string, more = '', bytes: Uint8Array = OGG) => harness.raw('POST', `${at}/voice-notes?id=${id}&takeId=${takeId}&lengthS=3.2${more}`, bytes);
const notes = async () => (await harness.call<VoiceNote[]>('GET', `${at}/voice-notes`)).body;

it('a voice note is kept once however often it is sent, heard as it was, and comes back from the bin', async () => {
  const id = newId();
  expect((await post(id)).status).toBe(201);
  expect((await post(id)).status).toBe(200);
  expect(await notes()).toEqual([expect.objectContaining({ id, takeId, type: 'audio/ogg', lengthS: 3.2, binnedAtMs: null })]);
  const back = await harness.raw('GET', `${at}/voice-notes/${id}`);
  expect(back.headers.get('content-type')).toBe('audio/ogg');
  expect(new Uint8Array(await back.arrayBuffer())).toEqual(OGG);
  expect((await harness.call('DELETE', `${at}/voice-notes/${id}`)).status).toBe(204);
  expect((await notes())[0]!.binnedAtMs).not.toBeNull();
  await harness.call('POST', `${at}/voice-notes/${id}/restore`);
  expect((await notes())[0]!.binnedAtMs).toBeNull();
});

it('its bytes are never cleared away as loose, and are missed when they are gone', async () => {
  await post(newId());
  expect((await harness.call<{ count: number }>('GET', '/storage')).body.count).toBe(0);
  expect((await harness.call<{ count: number }>('POST', '/storage/collect')).body.count).toBe(0);
  expect((await checkData(harness.services.store, () => false))[0]).toMatch(/^The bytes of a voice note are missing/);
});

it('what is none is refused with its reason', async () => {
  expect((await post(newId(), '', new TextEncoder().encode('<html>'))).status).toBe(422);
  expect((await harness.raw('POST', `${at}/voice-notes?id=${newId()}&takeId=${newId()}&lengthS=3`, OGG)).status).toBe(404);
  expect((await harness.raw('POST', `${at}/voice-notes?id=${newId()}&takeId=${takeId}&lengthS=9999`, OGG)).status).toBe(422);
  expect((await harness.raw('GET', `${at}/voice-notes/${newId()}`)).status).toBe(404);
});
