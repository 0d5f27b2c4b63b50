import { bufferSource } from '@marvet/core/audio/byteSource';
import { filled } from '@marvet/core/audio/filled';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import type { Joined, Places } from '@marvet/core/contract/places';
import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import type { Take } from '@marvet/core/domain/take';
import { fieldRecordingWav } from '@marvet/core/simulate/fieldRecording';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

const RATE_HZ = 8000;
const MORNING_MS = Date.UTC(2026, 3, 14, 9);
/** Where a recording of a minute and a half was split, in seconds; the take lies over the second seam. */
const SPLIT_S = [0, 31.25, 62.5, 90];
const TAKE_S = [50, 71] as const;

let harness: Harness;
let at: string;
let chains: readonly [string, string];
let take: Take;
const whole = filled(90 * RATE_HZ, (frame) => Math.round(2 ** 20 * Math.sin(frame / 5) * (0.3 + Math.sin(frame / RATE_HZ) ** 2)) / 2 ** 23);

beforeEach(async () => {
  harness = await openHarness();
  ({ at, chains } = await readyTrial(harness));
  take = (await harness.call<Take[]>('GET', `${at}/takes`)).body[0] as Take;
  await harness.services.store.write((tables) =>
    tables.takes.update(take.id, { status: 'done', startedAtMs: MORNING_MS + TAKE_S[0] * 1000, stoppedAtMs: MORNING_MS + TAKE_S[1] * 1000 }),
  );
  for (const [index, fromS] of SPLIT_S.slice(0, -1).entries()) await bring(`BELT_000${index + 1}.WAV`, fromS, SPLIT_S[index + 1] as number);
});
afterEach(() => harness.close());

async function bring(name: string, fromS: number, toS: number): Promise<string> {
  const channel = whole.subarray(fromS * RATE_HZ, toS * RATE_HZ);
  const notes = { project: '', scene: '', take: '', tape: '', note: '', trackNames: ['QU', 'LO'] };
  const bytes = fieldRecordingWav({
    channels: [channel, channel.map((x, index) => x * Math.sin(index / 3))],
    sampleRateHz: RATE_HZ,
    ...notes,
    startedAtMs: MORNING_MS + fromS * 1000,
  });
  const answer = await harness.raw('POST', `${at}/files?name=${name}&folder=Belt`, bytes);
  return ((await answer.json()) as { file: { id: string } }).file.id;
}

const places = async () => (await harness.call<Places>('GET', `${at}/places`)).body;
const files = async () => (await harness.call<FileRow[]>('GET', `${at}/files`)).body;
const rows = async () => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body;
const idle = () => harness.services.work.runner.idle();

describe('a recording that its recorder split', () => {
  it('is told, joined to one file with every sample, and its take over the seam is cut and measured whole', async () => {
    const [{ fileIds, by }] = (await places()).split as [Places['split'][number]];
    expect(by).toBe('time reference');
    expect(fileIds).toHaveLength(3);
    const { status, body: joined } = await harness.call<Joined>('POST', `${at}/files/join`, { fileIds });
    expect([status, joined.name]).toEqual([201, 'BELT_0001 to 0003.wav']);
    expect((await files()).map(({ name, format }) => [name, format.durationS])).toEqual([['BELT_0001 to 0003.wav', 90]]);
    const bytes = new Uint8Array(await (await harness.raw('GET', `${at}/files/${joined.fileId}/audio`)).arrayBuffer());
    const source = bufferSource(bytes);
    expect(Buffer.from(readChannel(source, readWavHeader(source), 0).buffer).equals(Buffer.from(whole.buffer))).toBe(true);

    const { recorder } = (await files())[0] as FileRow;
    await harness.call('PATCH', `${at}/places/recorders`, { name: recorder as string, aheadS: 0 });
    const place = (await places()).files[0]!;
    expect((await places()).split).toEqual([]);
    expect(place.takeId).toBe(take.id);
    await harness.call('POST', `${at}/places`, { places: [{ fileId: joined.fileId, takeId: take.id, by: 'clock' }] });
    await idle();
    const setups = new Map(take.setups.map(({ id, candidateId }) => [id, candidateId]));
    expect((await rows()).map(({ channels, setupId, takeId }) => [takeId, setups.get(setupId ?? ''), channels[0]])).toEqual([
      [take.id, chains[0], 0],
      [take.id, chains[1], 1],
    ]);
    expect((await rows()).every(({ table }) => table !== null)).toBe(true);
  });

  it('comes apart again as it was, tied as it was, and joined once more is the same file', async () => {
    const [{ fileIds }] = (await places()).split as [Places['split'][number]];
    await harness.call('PUT', `${at}/files/${fileIds[1]}/assignment`, { takeId: take.id, channels: [{ channelIndex: 0, setupId: take.setups[0]!.id }] });
    await idle();
    const before = (await rows()).map(({ id, fileId, takeId, setupId }) => [id, fileId, takeId, setupId]).sort();
    const { body: joined } = await harness.call<Joined>('POST', `${at}/files/join`, { fileIds });
    expect((await harness.call('POST', `${at}/files/join/undo`, { fileId: joined.fileId, fileIds })).status).toBe(204);
    await idle();
    expect((await files()).map(({ id, state }) => [id, state]).sort()).toEqual(fileIds.map((id) => [id, 'done']).sort());
    expect((await rows()).map(({ id, fileId, takeId, setupId }) => [id, fileId, takeId, setupId]).sort()).toEqual(before);
    expect((await harness.call<Joined>('POST', `${at}/files/join`, { fileIds })).body.fileId).toBe(joined.fileId);
    expect(await files()).toHaveLength(1);
  });

  it('joined by two pages at once is one file; undone by both it is its parts', async () => {
    const [{ fileIds }] = (await places()).split as [Places['split'][number]];
    const joins = await Promise.all([1, 2].map(() => harness.call<Joined>('POST', `${at}/files/join`, { fileIds })));
    expect(joins.map(({ status }) => status)).toEqual([201, 201]);
    const ids = [...new Set(joins.map(({ body }) => body.fileId))];
    expect((await files()).map(({ id }) => id)).toEqual(ids);
    await Promise.all([1, 2].map(() => harness.call('POST', `${at}/files/join/undo`, { fileId: ids[0], fileIds })));
    expect((await files()).map(({ id }) => id).sort()).toEqual([...fileIds].sort());
  });

  it('of which a part is deleted while it is being joined stays in its parts', async () => {
    const [{ fileIds }] = (await places()).split as [Places['split'][number]];
    const { blobs } = harness.services;
    const { stage } = blobs;
    // While the samples are copied.
    blobs.stage = async (chunks) => {
      const staged = await stage(chunks);
      await harness.call('DELETE', `${at}/files/${fileIds[1]}`);
      return staged;
    };
    const { status } = await harness.call('POST', `${at}/files/join`, { fileIds });
    expect(status).toBe(409);
    expect((await files()).map(({ id }) => id).sort()).toEqual([fileIds[0], fileIds[2]].sort());
  });

  it('is not glued together of what does not go on, nor while a part of it is heard in a round', async () => {
    const [{ fileIds }] = (await places()).split as [Places['split'][number]];
    const other = await bring('BELT_0009.WAV', 0, 20);
    for (const wrong of [[fileIds[0], fileIds[2]], [...fileIds].reverse(), [...fileIds, other], fileIds.slice(0, 2)]) {
      const { status, text } = await harness.call('POST', `${at}/files/join`, { fileIds: wrong });
      expect([status, text]).toEqual([422, expect.stringContaining('do not go on in each other')]);
    }
    await idle();
    const heard = (await rows()).filter(({ fileId }) => fileId === fileIds[0]).map(({ id }) => id);
    const { id: criterionId } = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body;
    const made = await harness.call('POST', `${at}/rounds`, { title: 'R', recordingIds: heard, criterionIds: [criterionId] });
    expect(made.status).toBe(201);
    const { status, text } = await harness.call('POST', `${at}/files/join`, { fileIds });
    expect([status, text]).toEqual([409, expect.stringContaining('BELT_0001.WAV is heard in a listening round')]);
    expect(await files()).toHaveLength(4);
  });
});
