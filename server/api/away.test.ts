import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import type { BlindRound, Round } from '@marvet/core/domain/round';
import { openedNames } from '@marvet/core/listen/lockedNames';
import { whiteNoise } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial, recorderWav } from '../testing/harness.ts';
import { unzipped } from '../testing/zips.ts';

let harness: Harness;
let at: string;
let criterionId: string;
let recordingIds: string[];
let fileId: string;
beforeAll(async () => {
  harness = await openHarness();
  const ready = await readyTrial(harness);
  at = ready.at;
  await harness.upload(ready.trial.id, 'S001.wav', recorderWav([whiteNoise(-30, 3, 1), whiteNoise(-34, 3, 2)], '1', '1', ['QU', 'LO']));
  await harness.services.work.runner.idle();
  const rows = (await harness.call<{ id: string; fileId: string }[]>('GET', `${at}/recordings`)).body;
  recordingIds = rows.map(({ id }) => id);
  fileId = rows[0]!.fileId;
  criterionId = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: 'Words <are> clear', kind: 'listened', weight: 1, best: 10, worst: 0 })).body.id;
});
afterAll(() => harness.close());

async function made(draft: object = {}) {
  const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', recordingIds, criterionIds: [criterionId], ...draft })).body;
  const seat = await harness.call<{ id: string }>('POST', `${at}/rounds/${round.id}/away`, { name: 'Orla' });
  return { id: round.id, seat: seat.body.id, status: seat.status };
}
const shown = async (id: string) => (await harness.call<Round[]>('GET', `${at}/rounds`)).body.find((round) => round.id === id)!;
async function sent({ id, seat }: { id: string; seat: string }) {
  const answer = await harness.raw('GET', `${at}/rounds/${id}/away/${seat}/page.zip`);
  expect(answer.status).toBe(200);
  const zip = Buffer.from(await answer.arrayBuffer());
  expect(answer.headers.get('content-length')).toBe(String(zip.length));
  return { zip, entries: await unzipped(zip), headers: JSON.stringify([...answer.headers]) };
}
const letters = ['A', 'B', 'C'];
const answersOf = (listenerId: string, count: number, change: object = {}) => ({
  marvetAnswers: 1,
  listenerId,
  listenedOn: 'buds',
  ratings: letters.slice(0, count).map((letter, points) => ({ letter, criterionId, points: 5 + points, reason: 'thin' })),
  ...change,
});
const readIn = (id: string, answers: object) => harness.call<{ name: string }>('POST', `${at}/rounds/${id}/answers`, answers);

describe('a page that is sent to listen blind', () => {
  it('has the clips under letters, matched, in sound and in the page, and nothing that names them', async () => {
    const round = await made({ checks: ['again'] });
    const { zip, entries, headers } = await sent(round);
    expect([...entries.keys()]).toEqual(['reel.wav', 'reel.html', 'reel.vtt']);
    const page = entries.get('reel.html')!.toString();
    expect([...page.matchAll(/class="clip">([A-Za-z0-9+/=]+)</g)]).toHaveLength(3);
    expect(page).toContain('Words &lt;are&gt; clear');
    expect(entries.get('reel.vtt')!.toString()).toMatch(/\nA\n[\s\S]*\nB\n[\s\S]*\nC\n$/);
    // Names, files, recordings and hidden checks: nothing of them anywhere in what is sent, nor what opens it.
    const { awayKey } = (await harness.services.store.listeners.findOneBy({ id: round.seat }))!;
    for (const word of ['Quoin', 'Lodestar', 'S001', 'again', ...recordingIds, fileId, awayKey!])
      expect([word, zip.includes(word), headers.includes(word)]).toEqual([word, false, false]);
    // Each clip is spoken for in the reel: its letter stands before it.
    const source = bufferSource(new Uint8Array(entries.get('reel.wav')!));
    const layout = readWavHeader(source);
    const samples = readChannel(source, layout, 0);
    const first = Math.round(layout.format.markers![0]!.atS * 48_000);
    const loudest = (from: number, to: number) => samples.subarray(from, to).reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    expect(loudest(0, first - 19_300)).toBeGreaterThan(0.02);
    expect(loudest(first - 19_000, first)).toBe(0);
  });

  it('is as long whatever lies under its letters', async () => {
    const round = await made();
    const other = (await harness.call<{ id: string }>('POST', `${at}/rounds/${round.id}/away`, { name: 'Tamo' })).body;
    const [one, two] = [await sent(round), await sent({ id: round.id, seat: other.id })];
    expect(one.zip.length).toBe(two.zip.length);
    const orders = await Promise.all([round.seat, other.id].map(async (id) => (await harness.services.store.listeners.findOneBy({ id }))!.order.join()));
    expect(new Set(orders).size).toBe(2);
  });

  it('takes the answers once, shows them, and gives the key that opens the names', async () => {
    const round = await made();
    const page = (await sent(round)).entries.get('reel.html')!.toString();
    expect((await shown(round.id)).listeners[0]).toMatchObject({ away: true, awayKey: null, letters: null, ratings: [], finishedAtMs: null });
    expect(await readIn(round.id, answersOf(round.seat, 2))).toMatchObject({ status: 200, body: { name: 'Orla' } });
    const [seat] = (await shown(round.id)).listeners;
    expect(seat).toMatchObject({ name: 'Orla', listenedOn: 'buds', scored: [2, 2] });
    expect(seat!.ratings.map(({ letter, points, reason }) => [letter, points, reason])).toEqual([
      ['A', 5, 'thin'],
      ['B', 6, 'thin'],
    ]);
    const locked = /id="locked">([A-Za-z0-9+/=]+)</.exec(page)![1] as string;
    const names = await openedNames(locked, seat!.awayKey!);
    expect(Object.values(names).sort()).toEqual(['Lodestar, take 01', 'Quoin, take 01']);
    expect(names.A?.startsWith('Quoin')).toBe(seat!.letters!.A === recordingIds[0]);
    await expect(openedNames(locked, '0'.repeat(32))).rejects.toThrow();
    expect(await readIn(round.id, answersOf(round.seat, 2))).toMatchObject({ status: 409, body: { error: { message: expect.stringContaining('read in already') } } });
  });

  it('keeps the key until a round that is closed by hand is closed', async () => {
    const round = await made({ opens: 'closed' });
    await readIn(round.id, answersOf(round.seat, 2));
    expect((await shown(round.id)).listeners[0]).toMatchObject({ awayKey: null, letters: null });
    await harness.call('POST', `${at}/rounds/${round.id}/close`);
    expect((await shown(round.id)).listeners[0]!.awayKey).toMatch(/^[0-9a-f]{32}$/);
  });

  it('refuses what is no whole file of answers of that round, says why, and keeps nothing of it', async () => {
    const round = await made();
    const other = await made();
    const ratings = answersOf(round.seat, 2).ratings;
    const wrong: [object, number, string][] = [
      [{ hello: 1 }, 422, 'no file of answers'],
      [answersOf(other.seat, 2), 404, 'no page of this round'],
      [answersOf(round.seat, 1), 422, 'one answer for each of A, B'],
      [answersOf(round.seat, 3), 422, 'one answer for each'],
      [{ ...answersOf(round.seat, 2), ratings: [ratings[0], ratings[0]] }, 422, 'one answer for each'],
      [{ ...answersOf(round.seat, 2), orders: { [criterionId]: [['A', 'B']] } }, 422, 'one answer for each'],
      [{ ...answersOf(round.seat, 2), listenedOn: ' ' }, 422, 'what you listen on'],
      [{ ...answersOf(round.seat, 2), ratings: ratings.map((rating) => ({ ...rating, points: 11 })) }, 422, '0 to 10'],
    ];
    for (const [file, status, why] of wrong) {
      const { status: got, text } = await readIn(round.id, file);
      expect([why, got, text.includes(why)]).toEqual([why, status, true]);
    }
    expect((await shown(round.id)).listeners[0]).toMatchObject({ scored: [0, 2], finishedAtMs: null });
    expect((await readIn(round.id, answersOf(round.seat, 2))).status).toBe(200);
  });

  it('is not made of comparisons, nor for a seat at this computer', async () => {
    const compared = await made({ kind: 'same', criterionIds: [], comparisons: 4 });
    expect(compared.status).toBe(422);
    const round = await made();
    const here = (await harness.call<{ id: string }>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Tam', listenedOn: 'buds' })).body;
    expect((await harness.raw('GET', `${at}/rounds/${round.id}/away/${here.id}/page.zip`)).status).toBe(404);
    expect((await readIn(round.id, answersOf(here.id, 2))).status).toBe(404);
  });
});

describe('clips that are put in order', () => {
  const order = (id: string, groups: string[][], on = criterionId) => harness.call('PUT', `/listen/${id}/orders`, { criterionId: on, order: groups });

  it('are taken whole, with equal ones, and can change until the end', async () => {
    const round = (await harness.call<Round>('POST', `${at}/rounds`, { title: 'R', kind: 'ranked', recordingIds, criterionIds: [criterionId] })).body;
    const id = (await harness.call<{ id: string }>('POST', `${at}/rounds/${round.id}/listeners`, { name: 'Orla', listenedOn: 'buds' })).body.id;
    expect((await harness.call('POST', `/listen/${id}/finish`)).status).toBe(422);
    for (const wrong of [[['A']], [['A'], ['A']], [['A'], ['C']], [['A'], ['B'], ['C']]]) expect((await order(id, wrong)).status).toBe(422);
    expect((await order(id, [['A'], ['B']], recordingIds[0])).status).toBe(404);
    expect((await harness.call('PUT', `/listen/${id}/ratings`, { letter: 'A', criterionId, points: 3, reason: '' })).status).toBe(404);
    expect((await order(id, [['A', 'B']])).status).toBe(204);
    expect((await order(id, [['B'], ['A']])).status).toBe(204);
    const met = await harness.call<BlindRound>('GET', `/listen/${id}`);
    expect(met.body).toMatchObject({ kind: 'ranked', letters: ['A', 'B'], orders: { [criterionId]: [['B'], ['A']] }, next: null });
    for (const name of ['Quoin', 'Lodestar', ...recordingIds]) expect(met.text).not.toContain(name);
    expect((await shown(round.id)).listeners[0]).toMatchObject({ orders: {}, scored: [1, 1] });
    expect((await harness.call('POST', `/listen/${id}/finish`)).status).toBe(204);
    expect((await shown(round.id)).listeners[0]).toMatchObject({ orders: { [criterionId]: [['B'], ['A']] } });
    expect((await order(id, [['A'], ['B']])).status).toBe(409);
  });

  it('come back from a page that was sent', async () => {
    const round = await made({ kind: 'ranked' });
    expect((await sent(round)).entries.get('reel.html')!.toString()).toContain('place of clip B');
    expect((await readIn(round.id, answersOf(round.seat, 2))).status).toBe(422);
    expect((await readIn(round.id, answersOf(round.seat, 0, { orders: { [criterionId]: [['B'], ['A']] } }))).status).toBe(200);
    expect((await shown(round.id)).listeners[0]).toMatchObject({ orders: { [criterionId]: [['B'], ['A']] } });
  });
});

describe('listeners that are steady', () => {
  it('weigh more in the verdict where the round says so, and what was hidden does not count', async () => {
    const own = await openHarness();
    try {
      const { trial, at: here, chains } = await readyTrial(own);
      await own.upload(trial.id, 'S001.wav', recorderWav([whiteNoise(-30, 3, 1), whiteNoise(-34, 3, 2)], '1', '1', ['QU', 'LO']));
      await own.services.work.runner.idle();
      const ids = (await own.call<{ id: string; channels: number[] }[]>('GET', `${here}/recordings`)).body.map(({ id }) => id);
      const heardOn = (await own.call<{ id: string }>('POST', `${here}/criteria`, { name: 'Clear', kind: 'listened', weight: 1, best: 10, worst: 0, aggregation: 'median' })).body
        .id;
      const draft = { title: 'R', recordingIds: ids, criterionIds: [heardOn], checks: ['again'] };
      expect((await own.call('POST', `${here}/rounds`, { ...draft, checks: [], steadyWeighs: true })).status).toBe(422);
      await own.call('POST', `${here}/verdict/open`);
      for (const steadyWeighs of [true, false]) {
        const round = (await own.call<Round>('POST', `${here}/rounds`, { ...draft, steadyWeighs })).body;
        // Three listeners: steady ones say 8, a wild one 2, and gives what comes twice 2 and 10.
        for (const [name, usual, twice] of [
          ['Orla', 8, 8],
          ['Tam', 2, 10],
        ] as const) {
          const id = (await own.call<{ id: string }>('POST', `${here}/rounds/${round.id}/listeners`, { name, listenedOn: 'buds' })).body.id;
          const listener = (await own.services.store.listeners.findOneBy({ id }))!;
          for (const [index, letter] of letters.entries())
            await own.call('PUT', `/listen/${id}/ratings`, { letter, criterionId: heardOn, points: listener.order[index]! >= 2 ? twice : usual, reason: '' });
          await own.call('POST', `/listen/${id}/finish`);
        }
        const { rows } = (await own.call<{ rows: { candidate: { id: string }; cells: { value: number }[] }[] }>('GET', `${here}/verdict`)).body;
        // Of two the middle lies between them, unless one weighs more.
        expect(rows.map(({ cells }) => cells[0]!.value)).toEqual(steadyWeighs ? [8, 8] : [5, 5]);
        expect(rows).toHaveLength(chains.length);
        await own.call('DELETE', `${here}/rounds/${round.id}`);
      }
    } finally {
      await own.close();
    }
  });
});

describe('notes at a moment', () => {
  it('are kept with their recording, changed, binned and brought back', async () => {
    const post = (draft: object) => harness.call<{ id: string }>('POST', `${at}/moments`, draft);
    const { body, status } = await post({ recordingId: recordingIds[0], atS: 1.25, note: 'scrape' });
    expect(status).toBe(201);
    expect((await post({ recordingId: fileId, atS: 1, note: '' })).status).toBe(404);
    expect((await post({ recordingId: recordingIds[0], atS: -1, note: '' })).status).toBe(422);
    await post({ recordingId: recordingIds[1], atS: 0.5, note: '' });
    const list = async () => (await harness.call<{ id: string; atS: number; note: string }[]>('GET', `${at}/moments`)).body.map(({ atS, note }) => [atS, note]);
    expect(await list()).toEqual([
      [0.5, ''],
      [1.25, 'scrape'],
    ]);
    expect((await harness.call('PUT', `${at}/moments/${body.id}`, { note: 'cloth' })).status).toBe(204);
    expect((await harness.call('DELETE', `${at}/moments/${body.id}`)).status).toBe(204);
    expect((await harness.call('DELETE', `${at}/moments/${body.id}`)).status).toBe(404);
    expect(await list()).toEqual([[0.5, '']]);
    expect((await harness.call<{ kind: string; name: string }[]>('GET', `${at}/bin`)).body[0]).toMatchObject({ kind: 'moment', name: 'cloth' });
    await harness.call('POST', `${at}/bin/restore`, { kind: 'moment', id: body.id });
    expect(await list()).toEqual([
      [0.5, ''],
      [1.25, 'cloth'],
    ]);
  });
});
