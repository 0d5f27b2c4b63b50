import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import type { UploadResult } from '@marvet/core/contract/answers';
import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import { codedSignal } from '@marvet/core/testing/codedSignal';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { withFileSource } from '../audio/fileSource.ts';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

const fixture = (name: string) => readFile(new URL(`../../core/audio/decode/fixtures/${name}`, import.meta.url));
const shaOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

let harness: Harness;
let trialId: string;
let at: string;
beforeAll(async () => {
  harness = await openHarness();
});
beforeEach(async () => {
  ({ at } = await readyTrial(harness));
  trialId = at.split('/')[2] as string;
});
afterAll(() => harness.close());

const bringIn = async (name: string, as = name) => {
  const bytes = await fixture(name);
  const { status, body } = await harness.upload(trialId, as, bytes);
  return { status, bytes, body: body as UploadResult & { error?: { code: string; message: string } } };
};
const rowOf = async (id: string) => (await harness.call<FileRow[]>('GET', `${at}/files`)).body.find((file) => file.id === id)!;
const recordingsOf = async (fileId: string) => (await harness.call<RecordingRow[]>('GET', `${at}/recordings`)).body.filter((row) => row.fileId === fileId);
const measured = (id: string) => expect.poll(async () => (await rowOf(id)).state, { timeout: 20_000 }).toBe('done');

describe('files of any recorder', () => {
  it.each([
    ['24.flac', 'FLAC', 'FLAC', false, 2],
    ['24.aiff', 'AIFF', 'PCM', false, 2],
    ['tones.mp3', 'MP3', 'MP3', true, 2],
    ['tones.m4a', 'MP4', 'AAC', true, 2],
    ['tones.ogg', 'Ogg', 'Vorbis', true, 2],
    ['tones.opus', 'Ogg', 'Opus', true, 2],
    ['two-tracks.mp4', 'MP4', 'AAC', true, 3],
    ['camera.mov', 'MOV', 'PCM', false, 2],
  ] as const)('%s is measured, finds its take by its name, says what it is, and comes out again as it came', async (name, container, codec, lossy, channels) => {
    const { status, body, bytes } = await bringIn(name, `S001_T01_${name}`);
    expect(status).toBe(201);
    expect(body.matchedBy).toBe('file name');
    await measured(body.file.id);
    const row = await rowOf(body.file.id);
    expect(row.format).toMatchObject({ container, codec, lossy, channels });
    expect(row.warnings.some((warning) => warning.startsWith('lossy:'))).toBe(lossy);
    expect(row.sizeBytes).toBe(bytes.byteLength);
    const recordings = await recordingsOf(row.id);
    // What a film has as stereo, or a codec that thins out for listening, is one recording of two channels.
    expect(recordings.flatMap((each) => each.channels).sort()).toEqual(Array.from({ length: channels }, (_, channel) => channel));
    expect(recordings.filter((each) => each.channels.length === 2)).toHaveLength(lossy || container === 'MOV' ? 1 : 0);
    expect(recordings.every(({ table }) => table?.[2] !== undefined)).toBe(true);
    const out = await harness.raw('GET', `${at}/files/${row.id}/audio`);
    expect(shaOf(new Uint8Array(await out.arrayBuffer()))).toBe(shaOf(bytes));
    // It can be heard like any other.
    expect((await harness.raw('GET', `${at}/recordings/${recordings[0]!.id}/audio`)).headers.get('content-type')).toBe('audio/wav');
  });

  it('what is lossless is measured to its last bit', async () => {
    const { body } = await bringIn('24.flac', 'S001_T01_24.flac');
    const { sha256 } = await rowOf(body.file.id);
    const samples = withFileSource(harness.services.blobs.pathOf(sha256), (source) => readChannel(source, readWavHeader(source), 1));
    expect(samples).toEqual(codedSignal(1, 24));
  });

  it('the same file again is told, whatever its name, and so is the same sound in another wrapping', async () => {
    const { body: first } = await bringIn('24.flac');
    for (const [name, as] of [
      ['24.flac', 'another name.flac'],
      ['24.aiff', 'the same sound.aiff'],
    ] as const) {
      const { status, body } = await bringIn(name, as);
      expect([status, body.duplicate, body.file.id]).toEqual([200, true, first.file.id]);
    }
  });

  it('bytes of both, the file and its sound, are held; nothing of the way stays behind', async () => {
    expect((await harness.call<{ count: number }>('GET', '/storage')).body.count).toBe(0);
    expect(await readdir(join(harness.folder, 'incoming'))).toEqual([]);
  });
});

describe('files that cannot be read', () => {
  it.each([
    ['minutes of the meeting', new TextEncoder().encode('Minutes of the meeting on the jetty, all present.'), 'not-wav', 'WAV, FLAC, AIFF, MP3, AAC, Ogg'],
    ['a head and nothing behind it', new TextEncoder().encode('fLaC but nothing more than that, alas, and no sound'), 'unsupported-format', 'Nothing in it can be decoded'],
    ['a film without sound', Uint8Array.of(0, 0, 0, 16, ...new TextEncoder().encode('ftypisom'), 0, 0, 0, 0), 'unsupported-format', ''],
  ] as const)('%s: refused in words, and nothing is left of it', async (_what, bytes, code, words) => {
    const before = (await harness.services.blobs.list()).length;
    const { status, body } = await harness.upload(trialId, 'strange.bin', bytes);
    expect(status).toBe(422);
    const { error } = body as { error: { code: string; message: string } };
    expect(error.code).toBe(code);
    expect(error.message).toContain('strange.bin: ');
    expect(error.message).toContain(words);
    expect((await harness.services.blobs.list()).length).toBe(before);
    expect(await readdir(join(harness.folder, 'incoming'))).toEqual([]);
  });
});
