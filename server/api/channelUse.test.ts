import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import type { UploadResult } from '@marvet/core/contract/answers';
import type { RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import { mixed, whiteNoise } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial, recorderWav } from '../testing/harness.ts';

let harness: Harness;
let at: string;
let trialId: string;
beforeAll(async () => {
  harness = await openHarness();
});
beforeEach(async () => {
  ({ at } = await readyTrial(harness));
  trialId = at.split('/')[2] as string;
});
afterAll(() => harness.close());

const scaled = (samples: Float64Array, db: number) => samples.map((value) => value * 10 ** (db / 20));
const hot = scaled(voiced(8), 20);
const clipped = hot.map((value) => Math.max(-0.9999, Math.min(0.9999, value)));
const rows = async () => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body.sort((a, b) => (a.channels[0] ?? 0) - (b.channels[0] ?? 0));
const detail = async (id: string) => (await harness.call<RecordingDetail>('GET', `${at}/recordings/${id}`)).body;
async function bringIn(name: string, channels: Float64Array[], trackNames = channels.map(() => '')): Promise<string> {
  const { body } = await harness.upload(trialId, name, recorderWav(channels, '1', '1', trackNames));
  await harness.services.work.runner.idle();
  return (body as UploadResult).file.id;
}

describe('a backup track', () => {
  it('is recognised, is no candidate, tells what it would save, and is used and given back', async () => {
    await bringIn('S001.wav', [clipped, scaled(hot, -12)], ['QU', 'LO']);
    const [main, lower] = await rows();
    expect(main).toMatchObject({ backup: null, setupId: expect.any(String) });
    // Its name is that of another candidate; its sound is that of channel 1.
    expect(lower).toMatchObject({ setupId: null, backup: { ofChannel: 0 } });
    expect(lower!.backup!.lowerByDb).toBeCloseTo(12, 1);
    expect(lower!.backup!.clipped).toBeGreaterThan(0);
    expect(lower!.backup!.saved).toBe(lower!.backup!.clipped);
    expect((await harness.call('POST', `${at}/files/swap`, { recordingIds: [lower!.id, main!.id] })).status).toBe(204);
    expect((await rows()).map(({ setupId }) => setupId)).toEqual([null, main!.setupId]);
    // Measured again it stays as somebody chose it.
    await harness.call('POST', `${at}/files/${main!.fileId}/measure`);
    await harness.services.work.runner.idle();
    expect((await rows()).map(({ setupId }) => setupId)).toEqual([null, main!.setupId]);
    await harness.call('POST', `${at}/files/swap`, { recordingIds: [lower!.id, main!.id] });
    expect((await rows()).map(({ setupId }) => setupId)).toEqual([main!.setupId, null]);
  });

  it('is not asked for as a microphone where a trial begins with recordings', async () => {
    await harness.upload(
      trialId,
      'reed walk.wav',
      plainWav(
        hot.map((value) => value / 8),
        scaled(hot, -30),
      ),
    );
    await harness.services.work.runner.idle();
    const { body } = await harness.call<{ channels: { channelIndex: number }[] }>('GET', `${at}/beginning`);
    expect(body.channels.map(({ channelIndex }) => channelIndex)).toEqual([0]);
  });

  it.each([
    ['the main track', ['S001_T01_QU.wav', 'S001_T01_QU_low.wav']],
    ['the backup', ['S001_T01_QU_low.wav', 'S001_T01_QU.wav']],
  ])('in a file of its own is recognised where %s comes first, gives its candidate up, is used and given back', async (_, names) => {
    const sounds: Record<string, Float64Array> = { 'S001_T01_QU.wav': clipped, 'S001_T01_QU_low.wav': scaled(hot, -12) };
    for (const name of names) await bringIn(name, [sounds[name]!], ['QU']);
    const byName = async () => (await rows()).sort((a, b) => a.fileName.length - b.fileName.length);
    const [main, lower] = await byName();
    expect(main).toMatchObject({ backup: null, setupId: expect.any(String) });
    expect(lower).toMatchObject({ setupId: null, takeId: main!.takeId, backup: { ofChannel: 0, ofFile: { id: main!.fileId, name: 'S001_T01_QU.wav' } } });
    expect(lower!.backup!.lowerByDb).toBeCloseTo(12, 1);
    expect(lower!.backup!.clipped).toBeGreaterThan(0);
    expect(lower!.backup!.saved).toBe(lower!.backup!.clipped);
    expect((await harness.call('POST', `${at}/files/swap`, { recordingIds: [lower!.id, main!.id] })).status).toBe(204);
    // Measured again, whichever it is, it stays as somebody chose it.
    for (const { fileId } of [main!, lower!]) await harness.call('POST', `${at}/files/${fileId}/measure`);
    await harness.services.work.runner.idle();
    expect((await byName()).map(({ setupId, backup }) => [setupId, backup === null])).toEqual([
      [null, true],
      [main!.setupId, false],
    ]);
  });

  it('that lies in no take goes where its main track lies', async () => {
    await bringIn('S001_T01_QU.wav', [clipped]);
    await harness.upload(trialId, 'B0000123.wav', plainWav(scaled(hot, -12)));
    await harness.services.work.runner.idle();
    const [main, lower] = (await rows()).sort((a, b) => b.fileName.localeCompare(a.fileName));
    expect(lower).toMatchObject({ takeId: main!.takeId, setupId: null, backup: { ofFile: { id: main!.fileId } } });
  });

  it('in a file of its own is not asked for as a microphone where a trial begins with recordings', async () => {
    await harness.upload(trialId, 'reed walk.wav', plainWav(hot.map((value) => value / 8)));
    await harness.upload(trialId, 'reed walk safe.wav', plainWav(scaled(hot, -30)));
    await harness.services.work.runner.idle();
    const { body } = await harness.call<{ channels: { fileName: string }[] }>('GET', `${at}/beginning`);
    expect(body.channels.map(({ fileName }) => fileName)).toEqual(['reed walk.wav']);
  });

  it('of another take or file is not swapped for anything', async () => {
    await bringIn('S001.wav', [hot.map((value) => value / 8)]);
    await bringIn('S002.wav', [whiteNoise(-40, 3)]);
    const [a, b] = await rows();
    expect((await harness.call('POST', `${at}/files/swap`, { recordingIds: [a!.id, b!.id] })).status).toBe(422);
  });
});

describe('stereo', () => {
  const shared = scaled(voiced(6), 0);
  const left = mixed(shared, whiteNoise(-50, 6, 5));
  const right = mixed(scaled(shared, -3), whiteNoise(-50, 6, 6));
  const stereo = (fileId: string, firstChannels: number[], allOfRecorder = false) => harness.call('PUT', `${at}/files/${fileId}/stereo`, { firstChannels, allOfRecorder });

  it('is one recording of two channels: measured as a programme and by channel, heard in both ears, and two again', async () => {
    const fileId = await bringIn('S001.wav', [left, right], ['QU', 'LO']);
    const [first, second] = await rows();
    const alone = [await detail(first!.id), await detail(second!.id)];
    expect((await stereo(fileId, [0])).status).toBe(200);
    await harness.services.work.runner.idle();
    const [one, ...others] = await rows();
    expect(others).toEqual([]);
    expect(one).toMatchObject({ id: first!.id, channels: [0, 1], setupId: first!.setupId });
    const both = await detail(one!.id);
    // Each channel is measured as it was by itself.
    expect(both.report?.levels).toEqual(alone[0]!.report?.levels);
    expect(both.second?.report.levels).toEqual(alone[1]!.report?.levels);
    // ITU-R BS.1770: powers of both channels are added.
    const [a, b] = alone.map(({ figures }) => figures!['loudness.integratedLufs']!);
    expect(both.figures!['loudness.integratedLufs']).toBeCloseTo(10 * Math.log10(10 ** (a! / 10) + 10 ** (b! / 10)), 1);
    expect(both.stereo!.correlation).toBeGreaterThan(0.9);
    expect(both.stereo!.monoLossDb).toBeLessThan(0.5);

    const heard = new Uint8Array(await (await harness.raw('GET', `${at}/recordings/${one!.id}/audio`)).arrayBuffer());
    const layout = readWavHeader(bufferSource(heard));
    expect(layout.format.channels).toBe(2);
    for (const [channel, samples] of [left, right].entries()) {
      const back = readChannel(bufferSource(heard), layout, channel);
      expect(back.reduce((worst, value, frame) => Math.max(worst, Math.abs(value - samples[frame]!)), 0)).toBeLessThan(1e-6);
    }

    await stereo(fileId, []);
    await harness.services.work.runner.idle();
    expect((await rows()).map(({ channels }) => channels)).toEqual([[0], [1]]);
    expect((await detail((await rows())[1]!.id)).report?.levels).toEqual(alone[1]!.report?.levels);
  });

  it('is said for all files of a recorder at once, and keeps what was marked', async () => {
    const fileId = await bringIn('S001.wav', [left, right], ['QU', 'LO']);
    await bringIn('S002.wav', [scaled(left, -1), right], ['QU', 'LO']);
    const before = await rows();
    const marked = before.find(({ fileId: own, channels }) => own === fileId && channels[0] === 1)!;
    await harness.call('PUT', `${at}/recordings/${marked.id}/room-tone`, { roomTone: [1, 2] });
    expect((await stereo(fileId, [0], true)).body).toEqual({ files: 2 });
    await harness.services.work.runner.idle();
    expect((await rows()).map(({ channels }) => channels)).toEqual([
      [0, 1],
      [0, 1],
    ]);
    const [own] = (await rows()).filter((row) => row.fileId === fileId);
    expect((await detail(own!.id)).roomTone).toEqual([1, 2]);
  });

  it('joined, parted and joined again has each mark once', async () => {
    const fileId = await bringIn('S001.wav', [left, right], ['QU', 'LO']);
    const [first] = await rows();
    const id = newId();
    const marked = await harness.call('PUT', `${at}/recordings/${first!.id}/corrections/${id}`, { was: null, now: { kind: 'disturbance', startS: 1, endS: 1.2 }, seen: null });
    expect(marked.status).toBeLessThan(300);
    for (const pairs of [[0], [], [0]]) expect((await stereo(fileId, pairs)).status).toBe(200);
    await harness.services.work.runner.idle();
    const [one] = await rows();
    expect((await detail(one!.id)).corrections.map((each) => each.id)).toEqual([id]);
  });

  it('is refused of channels that are not there, and of what was listened to', async () => {
    const fileId = await bringIn('S001.wav', [left, right], ['QU', 'LO']);
    expect((await stereo(fileId, [4])).status).toBe(422);
    expect((await stereo(fileId, [0, 1])).status).toBe(422);
    const own = await rows();
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    const criterion = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body;
    const round = await harness.call('POST', `${at}/rounds`, {
      title: take!.id.slice(0, 4),
      recordingIds: own.map(({ id }) => id),
      criterionIds: [criterion.id],
      listeners: ['Ferrier'],
    });
    expect(round.status).toBe(201);
    const refused = await stereo(fileId, [0]);
    expect(refused.status).toBe(409);
    expect((await rows()).map(({ channels }) => channels)).toEqual([[0], [1]]);
  });
});
