import { readFileSync } from 'node:fs';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { resample } from '@marvet/core/audio/resample';
import { writeWav } from '@marvet/core/audio/writeWav';
import type { Beginning, LaidOut, LayOut } from '@marvet/core/contract/beginning';
import { type OpenListening, openPiecesQuestion } from '@marvet/core/contract/openListening';
import type { Places, Placings } from '@marvet/core/contract/places';
import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Chain } from '@marvet/core/domain/chain';
import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import { type HeardBy, onMicrophone } from '@marvet/core/testing/onMicrophone';
import { concat, silence } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness } from '../testing/harness.ts';
import { heardClips } from '../testing/heardClips.ts';

const RATE_HZ = 16_000;
const LAV: HeardBy = { beforeS: 1, afterS: 1, snrDb: 30, gainDb: -6, shelfDb: -6, room: { share: 0.05, decayS: 0.3 }, driftPpm: 10, seed: 1 };
const BOOM: HeardBy = { beforeS: 3, afterS: 0.5, snrDb: 20, gainDb: -14, shelfDb: 3, room: { share: 0.4, decayS: 0.4 }, driftPpm: -10, seed: 2 };
const CAMERA: HeardBy = { beforeS: 6, afterS: 9, snrDb: 14, gainDb: -20, shelfDb: 0, room: { share: 0.8, decayS: 0.5 }, driftPpm: 30, seed: 3 };

function voice(name: string): Float64Array {
  const source = bufferSource(readFileSync(new URL(`../../core/simulate/voices/${name}.wav`, import.meta.url)));
  const layout = readWavHeader(source);
  return resample(readChannel(source, layout, 0), layout.format.sampleRateHz, RATE_HZ);
}
const FIRST = voice('ferrier-neutral');
const SECOND = voice('netmaker-neutral');

let harness: Harness;
let at: string;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());
beforeEach(async () => {
  const { id } = (await harness.call<{ id: string }>('POST', '/trials', { name: `Yesterday ${newId().slice(0, 4)}` })).body;
  at = `/trials/${id}`;
});

async function bring(name: string, ...channels: Float64Array[]): Promise<string> {
  const bytes = writeWav(channels, { encoding: 'pcm', bitDepth: 16, sampleRateHz: RATE_HZ });
  const answer = await harness.raw('POST', `${at}/files?name=${encodeURIComponent(name)}`, bytes);
  return ((await answer.json()) as { file: { id: string } }).file.id;
}

/** What is found once everything was listened to. */
async function found(): Promise<Beginning> {
  for (;;) {
    const { body } = await harness.call<Beginning>('GET', `${at}/beginning`);
    if (body.looked === body.of) return body;
    await harness.services.sounds.idle();
  }
}

const draftOf = ({ moments, channels, readings }: Beginning): LayOut => ({
  moments: moments.map(({ takeId, parts }) => ({ takeId, parts })),
  channels: channels.map(({ fileId, channelIndex }, index) => ({ fileId, channelIndex, microphone: readings[0]?.[index] ?? null })),
});
const namesIn = ({ moments, channels }: Beginning) =>
  moments.map(({ parts }) => parts.map(({ fileId }) => channels.find((channel) => channel.fileId === fileId)?.fileName).sort()).sort();

describe('a trial that begins with recordings', () => {
  it('puts together what sounded at one moment, names the microphones, and makes candidates and takes of them', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('boom_1.wav', onMicrophone(FIRST, BOOM, RATE_HZ));
    await bring('lav_2.wav', onMicrophone(SECOND, LAV, RATE_HZ));
    await bring('boom_2.wav', onMicrophone(SECOND, BOOM, RATE_HZ));
    const begun = await found();
    expect(begun.of).toBe(6);
    expect(namesIn(begun)).toEqual([
      ['boom_1.wav', 'lav_1.wav'],
      ['boom_2.wav', 'lav_2.wav'],
    ]);
    expect(new Set(begun.readings[0])).toEqual(new Set(['boom', 'lav']));
    const { status, body } = await harness.call<LaidOut>('POST', `${at}/beginning`, draftOf(begun));
    expect(status).toBe(201);
    expect(body.takes.map(({ setups }) => setups.length)).toEqual([2, 2]);
    const takes = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    expect(takes.map(({ slate, status: state }) => [slate, state])).toEqual([
      [1, 'done'],
      [2, 'done'],
    ]);
    expect(takes[0]?.condition).toMatchObject({ distance: 'not known', station: 'not known' });
    // Nothing is left to be laid out, and candidates that are there already are not made twice.
    expect((await found()).channels).toEqual([]);
    await bring('lav_3.wav', onMicrophone(voice('ferrier-counting'), LAV, RATE_HZ));
    const more = await found();
    await harness.call('POST', `${at}/beginning`, { ...draftOf(more), channels: more.channels.map(({ fileId, channelIndex }) => ({ fileId, channelIndex, microphone: 'Lav' })) });
    expect((await harness.call<Chain[]>('GET', `${at}/chains`)).body.map(({ name }) => name).sort()).toEqual(['boom', 'lav']);
    expect((await harness.call<Take[]>('GET', `${at}/takes`)).body.map(({ slate }) => slate)).toEqual([1, 2, 3]);
  });

  it('files that come later join the takes that they sound like, with a candidate of their own', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('lav_2.wav', onMicrophone(SECOND, LAV, RATE_HZ));
    const named = (begun: Beginning, name: string): LayOut => ({ ...draftOf(begun), channels: draftOf(begun).channels.map((channel) => ({ ...channel, microphone: name })) });
    await harness.call('POST', `${at}/beginning`, named(await found(), 'Lav'));
    const takes = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    const boom = await bring('boom_2.wav', onMicrophone(SECOND, BOOM, RATE_HZ));
    const other = await bring('else.wav', onMicrophone(voice('ferrier-sibilants'), BOOM, RATE_HZ));
    const more = await found();
    expect(more.moments).toEqual([
      { takeId: takes[1]?.id, slate: 2, parts: [{ fileId: boom, startS: null, endS: null }] },
      { takeId: null, slate: 3, parts: [{ fileId: other, startS: null, endS: null }] },
    ]);
    // The microphone that its take has already it cannot be.
    const refused = await harness.call<{ error: { message: string } }>('POST', `${at}/beginning`, named(more, 'Lav'));
    expect(refused.body.error.message).toBe('Lav is in take 2 already: boom_2.wav. Give it another name, or leave it out.');
    const { status, body } = await harness.call<LaidOut>('POST', `${at}/beginning`, named(more, 'Boom'));
    expect(status).toBe(201);
    expect(body.takes[0]).toMatchObject({ takeId: takes[1]?.id });
    const after = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    expect(after.map(({ setups }) => setups.length)).toEqual([1, 2, 1]);
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
    expect(new Set(rows.filter(({ takeId }) => takeId === takes[1]?.id).map(({ setupId }) => setupId))).toEqual(new Set(after[1]?.setups.map(({ id }) => id)));
  });

  it('is taken back with one press: its files lie loose again, what it made is in the bin, and takes that were there are as they were', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    const named = (begun: Beginning, name: string): LayOut => ({ ...draftOf(begun), channels: draftOf(begun).channels.map((channel) => ({ ...channel, microphone: name })) });
    await harness.call('POST', `${at}/beginning`, named(await found(), 'Lav'));
    const state = async () => {
      const [takes, chains, rows] = await Promise.all(['takes', 'chains', 'recordings'].map(async (what) => (await harness.call<object[]>('GET', `${at}/${what}`)).body));
      return { takes, chains, ties: (rows as RecordingRow[]).map(({ fileName, takeId, setupId, startS }) => [fileName, takeId, setupId, startS]) };
    };
    // A camera joins the take that is there; the boom is a take of its own.
    await bring('clip.wav', onMicrophone(FIRST, CAMERA, RATE_HZ));
    await bring('boom_2.wav', onMicrophone(SECOND, BOOM, RATE_HZ));
    const begun = await found();
    const before = await state();
    const draft = draftOf(begun);
    const channels = draft.channels.map((channel) => ({
      ...channel,
      microphone: begun.channels.find(({ fileId }) => fileId === channel.fileId)?.fileName.startsWith('boom') ? 'Boom' : 'Camera',
    }));
    const { body } = await harness.call<LaidOut>('POST', `${at}/beginning`, { ...draft, channels });
    expect(body.takes).toHaveLength(2);
    expect((await state()).takes).toHaveLength(2);
    expect((await harness.call('POST', `${at}/beginning/back`, body.back)).status).toBe(204);
    expect(await state()).toEqual(before);
    const again = await found();
    expect(namesIn(again)).toEqual(namesIn(begun));
    // What it made is not lost: it lies in the bin, and its numbers are not given again.
    const bin = (await harness.call<{ kind: string; name: string }[]>('GET', `${at}/bin`)).body.map(({ kind, name }) => `${kind} ${name}`);
    expect(bin.sort()).toEqual(['chain Boom', 'chain Camera', 'take Take 02']);
    expect(again.moments.map(({ slate }) => slate)).toEqual([1, 3]);
  });

  it('a take that somebody put another file into stays with it, and so does its candidate', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    const begun = await found();
    const { body } = await harness.call<LaidOut>('POST', `${at}/beginning`, draftOf(begun));
    const later = await bring('later.wav', onMicrophone(SECOND, LAV, RATE_HZ));
    const [take] = body.takes as [LaidOut['takes'][number]];
    await harness.call('PUT', `${at}/files/${later}/assignment`, { takeId: take.takeId, channels: [] });
    await harness.call('POST', `${at}/beginning/back`, body.back);
    expect((await harness.call<Take[]>('GET', `${at}/takes`)).body.map(({ id }) => id)).toEqual([take.takeId]);
    expect((await harness.call<Chain[]>('GET', `${at}/chains`)).body.map(({ id }) => id)).toEqual(body.candidateIds);
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
    expect(rows.map(({ fileName, takeId }) => [fileName, takeId]).sort()).toEqual([
      ['later.wav', take.takeId],
      ['lav_1.wav', null],
    ]);
  });

  it('a candidate that another take has by now stays, and a file that was put elsewhere', async () => {
    const lav = await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    const named = (begun: Beginning): LayOut => ({ ...draftOf(begun), channels: draftOf(begun).channels.map((channel) => ({ ...channel, microphone: 'Lav' })) });
    const { body: first } = await harness.call<LaidOut>('POST', `${at}/beginning`, named(await found()));
    await bring('lav_2.wav', onMicrophone(SECOND, LAV, RATE_HZ));
    const { body: second } = await harness.call<LaidOut>('POST', `${at}/beginning`, named(await found()));
    await harness.call('PUT', `${at}/files/${lav}/assignment`, { takeId: second.takes[0]!.takeId, channels: [] });
    await harness.call('POST', `${at}/beginning/back`, first.back);
    expect((await harness.call<Chain[]>('GET', `${at}/chains`)).body.map(({ name }) => name)).toEqual(['Lav']);
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
    expect(new Set(rows.map(({ takeId }) => takeId))).toEqual(new Set([second.takes[0]!.takeId]));
  });

  it('a camera that ran on over two takes is cut about both, and no byte is copied', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('lav_2.wav', onMicrophone(SECOND, LAV, RATE_HZ));
    const whole = concat(FIRST, silence(20, RATE_HZ), SECOND);
    const cameraId = await bring('clip.wav', onMicrophone(whole, CAMERA, RATE_HZ));
    const begun = await found();
    expect(namesIn(begun)).toEqual([
      ['clip.wav', 'lav_1.wav'],
      ['clip.wav', 'lav_2.wav'],
    ]);
    const { body } = await harness.call<LaidOut>('POST', `${at}/beginning`, draftOf(begun));
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body.filter(({ fileId }) => fileId === cameraId);
    const starts = rows.map(({ startS }) => startS ?? 0).sort((a, b) => a - b);
    // Each part begins two seconds before the lavalier of its take did.
    const [first, second] = [CAMERA.beforeS - LAV.beforeS - 2, CAMERA.beforeS + FIRST.length / RATE_HZ + 20 - LAV.beforeS - 2];
    expect(Math.abs((starts[0] as number) - first)).toBeLessThan(0.02);
    expect(Math.abs((starts[1] as number) - second)).toBeLessThan(0.02);
    expect(new Set(rows.map(({ takeId }) => takeId)).size).toBe(2);
    expect(rows.every(({ setupId }) => setupId !== null)).toBe(true);
    // Taken back it is one file again.
    await harness.call('POST', `${at}/beginning/back`, body.back);
    const oneAgain = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body.filter(({ fileId }) => fileId === cameraId);
    expect(oneAgain.map(({ startS, endS, takeId }) => [startS, endS, takeId])).toEqual([[null, null, null]]);
  });

  it('files that have nothing in common are takes of their own', async () => {
    await bring('a.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('b.wav', onMicrophone(SECOND, BOOM, RATE_HZ));
    expect(namesIn(await found())).toEqual([['a.wav'], ['b.wav']]);
  });

  it('refuses a microphone that stands twice in a take, says where, and makes nothing', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('boom_1.wav', onMicrophone(FIRST, BOOM, RATE_HZ));
    const begun = await found();
    const twice = { ...draftOf(begun), channels: draftOf(begun).channels.map((channel) => ({ ...channel, microphone: 'Lav' })) };
    const { status, body } = await harness.call<{ error: { message: string } }>('POST', `${at}/beginning`, twice);
    expect(status).toBe(422);
    expect(body.error.message).toMatch(/^Lav stands twice in take 1: .*boom_1\.wav.* Give one of them another name, or leave it out\.$/);
    expect((await harness.call<Take[]>('GET', `${at}/takes`)).body).toEqual([]);
    expect((await harness.call<Chain[]>('GET', `${at}/chains`)).body).toEqual([]);
  });

  it('two pages that lay the same files out: the second is told, and nothing is made twice', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    const draft = draftOf(await found());
    const answers = await Promise.all([harness.call('POST', `${at}/beginning`, draft), harness.call('POST', `${at}/beginning`, draft)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
    expect((await harness.call<Take[]>('GET', `${at}/takes`)).body).toHaveLength(1);
  });

  it('a channel that is left out is in its take, and of no candidate', async () => {
    const fileId = await bring('poly.wav', onMicrophone(FIRST, LAV, RATE_HZ), onMicrophone(FIRST, { ...LAV, seed: 9 }, RATE_HZ));
    const begun = await found();
    const draft = { ...draftOf(begun), channels: [0, 1].map((channelIndex) => ({ fileId, channelIndex, microphone: channelIndex === 0 ? 'Lav' : null })) };
    await harness.call('POST', `${at}/beginning`, draft);
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
    expect(rows.map(({ setupId }) => setupId === null)).toEqual([false, true]);
  });

  it('says which file could not be listened to, and lays out the rest', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    const lost = await bring('lost.wav', onMicrophone(SECOND, { ...LAV, seed: 77 }, RATE_HZ));
    const { sha256 } = await harness.services.store.files.findOneByOrFail({ id: lost });
    await harness.services.work.runner.idle();
    await harness.services.blobs.remove(sha256);
    const begun = await found();
    expect(begun.troubles).toHaveLength(1);
    expect(begun.troubles[0]).toMatch(/^lost\.wav: /);
    expect(namesIn(begun)).toEqual([['lav_1.wav'], ['lost.wav']]);
  });
});

describe('files that come to takes that are there', () => {
  /** Where files belong, once everything was listened to. */
  async function places(): Promise<Places> {
    for (;;) {
      const { body } = await harness.call<Places>('GET', `${at}/places`);
      if (body.looked === body.of) return body;
      await harness.services.sounds.idle();
    }
  }

  it('are of the take whose sound they hold, whatever their clock and name', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('lav_2.wav', onMicrophone(SECOND, LAV, RATE_HZ));
    await harness.call('POST', `${at}/beginning`, draftOf(await found()));
    const takes = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    const boom = await bring('MZ000381.wav', onMicrophone(SECOND, BOOM, RATE_HZ));
    const other = await bring('MZ000382.wav', onMicrophone(voice('ferrier-sibilants'), BOOM, RATE_HZ));
    const whole = await bring('DAY.wav', onMicrophone(concat(silence(5, RATE_HZ), FIRST, silence(30, RATE_HZ), SECOND), CAMERA, RATE_HZ));
    const { files } = await places();
    const of = (fileId: string) => files.find((file) => file.fileId === fileId);
    expect(of(boom)).toMatchObject({ takeId: takes[1]?.id, by: 'sound', like: { name: 'lav_2.wav' } });
    expect(of(boom)?.confidence).toBeGreaterThan(0.9);
    expect(of(other)?.by).toBe('clock');
    expect(of(other)?.like).toBeNull();
    // The day-long one is cut about both, exact to the sound.
    expect(of(whole)?.over).toEqual([takes[0]?.id, takes[1]?.id]);
    const [first, second] = of(whole)?.cuts ?? [];
    const lavAtS = CAMERA.beforeS + 5 - LAV.beforeS;
    expect(Math.abs((first?.startS ?? 0) - (lavAtS - 2))).toBeLessThan(0.02);
    expect(Math.abs((second?.startS ?? 0) - (lavAtS + FIRST.length / RATE_HZ + 30 - 2))).toBeLessThan(0.02);
    const cuts = (of(whole)?.cuts ?? []).map(({ takeId, startS, endS, logStartS }) => ({ takeId, startS, endS, logStartS }));
    const put = [
      { fileId: boom, takeId: takes[1]?.id ?? null, by: 'sound', from: null },
      { fileId: whole, takeId: cuts[0]?.takeId ?? null, by: 'sound', from: null, cuts },
    ];
    const { status, body: before } = await harness.call<Placings>('POST', `${at}/places`, { places: put });
    expect(status).toBe(200);
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
    expect(rows.filter(({ fileId }) => fileId === whole).map(({ takeId }) => takeId)).toEqual([takes[0]?.id, takes[1]?.id]);
    // They are other microphones than the one that is there: nobody takes them for it, though it is the only one of its take.
    expect(rows.filter(({ fileId }) => fileId === whole || fileId === boom).map(({ setupId }) => setupId)).toEqual([null, null, null]);
    await harness.call('POST', `${at}/places`, before);
    expect((await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body.filter(({ takeId }) => takeId !== null)).toHaveLength(2);
  });
});

describe('open listening', () => {
  it('gives clips of equal length, matched, and keeps nothing', async () => {
    await bring('lav_1.wav', onMicrophone(FIRST, LAV, RATE_HZ));
    await bring('boom_1.wav', onMicrophone(FIRST, BOOM, RATE_HZ));
    await harness.call('POST', `${at}/beginning`, draftOf(await found()));
    await harness.services.work.runner.idle();
    const rows = (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
    const { status, body } = await harness.call<OpenListening>('POST', `${at}/open-listening`, { recordingIds: rows.map(({ id }) => id) });
    expect(status).toBe(200);
    const { clips } = await heardClips((address) => harness.raw('GET', address), `${at}/open-listening/pieces`, openPiecesQuestion(body));
    const [a, b] = clips.map(([samples]) => samples) as [Float64Array, Float64Array];
    expect(a.length).toBe(Math.round(body.lengthS * 48_000));
    expect(b.length).toBe(a.length);
    // The boom was 8 dB lower, and its recorder ran two seconds longer before.
    const [first, second] = body.clips as [OpenListening['clips'][number], OpenListening['clips'][number]];
    const [boom, lav] = rows[0]?.fileName === 'boom_1.wav' ? [first, second] : [second, first];
    expect(Math.abs(boom.startS - lav.startS - 2)).toBeLessThan(0.01);
    const level = (samples: Float64Array) => 10 * Math.log10(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);
    expect(Math.abs(level(a) - level(b))).toBeLessThan(3);
    // Once more, the second brought nearest to the first, which is its own equal and stays as it is.
    const question = openPiecesQuestion(body, rows[0]?.id);
    const both = (await heardClips((address) => harness.raw('GET', address), `${at}/open-listening/pieces`, question)).clips.map(([samples]) => samples as Float64Array);
    expect(both.map(({ length }) => length)).toEqual([a.length, a.length, a.length, a.length]);
    expect(both.slice(0, 3)).toEqual([a, b, a]);
    const { pair } = (await harness.call<{ pair: { eqMatch: unknown[] } }>('GET', `${at}/recordings/${rows[1]?.id}/pair/${rows[0]?.id}`)).body;
    expect(both[3]!.some((value, at) => Math.abs(value - b[at]!) > 1e-4)).toBe(pair.eqMatch.length > 0);
    expect((await harness.call<unknown[]>('GET', `${at}/rounds`)).body).toEqual([]);
  });

  it.each([
    ['one recording', { recordingIds: [newId()] }, 422],
    ['recordings that are not there', { recordingIds: [newId(), newId()] }, 422],
  ])('%s is refused with a sentence', async (_name, asked, status) => {
    expect((await harness.call('POST', `${at}/open-listening`, asked)).status).toBe(status);
  });

  it.each([
    ['a piece of no number', 'x', `clips=${newId()}:0:0,${newId()}:0:0&lengthS=5`, 422],
    ['a piece of one clip', '0', `clips=${newId()}:0:0&lengthS=5`, 422],
    ['a piece of clips that are nowhere', '0', `clips=${newId()},${newId()}&lengthS=5`, 422],
    ['a piece of no length', '0', `clips=${newId()}:0:0,${newId()}:0:0&lengthS=0`, 422],
    ['a piece of strange recordings', '0', `clips=${newId()}:0:0,${newId()}:0:0&lengthS=5`, 404],
  ])('%s', async (_name, piece, question, status) => {
    expect((await harness.call('GET', `${at}/open-listening/pieces/${piece}?${question}`)).status).toBe(status);
  });
});
