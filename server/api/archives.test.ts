import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { BroughtIn } from '@marvet/core/contract/answers';
import { newId } from '@marvet/core/domain/identity';
import type { Take } from '@marvet/core/domain/take';
import type { Trial } from '@marvet/core/domain/trial';
import { whiteNoise } from '@marvet/core/testing/signals';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial, recorderWav } from '../testing/harness.ts';
import { unzipped, zippedBytes } from '../testing/zips.ts';

let there: Harness;
let here: Harness;
let trialId: string;
let archive: Buffer;
beforeAll(async () => {
  [there, here] = await Promise.all([openHarness(), openHarness()]);
  const { trial, at, chains } = await readyTrial(there);
  trialId = trial.id;
  const [take] = (await there.call<Take[]>('GET', `${at}/takes`)).body as [Take];
  const line = { takeId: take.id };
  await there.call('POST', `${at}/log`, {
    lines: [
      { ...line, id: newId(), kind: 'start', atMs: 1_700_000_000_000 },
      { ...line, id: newId(), kind: 'note', text: '"wind", they said', atMs: 1_700_000_002_000 },
      { ...line, id: newId(), kind: 'stop', atMs: 1_700_000_009_000 },
    ],
  });
  await there.upload(trialId, 'S01T01.WAV', recorderWav([whiteNoise(-30, 3, 1), whiteNoise(-34, 3, 2)], '1', '1', ['QU', 'LO']));
  await there.upload(trialId, 'loose.wav', recorderWav([whiteNoise(-30, 1, 3)], '', '', ['']));
  const { id: criterionId } = (await there.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body;
  await there.call('PUT', `${at}/expectation`, { person: 'Sanne', candidateId: chains[0], reason: 'it was dear' });
  await there.services.work.runner.idle();
  const rows = (await there.call<{ id: string; takeId: string | null }[]>('GET', `${at}/recordings`)).body.filter(({ takeId }) => takeId !== null);
  const { id: roundId } = (await there.call<{ id: string }>('POST', `${at}/rounds`, { title: 'One', recordingIds: rows.map(({ id }) => id), criterionIds: [criterionId] })).body;
  const { id: listenerId } = (await there.call<{ id: string }>('POST', `${at}/rounds/${roundId}/listeners`, { name: 'Orla', listenedOn: 'closed headphones' })).body;
  await there.call('PUT', `/listen/${listenerId}/ratings`, { letter: 'A', criterionId, points: 7, reason: '' });
  const compared = { title: 'Two', kind: 'same', comparisons: 5, recordingIds: rows.map(({ id }) => id), criterionIds: [] };
  const { id: comparedId } = (await there.call<{ id: string }>('POST', `${at}/rounds`, compared)).body;
  const { id: seatId } = (await there.call<{ id: string }>('POST', `${at}/rounds/${comparedId}/listeners`, { name: 'Tam', listenedOn: 'buds' })).body;
  await there.call('PUT', `/listen/${seatId}/comparisons/0`, { picks: [{ criterionId: null, letter: 'B' }] });
  await there.services.work.runner.idle();
  archive = await taken(there);
});
afterAll(async () => {
  await there.close();
  await here.close();
});

async function taken(from: Harness): Promise<Buffer> {
  const answer = await from.raw('GET', `/trials/${trialId}/archive.zip`);
  const bytes = Buffer.from(await answer.arrayBuffer());
  expect(answer.headers.get('content-length')).toBe(String(bytes.length));
  return bytes;
}

async function brought(bytes: Buffer, into = here): Promise<{ status: number; message: string; body: BroughtIn }> {
  const answer = await into.raw('POST', '/trials/archive', bytes);
  const body = (await answer.json()) as BroughtIn & { error?: { message: string } };
  return { status: answer.status, message: body.error?.message ?? '', body };
}

/** The archive with some of its files changed, left out or added. */
async function changed(change: (files: Map<string, Buffer>) => void, compress = false): Promise<Buffer> {
  const files = await unzipped(archive);
  change(files);
  return zippedBytes(files, compress);
}
const shaOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
type Json = Record<string, unknown>;
/** Changes the manifest, or one kind of records with its hash. */
function edited(files: Map<string, Buffer>, name: string, edit: (rows: Json[], manifest: Json) => void): void {
  const manifest = JSON.parse((files.get('trial.json') as Buffer).toString()) as Json & { records: Record<string, { rows: number; sha256: string }> };
  const rows = JSON.parse((files.get(`records/${name}.json`) as Buffer).toString()) as Json[];
  edit(rows, manifest);
  const bytes = Buffer.from(JSON.stringify(rows));
  files.set(`records/${name}.json`, bytes);
  manifest.records[name] = { rows: rows.length, sha256: shaOf(bytes) };
  files.set('trial.json', Buffer.from(JSON.stringify(manifest)));
}

/** Nothing of it is here: no trial, no record, no bytes on their way. */
async function expectNothing(): Promise<void> {
  expect((await here.call<Trial[]>('GET', '/trials')).body.filter(({ id }) => id === trialId)).toEqual([]);
  expect(await here.services.store.takes.findBy({ trialId })).toEqual([]);
  expect(readdirSync(join(here.folder, 'incoming'))).toEqual([]);
  expect(readdirSync(join(here.folder, 'blobs'))).toEqual([]);
}

describe('an archive that is not as it should be is refused with a sentence, and leaves nothing', () => {
  it.each<[string, RegExp, (files: Map<string, Buffer>) => void]>([
    ['a path that climbs', /holds a file that no archive of a trial has|damaged/, (files) => files.set('blobs/..%2f..%2fmarvet.sqlite', Buffer.from('x'))],
    ['a file of its own', /holds a file that no archive of a trial has: evil\.exe/, (files) => files.set('evil.exe', Buffer.from('x'))],
    ['no manifest', /trial\.json is missing/, (files) => files.delete('trial.json')],
    ['a manifest that is no JSON', /trial\.json is damaged/, (files) => files.set('trial.json', Buffer.from('{'))],
    ['something else', /does not say what an archive says/, (files) => files.set('trial.json', Buffer.from('{"format":"song"}'))],
    [
      'a newer version',
      /made by a newer Marvet/,
      (files) =>
        edited(files, 'takes', (_rows, manifest) => {
          manifest.version = 2;
        }),
    ],
    [
      'a newer schema',
      /made by a newer Marvet/,
      (files) =>
        edited(files, 'takes', (_rows, manifest) => {
          manifest.schema = 99;
        }),
    ],
    ['records that are missing', /records\/takes\.json is missing/, (files) => files.delete('records/takes.json')],
    ['records that were changed', /takes\.json is not as it was written/, (files) => files.set('records/takes.json', Buffer.from('[]'))],
    [
      'a record that is none',
      /Record 1 of records\/takes\.json: slate/,
      (files) =>
        edited(files, 'takes', ([first]) => {
          (first as Json).slate = -3;
        }),
    ],
    [
      'records of another trial',
      /records of another trial/,
      (files) =>
        edited(files, 'takes', ([first]) => {
          (first as Json).trialId = newId();
        }),
    ],
    [
      'records that speak of what is not in it',
      /speaks of records that it does not hold/,
      (files) =>
        edited(files, 'files', (rows) => {
          rows.length = 0;
        }),
    ],
    [
      'a record twice',
      /takes are here already/,
      (files) =>
        edited(files, 'takes', (rows) => {
          rows.push(rows[0] as Json);
        }),
    ],
    [
      'bytes that are missing',
      /are missing from it/,
      (files) => {
        for (const name of files.keys()) if (name.startsWith('blobs/')) files.delete(name);
      },
    ],
    [
      'bytes that are not what their name says',
      /are damaged/,
      (files) => {
        for (const name of files.keys()) if (name.startsWith('blobs/')) files.set(name, Buffer.from('other'));
      },
    ],
  ])('%s', async (_name, told, change) => {
    const { status, message } = await brought(await changed(change));
    expect(message).toMatch(told);
    expect(message).toMatch(/^This archive was not brought in\. /);
    expect(status).toBe(422);
    await expectNothing();
  });

  it('packed sound, which may be a bomb', async () => {
    expect((await brought(await changed(() => undefined, true))).message).toMatch(/packed sound/);
    await expectNothing();
  });

  it('no ZIP at all, and nothing at all', async () => {
    expect((await brought(Buffer.from('RIFF, it says'))).message).toMatch(/cannot be read as a ZIP/);
    expect((await brought(Buffer.alloc(0))).status).toBe(422);
    await expectNothing();
  });

  it('cut anywhere, or with any byte turned over, it is refused or whole', async () => {
    await fc.assert(
      fc.asyncProperty(fc.double({ min: 0, max: 0.999, noNaN: true }), fc.boolean(), fc.integer({ min: 1, max: 255 }), async (share, cut, turned) => {
        const at = Math.floor(share * archive.length);
        const bytes = cut ? archive.subarray(0, at) : Buffer.from(archive);
        if (!cut) bytes[at] = (bytes[at] as number) ^ turned;
        const { status } = await brought(bytes);
        // A byte of the figures for people, of a date or a name's case changes nothing that is read; then it may come in, whole.
        if (status === 201) {
          expect(cut).toBe(false);
          await here.services.store.write(async (tables) => tables.trials.delete({ id: trialId }));
        } else expect(status).toBe(422);
        expect(readdirSync(join(here.folder, 'incoming'))).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });
});

describe('a trial that is taken out and brought in', () => {
  it('is there to the last record and byte, measured, sealed and heard as it was', async () => {
    const fresh = await openHarness();
    try {
      const { status, body } = await brought(archive, fresh);
      expect(status).toBe(201);
      expect(body).toMatchObject({ trialId, name: 'Jetty', files: 2, missing: 0 });
      await fresh.services.work.runner.idle();
      const again = await unzipped(Buffer.from(await (await fresh.raw('GET', `/trials/${trialId}/archive.zip`)).arrayBuffer()));
      const first = await unzipped(archive);
      expect([...again.keys()].sort()).toEqual([...first.keys()].sort());
      for (const [name, bytes] of first) {
        if (name === 'trial.json') continue;
        const sorted = (text: string) => (name.endsWith('.json') ? JSON.stringify((JSON.parse(text) as Json[]).map((row) => JSON.stringify(row)).sort()) : text);
        expect(name.startsWith('blobs/') ? shaOf(again.get(name) as Buffer) : sorted((again.get(name) as Buffer).toString())).toBe(
          name.startsWith('blobs/') ? shaOf(bytes) : sorted(bytes.toString()),
        );
      }
      // What was sealed is sealed still.
      const [trial] = (await fresh.call<Trial[]>('GET', '/trials')).body.filter(({ id }) => id === trialId);
      expect(trial?.expectations).toEqual([{ person: 'Sanne', sealedAtMs: expect.any(Number), revealed: null }]);
    } finally {
      await fresh.close();
    }
  });

  it('comes in once: a second time it is said to be here, also where it lies in the bin, and two at once are one', async () => {
    const fresh = await openHarness();
    try {
      const both = await Promise.all([brought(archive, fresh), brought(archive, fresh)]);
      expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
      expect(both.find(({ status }) => status === 409)?.message).toBe('This trial is here already, and nothing was brought in. It is called Jetty.');
      await fresh.call('DELETE', `/trials/${trialId}`);
      expect((await brought(archive, fresh)).message).toMatch(/lies in the bin/);
      expect(readdirSync(join(fresh.folder, 'incoming'))).toEqual([]);
    } finally {
      await fresh.close();
    }
  });

  it('items that are here already stay as they are, and it is told', async () => {
    const fresh = await openHarness();
    try {
      const item = (await there.services.store.items.find())[0];
      await fresh.services.store.write((tables) => tables.items.insert({ ...item!, name: 'Renamed here' }));
      expect((await brought(archive, fresh)).body.itemsKept).toBe(1);
      expect((await fresh.services.store.items.find()).map(({ name }) => name)).toEqual(['Renamed here']);
    } finally {
      await fresh.close();
    }
  });

  it('bytes that were missing where it was made are missing, and told', async () => {
    const { sha256 } = (await there.services.store.files.findBy({ trialId })).find(({ name }) => name === 'loose.wav')!;
    await there.services.blobs.remove(sha256);
    const without = await taken(there);
    const fresh = await openHarness();
    try {
      expect((await brought(without, fresh)).body.missing).toBe(1);
    } finally {
      await fresh.close();
    }
  });
});
