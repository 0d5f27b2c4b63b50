import { readFile } from 'node:fs/promises';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { resample } from '@marvet/core/audio/resample';
import type { ForeseenAndFound } from '@marvet/core/contract/placing';
import type { StoredStation } from '@marvet/core/domain/station';
import type { LearnedSpot } from '@marvet/core/place/learned';
import { withGainCurve } from '@marvet/core/simulate/gainCurve';
import { concat, mixed, silence, whiteNoise } from '@marvet/core/testing/signals';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';

const RATE_HZ = 48_000;

/** Words that ship with Marvet, with silence at both ends. */
async function dryWords(): Promise<Float64Array> {
  const source = bufferSource(await readFile(new URL('../../core/simulate/voices/netmaker-neutral.wav', import.meta.url)));
  const layout = readWavHeader(source);
  const words = resample(readChannel(source, layout, 0), layout.format.sampleRateHz, RATE_HZ);
  return concat(silence(1), words, silence(1.5));
}

let harness: Harness;
beforeEach(async () => {
  harness = await openHarness();
});
afterEach(() => harness.close());

const made = async (path: string, body: object) => (await harness.call<{ id: string }>('POST', path, body)).body.id;

describe('wearers and answers to whether something is seen', () => {
  it('are kept, changed, put into the bin under their names and brought back', async () => {
    const { at } = await readyTrial(harness);
    const wearer = await made(`${at}/wearers`, { name: 'Fishwife', build: 'broad', head: 'hat' });
    expect((await harness.change(`${at}/wearers/${wearer}`, { consent: 'Agreed, 26 May' })).status).toBe(200);
    const placementId = await made(`${at}/placements`, { name: 'brim', on: 'body', spot: 'under a brim' });
    const asked = { placementId, askedBy: 'Mixer', answeredBy: 'Camera' };
    await made(`${at}/sights`, { ...asked, seen: 'not seen', atMs: 2000 });
    const refused = await made(`${at}/sights`, { ...asked, seen: 'seen, and refused', atMs: 1000 });
    // Both answers stand, in the order in which they were given.
    expect((await harness.call<{ seen: string }[]>('GET', `${at}/sights`)).body.map(({ seen }) => seen)).toEqual(['seen, and refused', 'not seen']);
    await harness.call('DELETE', `${at}/sights/${refused}`);
    await harness.call('DELETE', `${at}/wearers/${wearer}`);
    const binned = (await harness.call<{ kind: string; name: string; id: string }[]>('GET', `${at}/bin`)).body;
    expect(binned.map(({ kind, name }) => `${kind} ${name}`).sort()).toEqual(['sight Camera: seen, and refused', 'wearer Fishwife']);
    for (const { kind, id } of binned) expect((await harness.call('POST', `${at}/bin/restore`, { kind, id })).status).toBe(204);
    expect((await harness.call<{ consent: string }[]>('GET', `${at}/wearers`)).body[0]?.consent).toBe('Agreed, 26 May');
  });

  it('are refused with what is wrong: nobody who answered, an answer that is none, a person four metres tall', async () => {
    const { at } = await readyTrial(harness);
    const placementId = await made(`${at}/placements`, { name: 'brim', on: 'body' });
    const sight = { placementId, askedBy: 'Mixer', answeredBy: ' ', seen: 'not seen', atMs: 1 };
    const refused = await harness.call<{ error: { fields: Record<string, string> } }>('POST', `${at}/sights`, sight);
    expect(refused.status).toBe(422);
    expect(refused.body.error.fields.answeredBy).toBe('Say who');
    expect((await harness.call('POST', `${at}/sights`, { ...sight, answeredBy: 'Camera', seen: 'perhaps' })).status).toBe(422);
    expect((await harness.call('POST', `${at}/wearers`, { name: 'Giant', heightM: 4 })).status).toBe(422);
  });

  it('have a photograph of the frame, which needs an answer to belong to', async () => {
    const { at } = await readyTrial(harness);
    const placementId = await made(`${at}/placements`, { name: 'brim', on: 'body' });
    const sight = await made(`${at}/sights`, { placementId, askedBy: 'Mixer', answeredBy: 'Camera', seen: 'not seen', atMs: 1 });
    const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0]);
    expect((await harness.raw('POST', `/photos?ownerKind=sight&ownerId=${sight}`, png)).status).toBe(201);
    expect((await harness.raw('POST', `/photos?ownerKind=sight&ownerId=${placementId}`, png)).status).toBe(404);
  });

  it('a wearer goes along into the copy of a trial, answers stay with the day', async () => {
    const { trial, at } = await readyTrial(harness);
    await made(`${at}/wearers`, { name: 'Fishwife' });
    const placementId = await made(`${at}/placements`, { name: 'brim', on: 'body' });
    await made(`${at}/sights`, { placementId, askedBy: 'Mixer', answeredBy: 'Camera', seen: 'not seen', atMs: 1 });
    const copy = await made(`/trials/${trial.id}/copy`, {});
    expect((await harness.call<unknown[]>('GET', `/trials/${copy}/wearers`)).body).toHaveLength(1);
    expect((await harness.call<unknown[]>('GET', `/trials/${copy}/sights`)).body).toHaveLength(0);
  });
});

describe('a rig and a placement', () => {
  it('keep their cloths and their spot, and refuse a cloth that weighs nothing', async () => {
    const { at } = await readyTrial(harness);
    const layers = [{ name: 'oilskin', gsm: 350, flowPaSM: null }];
    await made(`${at}/rigs`, { name: 'rain', layers, faces: 'down' });
    expect((await harness.call<{ layers: object[] }[]>('GET', `${at}/rigs`)).body[0]?.layers).toEqual(layers);
    expect((await harness.call('POST', `${at}/rigs`, { name: 'rain', layers: [{ name: 'air', gsm: 0, flowPaSM: 1 }] })).status).toBe(422);
    const place = { forwardM: 0.02, leftM: 0.05, upM: -0.2 };
    await made(`${at}/placements`, { name: 'lapel', on: 'body', spot: 'lapel', at: place });
    expect((await harness.call<{ at: object }[]>('GET', `${at}/placements`)).body[0]?.at).toEqual(place);
    expect((await harness.call('POST', `${at}/placements`, { name: 'far', on: 'body', at: { ...place, upM: 3 } })).status).toBe(422);
  });
});

describe('what takes say of a spot, and of what was foreseen', () => {
  /** Three takes of one performance: a boom a metre away, and a lavalier that loses its top, each in a file. */
  async function threeTakes() {
    const { trial, at, chains } = await readyTrial(harness);
    await harness.change(`${at}/chains/${chains[0]}`, { rig: { placement: 'lapel', onSkin: false } });
    await harness.change(`${at}/chains/${chains[1]}`, { rig: { placement: 'boom from above', onSkin: false } });
    const [station] = (await harness.call<StoredStation[]>('GET', `${at}/stations`)).body;
    await harness.change(`${at}/stations/${station!.id}`, { acoustics: { ...station!.acoustics, noiseDba: 35, windMs: 0 } });

    const words = await dryWords();
    const voice = mixed(words, whiteNoise(-80, words.length / RATE_HZ, 5));
    const dull = withGainCurve(voice, [2000, 2500], [0, -8], RATE_HZ);
    const slate = 'S001_T01';
    await harness.upload(trial.id, `${slate} QU.wav`, plainWav(dull));
    await harness.upload(trial.id, `${slate} LO.wav`, plainWav(voice));
    await harness.services.work.runner.idle();
    await harness.services.store.write(async (tables) => {
      for (const take of await tables.takes.find()) await tables.takes.update(take.id, { status: 'done' });
    });
    return { at };
  }

  it('a lavalier beside a boom is learned from, without its gain, and a spoiled or planned take is not', async () => {
    await threeTakes();
    const learned = (await harness.call<LearnedSpot[]>('GET', '/learned')).body;
    expect(learned).toHaveLength(1);
    expect(learned[0]).toMatchObject({ spot: 'lapel', under: false, takes: 1, trials: 1 });
    // One take is too few to say anything of a band.
    expect(learned[0]!.colourDb.every((db) => db === null)).toBe(true);
    // What is kept of it follows a chain that says another spot, and a take that is no longer done.
    const [{ id: trialId }] = (await harness.call<[{ id: string }]>('GET', '/trials')).body;
    const chains = (await harness.call<{ id: string; rig: { placement: string } }[]>('GET', `/trials/${trialId}/chains`)).body;
    const worn = chains.find(({ rig }) => rig.placement === 'lapel')!;
    await harness.change(`/trials/${trialId}/chains/${worn.id}`, { rig: { placement: 'collar', onSkin: false } });
    expect((await harness.call<LearnedSpot[]>('GET', '/learned')).body.map(({ spot }) => spot)).toEqual(['collar']);
    await harness.services.store.write(async (tables) => {
      for (const take of await tables.takes.find()) await tables.takes.update(take.id, { status: 'planned' });
    });
    expect((await harness.call<LearnedSpot[]>('GET', '/learned')).body).toEqual([]);
  });

  it('what was foreseen of it stands beside what was found', async () => {
    const { at } = await threeTakes();
    const { rows, unforeseen } = (await harness.call<ForeseenAndFound>('GET', `${at}/foreseen`)).body;
    const top = rows.find(({ kind }) => kind === 'top against the boom')!;
    // 8 dB were taken off from 2.5 kHz on.
    expect(top.found).toBeLessThan(-6);
    expect(top.found).toBeGreaterThan(-9);
    expect(rows.some(({ kind }) => kind === 'voice over noise')).toBe(true);
    expect(unforeseen).toBe(0);
  });

  it('of a trial that is not there is refused', async () => {
    expect((await harness.call('GET', '/trials/00000000-0000-4000-8000-000000000000/foreseen')).status).toBe(404);
  });
});
