import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { type FileRow, type RecordingDetail, type RecordingRow, TABLE_FIGURES } from '@marvet/core/contract/recordings';
import { newId } from '@marvet/core/domain/identity';
import type { Listener, Round } from '@marvet/core/domain/round';
import type { Take } from '@marvet/core/domain/take';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { reportOf, spoken } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial, recorderWav } from '../testing/harness.ts';
import { heardClips } from '../testing/heardClips.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await openHarness();
});
afterAll(() => harness.close());

const loud = spoken(-26, -70, 1);
const noisy = spoken(-38, -52, 20);
const figure = (row: RecordingRow | undefined, id: (typeof TABLE_FIGURES)[number]) => row?.table?.[TABLE_FIGURES.indexOf(id)];
const files = async (at: string) => (await harness.call<FileRow[]>('GET', `${at}/files`)).body;
/** The candidate of each recording, through its take and setup. */
async function candidates(at: string): Promise<(string | null)[]> {
  const takes = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
  const setups = takes.flatMap((take) => take.setups);
  return (await recordings(at)).map((row) => setups.find((setup) => setup.id === row.setupId)?.candidateId ?? null);
}
const recordings = async (at: string) => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;

describe('files', () => {
  it('are measured, matched by name and track, and hold the figures that were put in', async () => {
    const { trial, at, chains } = await readyTrial(harness);
    const { status } = await harness.upload(trial.id, 'S001_T01.wav', recorderWav([loud, noisy], '9', '9', ['LO', 'QU']));
    expect(status).toBe(201);
    await harness.services.work.runner.idle();
    const rows = await recordings(at);
    expect(await candidates(at)).toEqual([chains[1], chains[0]]);
    expect((figure(rows[0], 'noise.snrDb') as number) - (figure(rows[1], 'noise.snrDb') as number)).toBeGreaterThan(20);
    // Any figure is there for all recordings at once, by its name.
    const floors = (await harness.call<Record<string, number>>('GET', `${at}/recordings/figure/noise.floorDbfs`)).body;
    expect(floors[rows[0]!.id]).toBeCloseTo(-70, 0);
    expect(floors[rows[1]!.id]).toBeCloseTo(-52, 0);
    expect((await harness.call('GET', `${at}/recordings/figure/noise.nothing`)).status).toBe(422);
    expect(await files(at)).toMatchObject([{ matchedBy: 'file name', state: 'done', methodVersion: METHOD_VERSION }]);
  });

  it('room tone marked by hand wins over the pauses; one past the end is refused', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'a.wav', plainWav(loud));
    await harness.services.work.runner.idle();
    const [row] = await recordings(at);
    const pauses = async () => (await harness.call<RecordingDetail>('GET', `${at}/recordings/${row!.id}`)).body.report!.activity.pause;
    expect((await pauses()).length).toBeGreaterThan(2);
    expect((await harness.call('PUT', `${at}/recordings/${row!.id}/room-tone`, { roomTone: [0.1, 0.4] })).status).toBe(202);
    await harness.services.work.runner.idle();
    expect(await pauses()).toEqual([[0.1, 0.4]]);
    expect(await harness.call('PUT', `${at}/recordings/${row!.id}/room-tone`, { roomTone: [1, 900] })).toMatchObject({
      status: 422,
      body: { error: { fields: { roomTone: 'Ends after the recording' } } },
    });
    expect((await harness.call('PUT', `${at}/recordings/${row!.id}/room-tone`, { roomTone: [2, 1] })).status).toBe(422);
    await harness.call('PUT', `${at}/recordings/${row!.id}/room-tone`, { roomTone: null });
    await harness.services.work.runner.idle();
    expect((await pauses()).length).toBeGreaterThan(2);
  });

  it('are measured again, all or only those of an older method', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'a.wav', plainWav(loud));
    await harness.upload(trial.id, 'b.wav', plainWav(noisy));
    await harness.services.work.runner.idle();
    const again = async (which: string) => (await harness.call<{ files: number }>('POST', `${at}/files/measure`, { which })).body.files;
    expect(await again('old')).toBe(0);
    const [first] = await files(at);
    await harness.services.store.write((tables) => tables.files.update(first!.id, { methodVersion: METHOD_VERSION - 1 }));
    expect(await again('old')).toBe(1);
    await harness.services.work.runner.idle();
    expect(await again('all')).toBe(2);
    await harness.services.work.runner.idle();
    expect((await files(at)).map((file) => file.methodVersion)).toEqual([METHOD_VERSION, METHOD_VERSION]);
    expect((await harness.call('POST', `${at}/files/measure`, { which: 'some' })).status).toBe(422);
  });

  it('two recordings are compared, aligned', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001_T01.wav', recorderWav([loud, loud.map((x) => -x / 2)], '9', '9', ['LO', 'QU']));
    await harness.services.work.runner.idle();
    const [a, b] = await recordings(at);
    const { body } = await harness.call<ComparedPair>('GET', `${at}/recordings/${b!.id}/pair/${a!.id}`);
    expect(body.pair.polarity).toBe(-1);
    expect(body.pair.levelDiffDb).toBeCloseTo(-6.02, 1);
    expect(body.pair.latencyMs).toBeCloseTo(0, 2);
    expect((await harness.call('GET', `${at}/recordings/${b!.id}/pair/${newId()}`)).status).toBe(404);
  });

  it('fall back on scene and take, then on the hand', async () => {
    const { trial, at, chains } = await readyTrial(harness);
    await harness.upload(trial.id, 'REC_0007.WAV', recorderWav([loud], '1', '1', ['QU']));
    await harness.upload(trial.id, 'loose.wav', plainWav(noisy));
    const [byMetadata, loose] = await files(at);
    expect(byMetadata?.matchedBy).toBe('iXML or bext');
    expect(loose?.takeId).toBeNull();
    const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body;
    const wrong = await harness.call('PUT', `${at}/files/${loose!.id}/assignment`, { takeId: take!.id, channels: [{ channelIndex: 0, setupId: newId() }] });
    expect(wrong.status).toBe(422);
    await harness.call('PUT', `${at}/files/${loose!.id}/assignment`, {
      takeId: take!.id,
      channels: [{ channelIndex: 0, setupId: take!.setups.find((setup) => setup.candidateId === chains[1])!.id }],
    });
    expect((await recordings(at)).every((row) => row.takeId === take!.id)).toBe(true);
    expect((await candidates(at)).sort()).toEqual([...chains].sort());
  });

  it('are taken away with all of their figures, as CSV and as JSON', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001_T01.wav', recorderWav([loud], '1', '1', ['QU']));
    await expect.poll(async () => (await files(at))[0]?.state, { timeout: 20_000 }).toBe('done');
    const [recording] = await recordings(at);
    const { figures } = (await harness.call<{ figures: Record<string, number> }>('GET', `${at}/recordings/${recording!.id}`)).body;
    const json = await harness.call<{ trial: string; recordings: { slate: number; candidate: string; figures: Record<string, number | null> }[] }>(
      'GET',
      `${at}/recordings/figures.json`,
    );
    expect(json.body).toMatchObject({ trial: 'Jetty', recordings: [{ slate: 1, candidate: 'Quoin', methodVersion: METHOD_VERSION, condition: { station: 'jetty' }, figures }] });
    const csv = await harness.call('GET', `${at}/recordings/figures.csv`);
    expect(csv.headers.get('content-disposition')).toBe('attachment; filename="Jetty figures.csv"');
    const [head, row] = csv.text.trim().split('\r\n') as [string, string];
    expect(head).toContain('(noise.snrDb)');
    expect(row.startsWith('1,1,no,Quoin,QU,')).toBe(true);
    expect(row).toContain(`,${figures['levels.rmsDbfs']},`);
    expect((await harness.call('GET', `/trials/${newId()}/recordings/figures.csv`)).status).toBe(404);
  });

  it('the same bytes twice are noticed, also when the first lies in the bin', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'a.wav', plainWav(loud));
    expect(await harness.upload(trial.id, 'b.wav', plainWav(loud))).toMatchObject({ status: 200, body: { duplicate: true, file: { name: 'a.wav' } } });
    const [file] = await files(at);
    await harness.call('DELETE', `${at}/files/${file!.id}`);
    expect(await recordings(at)).toEqual([]);
    expect(await harness.upload(trial.id, 'c.wav', plainWav(loud))).toMatchObject({ body: { duplicate: true } });
    expect(await files(at)).toHaveLength(1);
  });

  it.each([
    ['nothing.wav', new Uint8Array(0), 'empty'],
    ['picture.wav', Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4, 5, 6, 7, 8, 9]), 'not-wav'],
    ['cut.wav', plainWav(loud).subarray(0, 30), 'truncated'],
  ])('%s is refused by name and leaves nothing behind', async (name, bytes, code) => {
    const { trial, at } = await readyTrial(harness);
    const answer = await harness.upload(trial.id, name, bytes);
    expect(answer).toMatchObject({ status: 422, body: { error: { code } } });
    expect((answer.body as { error: { message: string } }).error.message).toContain(name);
    expect(await files(at)).toEqual([]);
    expect((await harness.call<{ count: number }>('GET', '/storage')).body.count).toBe(0);
  });

  it('a file cut in its audio is measured as far as it goes and says so', async () => {
    const { trial, at } = await readyTrial(harness);
    const whole = plainWav(loud);
    await harness.upload(trial.id, 'S001.wav', whole.subarray(0, whole.byteLength - 100_000));
    await harness.services.work.runner.idle();
    const [file] = await files(at);
    expect(file?.state).toBe('done');
    expect(file?.warnings.join()).toContain('truncated');
  });

  it('measuring can be stopped and taken up again', async () => {
    const { trial, at } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001.wav', plainWav(...Array.from({ length: 12 }, () => loud)));
    const [file] = await files(at);
    await harness.call('POST', `${at}/files/${file!.id}/cancel`);
    await harness.services.work.runner.idle();
    expect((await files(at))[0]).toMatchObject({ state: 'failed', failure: expect.stringContaining('stopped') });
    await harness.call('POST', `${at}/files/${file!.id}/measure`);
    await harness.services.work.runner.idle();
    expect((await files(at))[0]).toMatchObject({ state: 'done', failure: null });
  });

  it('are played whole in ranges, and one channel alone', async () => {
    const { trial, at } = await readyTrial(harness);
    const bytes = recorderWav([loud, noisy], '1', '1', ['QU', 'LO']);
    await harness.upload(trial.id, 'S001.wav', bytes);
    await harness.services.work.runner.idle();
    const [file] = await files(at);
    const part = await harness.call('GET', `${at}/files/${file!.id}/audio`, undefined, { range: 'bytes=0-11' });
    expect([part.status, part.headers.get('content-range')]).toEqual([206, `bytes 0-11/${bytes.byteLength}`]);
    const [, second] = await recordings(at);
    const detail = (await harness.call<RecordingDetail>('GET', `${at}/recordings/${second!.id}`)).body;
    expect(detail.report?.activity.speech).toHaveLength(3);
    expect(detail.series?.rmsDbfs.length).toBe(Math.ceil(loud.length / 2400));
    const channel = await harness.services.store.recordings.findOneByOrFail({ id: second!.id });
    const { channelWav } = await import('../audio/channelWav.ts');
    const { body, lengthBytes } = channelWav(harness.services.blobs.pathOf(file!.sha256), channel.channels, [null, null]);
    const mono = new Uint8Array(await new Response(body).arrayBuffer());
    expect(mono.byteLength).toBe(lengthBytes);
    const samples = readChannel(bufferSource(mono), readWavHeader(bufferSource(mono)), 0);
    expect(samples.reduce((worst, value, index) => Math.max(worst, Math.abs(value - noisy[index]!)), 0)).toBeLessThan(1e-6);
  });
});

describe('blind listening', () => {
  async function makeRound() {
    const { trial, at, chains } = await readyTrial(harness);
    await harness.upload(trial.id, 'S001_Secretname.wav', recorderWav([loud, noisy], '1', '1', ['QU', 'LO']));
    await harness.services.work.runner.idle();
    const criterion = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body;
    const ids = (await recordings(at)).map((row) => row.id);
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'Round 1', recordingIds: ids, criterionIds: [criterion.id] })).body;
    const seat = (name: string) => harness.call<Listener>('POST', `${at}/rounds/${round.id}/listeners`, { name, listenedOn: 'buds' });
    return { at, chains, criterion, ids, round, seat };
  }

  it('tells nothing that could name a clip before the listener is done', async () => {
    const { at, chains, criterion, ids, round, seat } = await makeRound();
    const { id } = (await seat('Orla')).body;
    const secrets = [...ids, ...chains, 'QU', 'LO', 'Quoin', 'Lodestar', 'Secretname', (await files(at))[0]!.sha256];
    const told = [
      await harness.call('GET', `/listen/${id}`),
      await harness.call('PUT', `/listen/${id}/ratings`, { letter: 'A', criterionId: criterion.id, points: 3, reason: '' }),
    ];
    const { clips, headers } = await heardClips((address) => harness.raw('GET', address), `/listen/${id}/pieces`);
    for (const answer of told) for (const secret of secrets) expect(answer.text).not.toContain(secret);
    for (const secret of secrets) expect(headers).not.toContain(secret);
    expect(clips.map(([samples]) => samples!.length > 1000)).toEqual([true, true]);
    const listed = (await harness.call<Round[]>('GET', `${at}/rounds`)).body.find((each) => each.id === round.id);
    expect(listed?.listeners).toMatchObject([{ letters: null, ratings: [] }]);
  });

  it('clips are equally long and equally loud', async () => {
    const { seat, round } = await makeRound();
    const { id } = (await seat('Orla')).body;
    const heard = await heardClips((address) => harness.raw('GET', address), `/listen/${id}/pieces`);
    const clips = heard.clips.map(([samples]) => samples!);
    expect(clips[0]!.length).toBe(clips[1]!.length);
    // Of the voice: the louder floor of one of them is no part of it, so that all of the clip differs a little more.
    const loudness = clips.map((clip) => reportOf([clip]).channels[0]!.loudness.integratedLufs!);
    expect(Math.abs(loudness[0]! - loudness[1]!)).toBeLessThan(1);
    expect(Math.abs(loudness[0]! - round.matchedLufs)).toBeLessThan(1);
  });

  it('finishing needs every score, opens the identities, and closes the scores', async () => {
    const { at, criterion, ids, seat } = await makeRound();
    const { id } = (await seat('Tam')).body;
    const rate = (letter: string, points: number) => harness.call('PUT', `/listen/${id}/ratings`, { letter, criterionId: criterion.id, points, reason: 'r' });
    await rate('A', 8);
    expect(await harness.call('POST', `/listen/${id}/finish`)).toMatchObject({ status: 422, body: { error: { message: expect.stringContaining('1 of 2') } } });
    await rate('B', 2);
    expect((await harness.call('POST', `/listen/${id}/finish`)).status).toBe(204);
    expect((await rate('A', 1)).status).toBe(409);
    const [round] = (await harness.call<Round[]>('GET', `${at}/rounds`)).body;
    expect(Object.values(round!.listeners[0]!.letters!).sort()).toEqual([...ids].sort());
  });

  it('draws an order for each listener', async () => {
    const { seat } = await makeRound();
    const orders = new Set<string>();
    for (let index = 0; index < 24; index++) orders.add(JSON.stringify((await harness.services.store.listeners.findOneByOrFail({ id: (await seat(`L${index}`)).body.id })).order));
    expect(orders.size).toBe(2);
  });
});
