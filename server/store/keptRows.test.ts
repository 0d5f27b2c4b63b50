import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newId } from '@marvet/core/domain/identity';
import { untouchedTake } from '@marvet/core/domain/take';
import { trialDraftSchema } from '@marvet/core/domain/trial';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { KeptRows } from './keptRows.ts';
import { type OpenedStore, openStore } from './store.ts';

let folder: string;
let store: OpenedStore;
const trialId = newId();
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'marvet-kept-'));
  store = await openStore(folder);
  const trial = { ...trialDraftSchema.parse({ name: 'x' }), version: 1, sample: false, createdAtMs: 1, binnedAtMs: null, verdictOpenedAtMs: null };
  await store.write((tables) =>
    tables.trials.insert([
      { ...trial, id: trialId },
      { ...trial, id: newId() },
    ]),
  );
});
afterEach(async () => {
  await store.close();
  await rm(folder, { recursive: true, force: true });
});

/** Slates and notes of the takes that are not in the bin; counts how many rows were read for it. */
function keptSlates() {
  const read = { rows: 0, times: 0 };
  const rows = new KeptRows(store, trialId, 'take', async (ids) => {
    const where = ` AND "id" IN (${ids.map(() => '?').join(',')})`;
    const found = await store.query<{ id: string; slate: number; note: string }>(`SELECT "id", "slate", "note" FROM "take" WHERE "trialId" = ? AND "binnedAtMs" IS NULL${where}`, [
      trialId,
      ...ids,
    ]);
    read.rows += found.length;
    read.times++;
    return found.map(({ id, slate, note }) => [id, `${slate} ${note}`]);
  });
  return { rows, read, sorted: async () => (await rows.all()).sort() };
}

const take = (slate: number) =>
  untouchedTake({
    id: newId(),
    trialId,
    slate,
    position: slate,
    condition: { station: 's', windscreen: 'bare', distance: '1', script: 'x' },
    setups: [{ id: newId(), candidateId: newId(), levels: {} }],
  });

describe('rows that are kept', () => {
  it('are read once, and after a change only those that changed', async () => {
    const takes = Array.from({ length: 20 }, (_, slate) => take(slate));
    await store.write((tables) => tables.takes.insert(takes.map((each) => ({ ...each, binnedAtMs: null }))));
    const kept = keptSlates();
    expect(await kept.sorted()).toHaveLength(20);
    await kept.sorted();
    expect(kept.read).toEqual({ rows: 20, times: 1 });
    await store.write((tables) => tables.takes.update({ id: takes[3]!.id }, { note: 'wind' }));
    expect(await kept.sorted()).toContain('3 wind');
    expect(kept.read).toEqual({ rows: 21, times: 2 });
  });

  it('a change that was rolled back is none', async () => {
    const one = take(1);
    await store.write((tables) => tables.takes.insert({ ...one, binnedAtMs: null }));
    const kept = keptSlates();
    await kept.sorted();
    const failing = store.write(async (tables) => {
      await tables.takes.update({ id: one.id }, { note: 'never' });
      await kept.sorted();
      throw new Error('no');
    });
    await expect(failing).rejects.toThrow('no');
    expect(await kept.sorted()).toEqual(['1 ']);
  });

  it('are what is read anew, whatever was done to the rows and in whatever order', async () => {
    const doing = fc.record({ what: fc.constantFrom('add', 'note', 'bin', 'restore', 'delete', 'look'), at: fc.nat({ max: 50 }) });
    await fc.assert(
      fc.asyncProperty(fc.array(doing, { minLength: 1, maxLength: 25 }), async (steps) => {
        await store.write((tables) => tables.takes.delete({ trialId }));
        const kept = keptSlates();
        let slate = 0;
        for (const { what, at } of steps) {
          if (what === 'look') {
            await kept.sorted();
            continue;
          }
          const all = await store.takes.find({ where: { trialId }, order: { slate: 'ASC' } });
          const row = all[at % Math.max(1, all.length)];
          await store.write(async ({ takes }) => {
            if (what === 'add') await takes.insert({ ...take(slate++), binnedAtMs: null });
            else if (row && what === 'note') await takes.update({ id: row.id }, { note: `${row.note}.` });
            else if (row && what === 'delete') await takes.delete({ id: row.id });
            else if (row) await takes.update({ id: row.id }, { binnedAtMs: what === 'bin' ? at : null });
          });
        }
        expect(await kept.sorted()).toEqual(await keptSlates().sorted());
      }),
      { numRuns: 25 },
    );
  });

  it('who asks while they are being read is told of what was written before', async () => {
    const many = Array.from({ length: 600 }, (_, slate) => ({ ...take(slate), binnedAtMs: null }));
    await store.write(async (tables) => {
      for (let start = 0; start < many.length; start += 50) await tables.takes.insert(many.slice(start, start + 50));
    });
    const kept = keptSlates();
    const first = kept.sorted();
    await store.write((tables) => tables.takes.update({ id: many[0]!.id }, { note: 'later' }));
    expect(await kept.sorted()).toContain('0 later');
    expect(await first).toHaveLength(600);
    expect(kept.read.rows).toBeLessThanOrEqual(601);
  });

  it('a reading that failed is not taken for one that found nothing', async () => {
    await store.write((tables) => tables.takes.insert({ ...take(1), binnedAtMs: null }));
    let fails = true;
    const kept = new KeptRows(store, trialId, 'take', async (ids) => {
      if (fails) throw new Error('busy');
      return ids.map((id) => [id, id]);
    });
    await expect(kept.all()).rejects.toThrow('busy');
    fails = false;
    expect(await kept.all()).toHaveLength(1);
  });

  it('many changes at once are all read', async () => {
    const kept = keptSlates();
    await kept.sorted();
    const many = Array.from({ length: 700 }, (_, slate) => ({ ...take(slate), binnedAtMs: null }));
    await store.write(async (tables) => {
      for (let start = 0; start < many.length; start += 50) await tables.takes.insert(many.slice(start, start + 50));
    });
    expect(await kept.sorted()).toHaveLength(700);
  });
});
