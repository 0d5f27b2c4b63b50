import { type SaidOfTakes, sayConditionSchema } from '@marvet/core/contract/sayCondition';
import { NOT_KNOWN } from '@marvet/core/domain/factor';
import { levelIn, saidOf } from '@marvet/core/takes/sayCondition';
import { Hono } from 'hono';
import type { ReadTables } from '../store/store.ts';
import { In, inParts, present } from '../store/table.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/** Whether somebody may say afterwards under which condition a take was: nobody logged it in the field, by the plan. */
export async function isOpenToSay(from: Pick<ReadTables, 'logLines'>, take: { id: string; status: string } | null): Promise<boolean> {
  return take?.status === 'done' && !(await from.logLines.existsBy({ takeId: take.id }));
}

/** What was not written down of takes that came without a plan, said afterwards. */
export function sayConditionRoutes({ store, events, work }: Pick<Services, 'store' | 'events' | 'work'>): Hono {
  return new Hono().post('/', async (context) => {
    const trialId = pathId(context, 'trial');
    const { takeIds, kind, levelId, candidateId, onlyUnknown } = await readBody(context, sayConditionSchema);
    const changed = await store.write(async (tables) => {
      const plan = await tables.plans.findOneBy({ trialId });
      if (!plan) throw notFound('trial');
      const levels = plan.factors.find((factor) => factor.kind === kind)?.levels ?? [];
      if (levelId !== NOT_KNOWN && !levels.some(({ id }) => id === levelId)) throw new ApiError(422, 'invalid', 'The plan has no such level', { levelId: 'Not in the plan' });
      const takes = await inParts(takeIds, (part) => tables.takes.findBy({ id: In(part), ...present(trialId) }));
      const said: string[] = [];
      for (const take of takes) {
        if (onlyUnknown && levelIn(take, kind, candidateId) !== NOT_KNOWN) continue;
        if (!(await isOpenToSay(tables, take))) {
          if (onlyUnknown) continue;
          throw new ApiError(409, 'logged', 'This take was logged in the field: it has its condition from the plan', { takeIds: 'Logged in the field' });
        }
        await tables.takes.update(take.id, saidOf(take, { kind, levelId, candidateId }));
        said.push(take.id);
      }
      return said;
    });
    // The reference of a trial may be a level: another recording of the take may have it now.
    if (changed.length > 0) await work.against.look(trialId, changed);
    if (changed.length > 0) events.tell(trialId, { type: 'records', tags: ['Takes', 'Recordings', 'Trials', 'Verdict'], page: null });
    return context.json({ takeIds: changed } satisfies SaidOfTakes);
  });
}
