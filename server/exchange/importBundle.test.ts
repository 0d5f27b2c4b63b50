import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newId } from '@marvet/core/domain/identity';
import type { Round } from '@marvet/core/domain/round';
import type { Trial } from '@marvet/core/domain/trial';
import { emptyPlan } from '@marvet/core/plan/followRecords';
import { spoken } from '@marvet/core/testing/signals';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, recorderWav } from '../testing/harness.ts';
import { importBundle } from './importBundle.ts';

let harness: Harness;
let folder: string;
const ids = {
  trial: newId(),
  item: newId(),
  a: newId(),
  b: newId(),
  station: newId(),
  script: newId(),
  criterion: newId(),
  take: newId(),
  setupA: newId(),
  setupB: newId(),
  file: newId(),
  recordingA: newId(),
  recordingB: newId(),
  round: newId(),
  listener: newId(),
};

const bundle = () => ({
  marvetBundle: 2,
  items: [{ id: ids.item, kind: 'microphone', name: 'Reed capsule' }],
  trials: [
    {
      id: ids.trial,
      name: 'Ferry',
      sample: true,
      createdAtMs: 1000,
      verdictOpenedAtMs: 2000,
      expectations: [{ person: 'Mixer', candidateId: ids.a, reason: 'dear', sealedAtMs: 1500 }],
      criteria: [{ id: ids.criterion, name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0 }],
      chains: [
        { id: ids.a, name: 'Quoinholt', tape: { kind: 0, letters: 'QU' } },
        { id: ids.b, name: 'Lodestar', tape: { kind: 1, letters: 'LO' } },
      ],
      stations: [{ id: ids.station, name: 'deck' }],
      scripts: [{ id: ids.script, name: 'Neutral' }],
      plan: { ...emptyPlan(), committedAtMs: 1000 },
      marks: [],
      takes: [
        {
          id: ids.take,
          slate: 1,
          pass: 1,
          position: 0,
          condition: { station: ids.station, windscreen: 'bare', distance: '1', script: ids.script },
          setups: [
            { id: ids.setupA, candidateId: ids.a },
            { id: ids.setupB, candidateId: ids.b },
          ],
          status: 'done',
          startedAtMs: 1100,
          stoppedAtMs: 1200,
          flags: [],
          gains: {},
          windMs: null,
          noiseDba: null,
          controls: [],
        },
      ],
      files: [
        {
          id: ids.file,
          name: 'S001_T01.wav',
          // The channels are the other way round than their names say: what a hand tied stays tied.
          recordings: [
            { id: ids.recordingA, channels: [0], trackName: 'LO', takeId: ids.take, setupId: ids.setupA, matchedBy: 'hand' },
            { id: ids.recordingB, channels: [1], trackName: 'QU', takeId: ids.take, setupId: ids.setupB, matchedBy: 'hand' },
          ],
        },
      ],
      rounds: [
        {
          id: ids.round,
          title: 'R',
          criterionIds: [ids.criterion],
          sample: true,
          createdAtMs: 1500,
          recordingIds: [ids.recordingA, ids.recordingB],
          targetLufs: -23,
          ceilingDbtp: -1,
          listeners: [
            {
              id: ids.listener,
              name: 'Orla',
              listenedOn: 'buds',
              order: [1, 0],
              sample: true,
              createdAtMs: 1600,
              finishedAtMs: 1700,
              ratings: [
                { letter: 'B', criterionId: ids.criterion, points: 9 },
                { letter: 'A', criterionId: ids.criterion, points: 3 },
              ],
            },
          ],
        },
      ],
    },
  ],
});

beforeEach(async () => {
  harness = await openHarness();
  folder = await mkdtemp(join(tmpdir(), 'marvet-bundle-'));
  await writeFile(join(folder, 'bundle.json'), JSON.stringify(bundle()));
  await writeFile(join(folder, 'S001_T01.wav'), recorderWav([spoken(-26, -60, 1), spoken(-30, -50, 9)], '1', '1', ['QU', 'LO']));
});
afterEach(async () => {
  await harness.close();
  await rm(folder, { recursive: true, force: true });
});

describe('a bundle brought in', () => {
  it('is there as a trial marked as sample, measured, heard and ready to judge', async () => {
    const steps: string[] = [];
    await importBundle(harness.services, folder, (step) => steps.push(step));
    const trial = (await harness.call<Trial>('GET', `/trials/${ids.trial}`)).body;
    expect(trial).toMatchObject({
      sample: true,
      progress: { candidates: 2, done: 1, recordings: 2, measured: 2, listeners: 1, verdictOpened: true },
      expectations: [{ person: 'Mixer', revealed: { candidateId: ids.a } }],
    });
    const [round] = (await harness.call<Round[]>('GET', `/trials/${ids.trial}/rounds`)).body;
    const [listener] = round!.listeners;
    // The letter A stood for the second recording, so its score is the 3 of place 1.
    expect(listener?.letters?.A).toBe(round?.recordingIds[1]);
    expect(listener?.ratings.find((rating) => rating.letter === 'A')?.points).toBe(3);
    const verdict = (await harness.call<{ rows: { candidate: { id: string }; score: number }[] }>('GET', `/trials/${ids.trial}/verdict`)).body;
    expect(verdict.rows.map((row) => [row.candidate.id, row.score])).toEqual([
      [ids.a, 90],
      [ids.b, 30],
    ]);
    expect(new Set(steps)).toEqual(new Set(['files', 'measuring']));
  });

  it('twice is the same as once, and what was deleted since stays deleted', async () => {
    await importBundle(harness.services, folder, () => undefined);
    await harness.call('DELETE', `/trials/${ids.trial}`);
    await importBundle(harness.services, folder, () => undefined);
    const trials = (await harness.call<Trial[]>('GET', '/trials')).body;
    expect(trials).toHaveLength(1);
    expect(trials[0]?.binnedAtMs).not.toBeNull();
    expect(await harness.services.store.recordings.count()).toBe(2);
    expect(await harness.services.store.ratings.count()).toBe(2);
  });

  it('that was cut off before its rounds goes on where it stopped', async () => {
    await importBundle(harness.services, folder, () => undefined);
    await harness.services.store.write((tables) => tables.rounds.delete({ id: ids.round }));
    await importBundle(harness.services, folder, () => undefined);
    expect(await harness.services.store.ratings.count()).toBe(2);
  });

  it('with a bad field brings in nothing and names it', async () => {
    const bad = bundle();
    bad.trials[0]!.takes[0]!.slate = -1;
    await writeFile(join(folder, 'bundle.json'), JSON.stringify(bad));
    await expect(importBundle(harness.services, folder, () => undefined)).rejects.toThrow(/slate/);
    expect(await harness.services.store.trials.count()).toBe(0);
  });
});
