import { newId } from '@marvet/core/domain/identity';
import { STARTING_SCRIPTS } from '@marvet/core/domain/startingScripts';
import { type Expectation, expectationDraftSchema, type Trial, trialDraftSchema, trialPatchSchema } from '@marvet/core/domain/trial';
import { Hono } from 'hono';
import { copyTrial } from '../store/copyTrial.ts';
import { trialsProgress } from '../store/progress.ts';
import type { TrialRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, inParts, present } from '../store/table.ts';
import { ApiError, changedMeanwhile, notFound, pathId, readBody, readChange } from './http.ts';
import type { Services } from './services.ts';

/** Trials as the page sees them: expectations stay sealed until the verdict was opened. */
async function shownTrials(store: ReadTables, rows: readonly TrialRow[]): Promise<Trial[]> {
  const sealed = await inParts(
    rows.map((row) => row.id),
    (part) => store.expectations.find({ where: { trialId: part }, order: { sealedAtMs: 'ASC' } }),
  );
  const progress = await trialsProgress(store, rows);
  return rows.map((row) => {
    const open = row.verdictOpenedAtMs !== null;
    const own = sealed.filter((each) => each.trialId === row.id);
    const expectations = own.map(({ person, sealedAtMs, candidateId, reason }): Expectation => ({ person, sealedAtMs, revealed: open ? { candidateId, reason } : null }));
    return { ...row, expectations, progress: progress.get(row.id) as Trial['progress'] };
  });
}

/** Trials: list (binned ones too, marked), make, change, copy, bin, restore, seal the expectation, open the verdict. */
export function trialRoutes({ store, work }: Pick<Services, 'store' | 'work'>): Hono {
  const shown = async (id: string) => {
    const [trial] = await shownTrials(store, await store.trials.findBy({ id }));
    if (!trial) throw notFound('trial');
    return trial;
  };
  const presentTrial = async (from: Pick<ReadTables, 'trials'>, id: string): Promise<TrialRow> => {
    const row = await from.trials.findOneBy({ id });
    if (!row) throw notFound('trial');
    return row;
  };
  const setBinned = (id: string, binnedAtMs: number | null) =>
    store.write(async (tables) => {
      await presentTrial(tables, id);
      await tables.trials.update(id, { binnedAtMs });
    });

  return new Hono()
    .get('/', async (context) => context.json(await shownTrials(store, await store.trials.find({ order: { createdAtMs: 'DESC' } }))))
    .post('/', async (context) => {
      const draft = await readBody(context, trialDraftSchema);
      const row: TrialRow = { ...draft, id: newId(), version: 1, sample: false, createdAtMs: Date.now(), binnedAtMs: null, verdictOpenedAtMs: null };
      await store.write(async (tables) => {
        await tables.trials.insert(row);
        await tables.scripts.insert(STARTING_SCRIPTS.map((script) => ({ ...script, id: newId(), trialId: row.id, version: 1, binnedAtMs: null })));
      });
      return context.json(await shown(row.id), 201);
    })
    .get('/:trial', async (context) => context.json(await shown(pathId(context, 'trial'))))
    .patch('/:trial', async (context) => {
      const id = pathId(context, 'trial');
      const { draft: patch, version } = await readChange(context, trialPatchSchema);
      const stale = await store.write(async (tables) => {
        const row = await presentTrial(tables, id);
        if (row.version !== version) return true;
        if (Object.keys(patch).length > 0) await tables.trials.update(id, { ...patch, version: version + 1 });
        return false;
      });
      if (stale) throw changedMeanwhile('trial', await shown(id));
      if (patch.reference !== undefined) await work.against.look(id, 'all');
      return context.json(await shown(id));
    })
    .delete('/:trial', async (context) => {
      await setBinned(pathId(context, 'trial'), Date.now());
      return context.body(null, 204);
    })
    .post('/:trial/restore', async (context) => {
      await setBinned(pathId(context, 'trial'), null);
      return context.json(await shown(pathId(context, 'trial')));
    })
    .post('/:trial/copy', async (context) => {
      const row = await store.write(async (tables) => copyTrial(tables, await presentTrial(tables, pathId(context, 'trial'))));
      return context.json(await shown(row.id), 201);
    })
    .put('/:trial/expectation', async (context) => {
      const id = pathId(context, 'trial');
      const draft = await readBody(context, expectationDraftSchema);
      await store.write(async (tables) => {
        const row = await presentTrial(tables, id);
        const done = await tables.takes.existsBy({ ...present(id), status: In(['rolling', 'done']) });
        const sealed = await tables.expectations.existsBy({ trialId: id, person: draft.person });
        if (row.verdictOpenedAtMs !== null || (sealed && done)) {
          throw new ApiError(409, 'sealed', 'The expectation is sealed: it cannot be changed once takes have been recorded, nor made once the verdict is open');
        }
        if (!(await tables.chains.existsBy({ id: draft.candidateId, candidate: true, ...present(id) }))) {
          throw new ApiError(422, 'invalid', 'Choose one of the candidates of this trial', { candidateId: 'Choose one of the candidates of this trial' });
        }
        await tables.expectations.upsert({ ...draft, trialId: id, sealedAtMs: Date.now() }, ['trialId', 'person']);
      });
      return context.json(await shown(id));
    })
    .post('/:trial/verdict/open', async (context) => {
      const id = pathId(context, 'trial');
      await store.write(async (tables) => {
        const row = await presentTrial(tables, id);
        if (row.verdictOpenedAtMs === null) await tables.trials.update(id, { verdictOpenedAtMs: Date.now() });
      });
      return context.json(await shown(id));
    });
}
