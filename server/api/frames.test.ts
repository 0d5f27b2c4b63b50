import { newId } from '@marvet/core/domain/identity';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

let harness: Harness;
beforeEach(async () => {
  harness = await openHarness();
});
afterEach(() => harness.close());

const talker = () => ({ id: newId(), name: 'Ferrier' });

describe('frames', () => {
  it('are kept as they were drawn, and counted among what a trial has', async () => {
    const { trial, at } = await readyTrial(harness);
    const made = await harness.call<{ id: string; camera: { focalMm: number } }>('POST', `${at}/frames`, { name: 'Close', talkers: [talker()], camera: { focalMm: 85 } });
    expect(made.status).toBe(201);
    expect(made.body.camera.focalMm).toBe(85);
    expect((await harness.call<{ progress: { frames: number } }>('GET', `/trials/${trial.id}`)).body.progress.frames).toBe(1);
  });

  it('are refused with the place that is wrong: nobody there to look at, a tilt beyond the sky', async () => {
    const { at } = await readyTrial(harness);
    const boom = { id: newId(), from: 'above', awayM: 2, heightM: 2, aimsAt: 1 };
    const nobody = await harness.call<{ error: { fields: Record<string, string> } }>('POST', `${at}/frames`, { name: 'Close', talkers: [talker()], booms: [boom] });
    expect(nobody.status).toBe(422);
    expect(Object.values(nobody.body.error.fields).join()).toContain('looks at a talker of the frame');
    expect((await harness.call('POST', `${at}/frames`, { name: 'Close', talkers: [talker()], camera: { tiltDeg: 120 } })).status).toBe(422);
    expect((await harness.call('POST', `${at}/frames`, { name: 'Close', talkers: [] })).status).toBe(422);
  });

  it('of two pages the second is told, and nothing is undone unseen', async () => {
    const { at } = await readyTrial(harness);
    const draft = { name: 'Close', talkers: [talker()] };
    const { id } = (await harness.call<{ id: string }>('POST', `${at}/frames`, draft)).body;
    expect((await harness.call('PUT', `${at}/frames/${id}`, { ...draft, name: 'Closer', version: 1 })).status).toBe(200);
    const stale = await harness.call<{ error: { code: string } }>('PUT', `${at}/frames/${id}`, { ...draft, name: 'Wide', version: 1 });
    expect(stale.status).toBe(409);
    expect((await harness.call<{ name: string }[]>('GET', `${at}/frames`)).body[0]?.name).toBe('Closer');
  });

  it('go along into the copy of a trial, with the station that they stand at', async () => {
    const { trial, at } = await readyTrial(harness);
    const [station] = (await harness.call<{ id: string }[]>('GET', `${at}/stations`)).body;
    await harness.call('POST', `${at}/frames`, { name: 'Close', talkers: [talker()], stationId: station!.id });
    const copy = (await harness.call<{ id: string }>('POST', `/trials/${trial.id}/copy`)).body;
    const [frame] = (await harness.call<{ stationId: string }[]>('GET', `/trials/${copy.id}/frames`)).body;
    const [own] = (await harness.call<{ id: string }[]>('GET', `/trials/${copy.id}/stations`)).body;
    expect(frame?.stationId).toBe(own?.id);
  });
});
