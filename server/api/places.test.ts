import { filled } from '@marvet/core/audio/filled';
import type { Places, Placings } from '@marvet/core/contract/places';
import type { RecordingRow } from '@marvet/core/contract/recordings';
import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import { fieldRecordingWav } from '@marvet/core/simulate/fieldRecording';
import { randomSource } from '@marvet/core/simulate/random';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

const RATE_HZ = 8000;
const MORNING_MS = new Date(2026, 3, 14, 9).getTime();
/** Seconds after the morning at which takes began, and how long they were. */
const LOGGED: [atS: number, lengthS: number][] = [
  [0, 14],
  [95, 9],
  [240, 21],
  [330, 12],
  [610, 17],
  [700, 8],
  [1500, 25],
  [1625, 11],
];
const RECORDERS = [
  { folder: 'Cards/Gull', aheadS: 4 * 3600 + 17, leadS: 3 },
  { folder: 'Cards/Tern', aheadS: -25.5 * 3600, leadS: 5 },
];

let harness: Harness;
let at: string;
let chains: readonly [string, string];
/** The take that each file is of in truth. */
const truth = new Map<string, string>();
beforeAll(async () => {
  harness = await openHarness();
  ({ at, chains } = await readyTrial(harness));
  const [take] = (await harness.call<Take[]>('GET', `${at}/takes`)).body as [Take];
  const ids = LOGGED.map((_, index) => (index === 0 ? take.id : newId()));
  await harness.services.store.write(async (tables) => {
    const whole = await tables.takes.findOneByOrFail({ id: take.id });
    for (const other of await tables.takes.find()) if (other.id !== take.id) await tables.takes.delete({ id: other.id });
    for (const [index, [atS, lengthS]] of LOGGED.entries()) {
      const times = { status: 'done' as const, startedAtMs: MORNING_MS + atS * 1000, stoppedAtMs: MORNING_MS + (atS + lengthS) * 1000 };
      if (index === 0) await tables.takes.update(take.id, times);
      else await tables.takes.insert({ ...whole, ...times, id: ids[index] as string, slate: 50 + index, position: 50 + index });
    }
  });
  const random = randomSource(4);
  for (const { folder, aheadS, leadS } of RECORDERS) {
    for (const [index, [atS, lengthS]] of LOGGED.entries()) {
      const early = leadS + 2 * (random.uniform() - 0.5);
      const samples = filled(Math.round((lengthS + early + 4) * RATE_HZ), () => 0.01 * random.normal());
      // Written as the clock of the place, which is what a recorder knows.
      const local = new Date(MORNING_MS + (atS - early + aheadS) * 1000);
      const startedAtMs = Date.UTC(local.getFullYear(), local.getMonth(), local.getDate(), local.getHours(), local.getMinutes(), local.getSeconds(), local.getMilliseconds());
      const bytes = fieldRecordingWav({ channels: [samples], sampleRateHz: RATE_HZ, project: '', scene: '', take: '', tape: '', note: '', trackNames: [''], startedAtMs });
      const answer = await harness.raw('POST', `/trials/${at.split('/')[2]}/files?name=${`REC_00${index + 10}.WAV`}&folder=${encodeURIComponent(folder)}`, bytes);
      const { file, matchedBy } = (await answer.json()) as { file: { id: string }; matchedBy: string | null };
      expect(matchedBy).toBeNull();
      truth.set(file.id, ids[index] as string);
    }
  }
}, 60_000);
afterAll(() => harness.close());

const places = async () => (await harness.call<Places>('GET', `${at}/places`)).body;
const recordings = async () => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
const surely = (files: Places['files']): Placings => ({
  places: files.filter(({ takeId, confidence, placed }) => !placed && takeId && confidence > 0.9).map(({ fileId, takeId }) => ({ fileId, takeId, by: 'clock' })),
});

describe('files that no name says a take of', () => {
  it('are told where they belong by the clock of their recorder, which is found, whatever it says', async () => {
    const { files, recorders } = await places();
    expect(files).toHaveLength(16);
    for (const { fileId, takeId, confidence, placed, timeBy } of files) {
      expect([takeId, placed, timeBy]).toEqual([truth.get(fileId), null, 'header']);
      expect(confidence).toBeGreaterThan(0.9);
    }
    expect(recorders.map(({ recorder, files: count, timed }) => [recorder, count, timed])).toEqual([
      ['Gull, REC, Simulated recorder', 8, 8],
      ['Tern, REC, Simulated recorder', 8, 8],
    ]);
    for (const [index, { aheadS }] of RECORDERS.entries()) expect(Math.abs((recorders[index]?.clock?.aheadS ?? 0) - aheadS)).toBeLessThan(8);
  });

  it('are put there many at once, and where they lay before is sent back to undo it', async () => {
    const chosen = surely((await places()).files);
    const { status, body: before } = await harness.call<Placings>('POST', `${at}/places`, chosen);
    expect(status).toBe(200);
    for (const { fileId, takeId } of await recordings()) expect(takeId).toBe(truth.get(fileId));
    expect((await places()).files.every(({ placed }) => placed?.by === 'clock')).toBe(true);
    await harness.call('POST', `${at}/places`, before);
    for (const { takeId } of await recordings()) expect(takeId).toBeNull();
  });

  it('have the candidate that their recorder had in the file that somebody tied', async () => {
    const { files } = await places();
    const [first] = files as [Places['files'][number]];
    const take = (await harness.call<Take[]>('GET', `${at}/takes`)).body.find(({ id }) => id === truth.get(first.fileId)) as Take;
    const setupId = take.setups.find(({ candidateId }) => candidateId === chains[1])?.id ?? null;
    await harness.call('PUT', `${at}/files/${first.fileId}/assignment`, { takeId: take.id, channels: [{ channelIndex: 0, setupId }] });
    const before = (await harness.call<Placings>('POST', `${at}/places`, surely((await places()).files))).body;
    const own = new Set(files.filter(({ recorder }) => recorder === first.recorder).map(({ fileId }) => fileId));
    const setups = new Map((await harness.call<Take[]>('GET', `${at}/takes`)).body.flatMap((each) => each.setups.map(({ id, candidateId }) => [id, candidateId] as const)));
    for (const row of await recordings()) expect(setups.get(row.setupId ?? '') ?? null).toBe(own.has(row.fileId) ? chains[1] : null);
    // Back as it was, the one that was tied by hand too.
    await harness.call('POST', `${at}/places`, before);
    await harness.call('POST', `${at}/places`, { places: [{ fileId: first.fileId, takeId: null, by: null }] });
    for (const { takeId } of await recordings()) expect(takeId).toBeNull();
  });

  it('have the candidate that somebody says of their recorder, those that are in place too, and it is undone', async () => {
    await harness.call('POST', `${at}/places`, surely((await places()).files));
    const [gull, tern] = (await places()).recorders.map(({ recorder }) => recorder) as [string, string];
    const { body: before } = await harness.call<Placings>('PATCH', `${at}/places/recorders`, { name: gull, channel: { index: 0, candidateId: chains[0] } });
    await harness.call('PATCH', `${at}/places/recorders`, { name: tern, channel: { index: 0, candidateId: chains[1] } });
    const setups = new Map((await harness.call<Take[]>('GET', `${at}/takes`)).body.flatMap((each) => each.setups.map(({ id, candidateId }) => [id, candidateId] as const)));
    const recorderOf = new Map((await places()).files.map(({ fileId, recorder }) => [fileId, recorder]));
    for (const row of await recordings()) expect(setups.get(row.setupId ?? '')).toBe(recorderOf.get(row.fileId) === gull ? chains[0] : chains[1]);
    expect((await places()).recorders.map(({ candidateIds }) => candidateIds)).toEqual([[chains[0]], [chains[1]]]);
    await harness.call('PATCH', `${at}/places/recorders`, { name: gull, channel: { index: 0, candidateId: null } });
    await harness.call('POST', `${at}/places`, before);
    for (const row of await recordings()) if (recorderOf.get(row.fileId) === gull) expect(row.setupId).toBeNull();
    await harness.call('PATCH', `${at}/places/recorders`, { name: tern, channel: { index: 0, candidateId: null } });
    await harness.call('POST', `${at}/places`, { places: (await places()).files.map(({ fileId }) => ({ fileId, takeId: null, by: null })) });
  });

  it('all move when the clock of their recorder is set, and find their own again when it is left to be found', async () => {
    const [{ recorder }] = (await places()).recorders as [Places['recorders'][number]];
    await harness.call('PATCH', `${at}/places/recorders`, { name: recorder, aheadS: 60 });
    const moved = await places();
    expect(moved.recorders[0]).toMatchObject({ aheadByHandS: 60, clock: { aheadS: 60 } });
    expect(moved.files.filter((file) => file.recorder === recorder && file.takeId !== null)).toEqual([]);
    await harness.call('PATCH', `${at}/places/recorders`, { name: recorder, aheadS: null });
    expect((await places()).files.every(({ fileId, takeId }) => takeId === truth.get(fileId))).toBe(true);
  });

  it('one that somebody ties moves the others of its recorder along', async () => {
    const { files } = await places();
    const [first] = files as [Places['files'][number]];
    // The wrong take by hand: the clock cannot follow, and says what it makes of it.
    const wrong = [...truth.values()][5] as string;
    await harness.call('POST', `${at}/places`, { places: [{ fileId: first.fileId, takeId: wrong, by: 'hand' }] });
    const told = (await places()).files.find(({ fileId }) => fileId === first.fileId);
    expect(told).toMatchObject({ takeId: wrong, placed: { takeId: wrong, by: 'hand' } });
    expect(told?.others[0]?.takeId).toBe(truth.get(first.fileId));
    await harness.call('POST', `${at}/places`, { places: [{ fileId: first.fileId, takeId: null, by: null }] });
  });

  it('two pages: what one put meanwhile the other does not move, and an undo neither; two channels at once are both said', async () => {
    const { files, recorders } = await places();
    const [first] = files as [Places['files'][number]];
    const [own, elsewhere] = [first.takeId, [...truth.values()][5]] as [string, string];
    const put = (takeId: string, from: string | null) => harness.call<Placings>('POST', `${at}/places`, { places: [{ fileId: first.fileId, takeId, by: 'hand', from }] });
    const { body: undo } = await put(elsewhere, null);
    const stale = await put(own, null);
    expect([stale.status, stale.text]).toEqual([409, expect.stringContaining('changed on another page')]);
    expect((await put(own, elsewhere)).status).toBe(200);
    expect((await harness.call('POST', `${at}/places`, undo)).status).toBe(409);
    expect((await places()).files[0]?.placed).toMatchObject({ takeId: own, by: 'hand' });
    const name = recorders[0]!.recorder;
    const say = (index: number, candidateId: string | null) => harness.call('PATCH', `${at}/places/recorders`, { name, channel: { index, candidateId } });
    await Promise.all([say(0, chains[0]), say(2, chains[1])]);
    expect(await harness.services.store.recorders.findOneBy({ name })).toMatchObject({ candidateIds: [chains[0], null, chains[1]] });
    await Promise.all([say(0, null), say(2, null)]);
    await harness.call('POST', `${at}/places`, { places: [{ fileId: first.fileId, takeId: null, by: null }] });
  });

  it('are all put, or none: a take that is not there changes nothing', async () => {
    const { files } = await places();
    const [first, second] = files as [Places['files'][number], Places['files'][number]];
    const { status } = await harness.call('POST', `${at}/places`, {
      places: [
        { fileId: first.fileId, takeId: first.takeId, by: 'hand' },
        { fileId: second.fileId, takeId: newId(), by: 'hand' },
      ],
    });
    expect(status).toBe(404);
    for (const { takeId } of await recordings()) expect(takeId).toBeNull();
  });

  it('that ran on over the takes are cut about each, measured part by part, moved, and joined again', async () => {
    // All that the first four takes have, from half a minute before, on two channels.
    const samples = filled(380 * RATE_HZ, (frame) => 0.1 * Math.sin(frame / 7) * (0.2 + Math.sin(frame / RATE_HZ / 3) ** 2));
    const local = new Date(MORNING_MS - 30_000);
    const startedAtMs = local.getTime() - local.getTimezoneOffset() * 60_000;
    const bytes = fieldRecordingWav({
      channels: [samples, samples],
      sampleRateHz: RATE_HZ,
      project: '',
      scene: '',
      take: '',
      tape: '',
      note: '',
      trackNames: ['QU', 'LO'],
      startedAtMs,
    });
    const { file } = (await (await harness.raw('POST', `/trials/${at.split('/')[2]}/files?name=DAY_0001.WAV&folder=Pocket`, bytes)).json()) as {
      file: { id: string; recorder: string };
    };
    const placeNow = async () => (await places()).files.find(({ fileId }) => fileId === file.id)!;
    await harness.call('PATCH', `${at}/places/recorders`, { name: file.recorder, aheadS: 0 });
    const { cuts, over } = await placeNow();
    expect(over).toHaveLength(4);
    expect(cuts.map(({ startS, endS, logStartS }) => [startS, endS, logStartS])).toEqual([
      [25, 49, 30],
      [120, 139, 125],
      [265, 296, 270],
      [355, 377, 360],
    ]);
    const whole = { fileId: file.id, takeId: cuts[0]!.takeId, by: 'clock' };
    const asked = { places: [{ ...whole, cuts: cuts.map(({ cutOff: _cutOff, ...part }) => part) }] };
    const { status, body: before } = await harness.call<Placings>('POST', `${at}/places`, asked);
    expect(status).toBe(200);
    const own = async () => (await recordings()).filter(({ fileId }) => fileId === file.id);
    expect(await own()).toHaveLength(8);
    const setups = new Map((await harness.call<Take[]>('GET', `${at}/takes`)).body.flatMap((take) => take.setups.map(({ id, candidateId }) => [id, candidateId] as const)));
    for (const { channels, setupId } of await own()) expect(setups.get(setupId ?? '')).toBe(chains[channels[0] as number]);
    expect((await placeNow()).placed).toMatchObject({ by: 'clock', takes: 4 });
    await expect.poll(async () => (await harness.call<{ state: string }[]>('GET', `${at}/files`)).body.every(({ state }) => state === 'done'), { timeout: 40_000 }).toBe(true);
    // Each part has figures of its own: of the same tone, at the level it has there.
    const rmsOf = async (id: string) => (await harness.call<{ figures: Record<string, number> }>('GET', `${at}/recordings/${id}`)).body.figures['levels.rmsDbfs'] as number;
    const parts = (await own()).filter(({ channels }) => channels[0] === 0).sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0));
    for (const [index, part] of parts.entries()) {
      const [from, to] = [cuts[index]!.startS * RATE_HZ, cuts[index]!.endS * RATE_HZ];
      let sum = 0;
      for (let frame = from; frame < to; frame++) sum += (samples[frame] as number) ** 2;
      expect(await rmsOf(part.id)).toBeCloseTo(10 * Math.log10(sum / (to - from)), 2);
    }
    // One begins later, as far as what lies before it allows.
    expect((await harness.call('PUT', `${at}/recordings/${parts[1]!.id}/cut`, { startS: 45 })).status).toBe(422);
    expect((await harness.call('PUT', `${at}/recordings/${parts[1]!.id}/cut`, { startS: 118 })).status).toBe(202);
    expect((await own()).filter(({ startS }) => startS === 118)).toHaveLength(2);
    // What was marked between the takes would be gone: nothing is cut until it is taken back.
    const markedAt = async (startS: number) => {
      const { body: undoCut } = await harness.call<Placings>('POST', `${at}/places`, before);
      const [row] = await own();
      await harness.services.store.write((tables) =>
        tables.recordings.update(row!.id, { corrections: [{ id: newId(), was: null, now: { kind: 'click', startS, endS: startS + 0.1 } }] }),
      );
      const answer = await harness.call('POST', `${at}/places`, { places: [{ ...whole, cuts }] });
      await harness.services.store.write((tables) => tables.recordings.update(row!.id, { corrections: [] }));
      await harness.call('POST', `${at}/places`, { places: undoCut.places.map(({ from: _from, ...place }) => place) });
      return [answer.status, answer.text];
    };
    expect(await markedAt(80)).toEqual([409, expect.stringContaining('At 80.0 s of the file something was marked')]);
    expect((await markedAt(30))[0]).toBe(200);
    // Overlapping parts are refused; joined again it is whole, and cut again it is as it was.
    const [first, second] = cuts as [(typeof cuts)[number], (typeof cuts)[number]];
    expect((await harness.call('POST', `${at}/places`, { places: [{ ...whole, cuts: [{ ...first, endS: 130 }, second] }] })).status).toBe(422);
    const { body: cutBefore } = await harness.call<Placings>('POST', `${at}/places`, before);
    expect((await own()).map(({ startS, takeId }) => [startS, takeId])).toEqual([
      [null, null],
      [null, null],
    ]);
    await harness.call('POST', `${at}/places`, cutBefore);
    expect((await own()).map(({ startS }) => startS).sort((a, b) => (a ?? 0) - (b ?? 0))).toEqual([25, 25, 118, 118, 265, 265, 355, 355]);
    await harness.call('DELETE', `${at}/files/${file.id}`);
  }, 90_000);

  it('are told apart by hand where two recorders write alike', async () => {
    const { files } = await places();
    const some = files.slice(0, 3).map(({ fileId }) => fileId);
    await harness.call('PUT', `${at}/places/recorder`, { fileIds: some, recorder: 'Spare unit' });
    expect((await places()).recorders.find(({ recorder }) => recorder === 'Spare unit')).toMatchObject({ files: 3 });
    const { status, text } = await harness.call('PUT', `${at}/places/recorder`, { fileIds: some, recorder: '  ' });
    expect([status, text]).toEqual([422, expect.stringContaining('Give the recorder a name')]);
    expect((await harness.call('PUT', `${at}/places/recorder`, { fileIds: [some[0], newId()], recorder: 'Other' })).status).toBe(404);
    expect((await places()).recorders.some(({ recorder }) => recorder === 'Other')).toBe(false);
  });
});
