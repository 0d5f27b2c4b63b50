import type { RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import type { Verdict } from '@marvet/core/decide/tellVerdict';
import type { PairMeasureId } from '@marvet/core/domain/measureId';
import { mixed, whiteNoise } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial } from '../testing/harness.ts';

const RATE_HZ = 48_000;
const LENGTH_S = 8;
const raw = mixed(voiced(LENGTH_S, -90), whiteNoise(-48, LENGTH_S, 5));
/** The same with its pauses 12 dB lower, as a gate without flaw would do it. */
const gated = raw.map((x, index) => ((index / RATE_HZ) % 2 > 1.3 ? x / 4 : x));

let harness: Harness;
beforeEach(async () => {
  harness = await openHarness();
});
afterEach(() => harness.close());

const idle = () => harness.services.work.runner.idle();
const rows = async (at: string) => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;

/** A take of two candidates in a file each, the second of them gated. */
async function takeOfTwo() {
  const { trial, at, chains } = await readyTrial(harness);
  await harness.upload(trial.id, 'S001_T01 QU.wav', plainWav(raw));
  await harness.upload(trial.id, 'S001_T01 LO.wav', plainWav(gated));
  await idle();
  const [quoin, lodestar] = ['QU', 'LO'].map((letters, index) => ({ letters, chainId: chains[index] as string }));
  const recordingOf = async (letters: string) => (await rows(at)).find((row) => row.fileName.includes(letters))!;
  const refer = (chainId: string | null) => harness.change(at, { reference: chainId && { kind: 'candidate', levelId: chainId } });
  /** A figure of the two, by their letters. */
  const figure = async (id: PairMeasureId) => {
    const all = (await harness.call<Record<string, number>>('GET', `${at}/recordings/figure/${id}`)).body;
    const [one, other] = [await recordingOf('QU'), await recordingOf('LO')];
    return { QU: all[one.id] ?? null, LO: all[other.id] ?? null };
  };
  return { trial, at, quoin: quoin!, lodestar: lodestar!, recordingOf, refer, figure };
}

describe('recordings against the reference of their take', () => {
  it('are measured once there is a reference, again when it changes, and no more when it goes', async () => {
    const { at, quoin, lodestar, recordingOf, refer, figure } = await takeOfTwo();
    expect((await recordingOf('LO')).setupId).not.toBeNull();
    expect(await figure('pair.denoise.noiseReductionDb')).toEqual({ QU: null, LO: null });

    await refer(quoin.chainId);
    await idle();
    const taken = await figure('pair.denoise.noiseReductionDb');
    expect(taken.QU).toBe(0);
    expect(Math.abs((taken.LO ?? 0) - 12)).toBeLessThan(1);
    const detail = (await harness.call<RecordingDetail>('GET', `${at}/recordings/${(await recordingOf('LO')).id}`)).body;
    expect(detail.against).toMatchObject({ referenceId: (await recordingOf('QU')).id, warnings: [] });

    await refer(lodestar.chainId);
    await idle();
    const turned = await figure('pair.denoise.noiseReductionDb');
    expect(turned.LO).toBe(0);
    expect(turned.QU ?? 0).toBeLessThan(-10);

    await refer(null);
    await idle();
    expect(await figure('pair.denoise.noiseReductionDb')).toEqual({ QU: null, LO: null });
  });

  it('two looks at once, the reference changed between them: the last one has the last word', async () => {
    const { trial, quoin, lodestar, refer, figure } = await takeOfTwo();
    await refer(quoin.chainId);
    const { against } = harness.services.work;
    const first = against.look(trial.id, 'all');
    await harness.services.store.write((tables) => tables.trials.update(trial.id, { reference: { kind: 'candidate', levelId: lodestar.chainId } }));
    await Promise.all([first, against.look(trial.id, 'all')]);
    await idle();
    const now = await figure('pair.denoise.noiseReductionDb');
    expect(now.LO).toBe(0);
    expect(now.QU ?? 0).toBeLessThan(-10);
  });

  it('keep their figures when a file is measured again, and lose them with the reference in the bin', async () => {
    const { trial, at, quoin, recordingOf, refer, figure } = await takeOfTwo();
    await refer(quoin.chainId);
    await idle();
    await harness.call('POST', `${at}/files/measure`, { which: 'all' });
    await idle();
    expect((await figure('pair.latencyMs')).LO).toBeCloseTo(0, 2);

    const { fileId } = await recordingOf('QU');
    const ofLodestar = async () => (await harness.call<Record<string, number>>('GET', `${at}/recordings/figure/pair.latencyMs`)).body[(await recordingOf('LO')).id] ?? null;
    await harness.call('DELETE', `${at}/files/${fileId}`);
    await idle();
    expect(await ofLodestar()).toBeNull();
    await harness.call('POST', `/trials/${trial.id}/bin/restore`, { kind: 'file', id: fileId });
    await idle();
    expect(await ofLodestar()).toBeCloseTo(0, 2);
  });

  it('follow a file that is matched by hand', async () => {
    const { at, quoin, recordingOf, refer, figure } = await takeOfTwo();
    await refer(quoin.chainId);
    await idle();
    const row = await recordingOf('LO');
    const match = (takeId: string | null, setupId: string | null) =>
      harness.call('PUT', `${at}/files/${row.fileId}/assignment`, { takeId, channels: [{ channelIndex: 0, setupId }] });
    await match(null, null);
    await idle();
    expect((await figure('pair.levelDiffDb')).LO).toBeNull();
    await match(row.takeId, row.setupId);
    await idle();
    expect((await figure('pair.levelDiffDb')).LO).toBeCloseTo(0, 1);
  });

  it('are a criterion: the verdict knows what noise reduction took', async () => {
    const { at, quoin, lodestar, refer } = await takeOfTwo();
    const criterion = { name: 'Noise taken off', kind: 'measured', measureId: 'pair.denoise.noiseReductionDb', weight: 10, best: 20, worst: 0 };
    expect((await harness.call('POST', `${at}/criteria`, criterion)).status).toBe(201);
    const verdictOn = async (chainId: string) => {
      const { rows: judged } = (await harness.call<Verdict>('GET', `${at}/verdict`)).body;
      return judged.find((row) => row.candidate.id === chainId)?.cells[0]?.value ?? null;
    };
    await harness.call('POST', `${at}/verdict/open`);
    expect(await verdictOn(lodestar.chainId)).toBeNull();
    await refer(quoin.chainId);
    await idle();
    expect(Math.abs(((await verdictOn(lodestar.chainId)) ?? 0) - 12)).toBeLessThan(1);
    expect(await verdictOn(quoin.chainId)).toBe(0);
  });

  it('say why there is nothing: another performance is none', async () => {
    const { trial, at, chains } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001_T01 QU.wav', plainWav(raw));
    await harness.upload(trial.id, 'S001_T01 LO.wav', plainWav(mixed(whiteNoise(-40, LENGTH_S, 77), whiteNoise(-50, LENGTH_S, 78))));
    await harness.change(at, { reference: { kind: 'candidate', levelId: chains[0] } });
    await idle();
    const stray = (await rows(at)).find((row) => row.fileName.includes('LO'))!;
    const { against } = (await harness.call<RecordingDetail>('GET', `${at}/recordings/${stray.id}`)).body;
    expect(against?.figures).toEqual({});
    expect(against?.warnings.join()).toMatch(/not the same performance|could not be aligned/);
  });

  it('a reference that no take could hold is refused with the field that is wrong', async () => {
    const { at } = await readyTrial(harness);
    const answer = await harness.change<{ error: { fields: Record<string, string> } }>(at, { reference: { kind: 'station', levelId: 'x' } });
    expect(answer.status).toBe(422);
    expect(Object.keys(answer.body.error.fields).join()).toContain('reference');
  });
});
