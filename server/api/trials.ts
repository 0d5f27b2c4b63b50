import { newId } from '@marvet/core/domain/identity';
import { STARTING_SCRIPTS } from '@marvet/core/domain/startingScripts';
import { type Expectation, expectationDraftSchema, trialDraftSchema, trialPatchSchema } from '@marvet/core/domain/trial';
import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import { copyTrial } from '../store/copyTrial.ts';
import { trialProgress } from '../store/progress.ts';
import type { TrialRow } from '../store/rows.ts';
import type { Store } from '../store/store.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';

/** A trial as the page sees it: the expectation stays sealed until the verdict was opened. */
async function shown(store: Store, row: TrialRow) {
  const sealed = await store.expectations.find({ where: { trialId: row.id }, order: { sealedAtMs: 'ASC' } });
  const open = row.verdictOpenedAtMs !== null;
  return {
    ...row,
    expectations: sealed.map(({ person, sealedAtMs, candidateId, reason }): Expectation => ({ person, sealedAtMs, revealed: open ? { candidateId, reason } : null })),
    progress: await trialProgress(store, row),
  };
}

async function present(store: Store, id: string): Promise<TrialRow> {
  const row = await store.trials.findOneBy({ id });
  if (!row) throw notFound('trial');
  return row;
}

/** Trials: list (binned ones too, marked), make, change, copy, bin, restore, seal the expectation, open the verdict. */
export function trialRoutes(store: Store): Hono {
  return new Hono()
    .get('/', async (context) => {
      const rows = await store.trials.find({ order: { createdAtMs: 'DESC' } });
      return context.json(await Promise.all(rows.map((row) => shown(store, row))));
    })
    .post('/', async (context) => {
      const draft = await readBody(context, trialDraftSchema);
      const row: TrialRow = {
        ...draft,
        id: newId(),
        sample: false,
        createdAtMs: Date.now(),
        binnedAtMs: null,
        verdictOpenedAtMs: null,
      };
      await store.transaction(async (tables) => {
        await tables.trials.insert(row);
        await tables.scripts.insert(STARTING_SCRIPTS.map((script) => ({ ...script, id: newId(), trialId: row.id, binnedAtMs: null })));
      });
      return context.json(await shown(store, row), 201);
    })
    .get('/:trial', async (context) => context.json(await shown(store, await present(store, pathId(context, 'trial')))))
    .patch('/:trial', async (context) => {
      const row = await present(store, pathId(context, 'trial'));
      const patch = await readBody(context, trialPatchSchema);
      if (Object.keys(patch).length > 0) await store.trials.update(row.id, patch);
      return context.json(await shown(store, { ...row, ...patch }));
    })
    .delete('/:trial', async (context) => {
      const row = await present(store, pathId(context, 'trial'));
      await store.trials.update(row.id, { binnedAtMs: Date.now() });
      return context.body(null, 204);
    })
    .post('/:trial/restore', async (context) => {
      const row = await present(store, pathId(context, 'trial'));
      await store.trials.update(row.id, { binnedAtMs: null });
      return context.json(await shown(store, { ...row, binnedAtMs: null }));
    })
    .post('/:trial/copy', async (context) => {
      const row = await present(store, pathId(context, 'trial'));
      return context.json(await shown(store, await copyTrial(store, row)), 201);
    })
    .put('/:trial/expectation', async (context) => {
      const row = await present(store, pathId(context, 'trial'));
      const draft = await readBody(context, expectationDraftSchema);
      const { done } = await trialProgress(store, row);
      const sealed = await store.expectations.existsBy({ trialId: row.id, person: draft.person });
      if (row.verdictOpenedAtMs !== null || (sealed && done > 0)) {
        throw new ApiError(409, 'sealed', 'The expectation is sealed: it cannot be changed once takes have been recorded, nor made once the verdict is open');
      }
      if (!(await store.chains.existsBy({ id: draft.candidateId, trialId: row.id, candidate: true, binnedAtMs: IsNull() }))) {
        throw new ApiError(422, 'invalid', 'Choose one of the candidates of this trial', { candidateId: 'Choose one of the candidates of this trial' });
      }
      await store.expectations.upsert({ ...draft, trialId: row.id, sealedAtMs: Date.now() }, ['trialId', 'person']);
      return context.json(await shown(store, row));
    })
    .post('/:trial/verdict/open', async (context) => {
      const row = await present(store, pathId(context, 'trial'));
      const verdictOpenedAtMs = row.verdictOpenedAtMs ?? Date.now();
      await store.trials.update(row.id, { verdictOpenedAtMs });
      return context.json(await shown(store, { ...row, verdictOpenedAtMs }));
    });
}
