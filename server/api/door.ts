import type { WhoAmI } from '@marvet/core/contract/door';
import { GUEST_ROLES } from '@marvet/core/domain/guest';
import { idSchema } from '@marvet/core/domain/identity';
import { Hono } from 'hono';
import { z } from 'zod';
import { DOOR_DAYS, type Door } from '../share/door.ts';
import { putOut } from '../share/guests.ts';
import type { Store } from '../store/store.ts';
import { IsNull, present } from '../store/table.ts';
import { guestOf } from './guestOf.ts';
import { notFound, pathId, readBody } from './http.ts';

const openSchema = z.object({ address: z.string().trim().min(1, 'Choose an address'), days: z.literal(DOOR_DAYS, { error: 'Choose a day or a week' }).default(1) });
const grantSchema = z
  .object({ trialId: idSchema, role: z.enum(GUEST_ROLES, { error: 'Choose what the device may do' }), listenerId: idSchema.nullable().default(null) })
  .refine(({ role, listenerId }) => (role === 'listen') === (listenerId !== null), { path: ['listenerId'], error: 'Choose who listens' });

/** The door for other devices, as the laptop opens and closes it; and who asks. */
export function doorRoutes(store: Store, door: Door): Hono {
  return new Hono()
    .get('/me', (context) => {
      const guest = guestOf(context);
      if (!guest) return context.json({ guest: null } satisfies WhoAmI);
      const { id, name, role, trialId, listenerId, expiresAtMs } = guest;
      return context.json({ guest: { id, name, role, trialId, listenerId, expiresAtMs } } satisfies WhoAmI);
    })
    .get('/', async (context) => context.json(await door.state()))
    .post('/open', async (context) => {
      const { address, days } = await readBody(context, openSchema);
      await door.open(address, days);
      return context.json(await door.state());
    })
    .post('/close', async (context) => {
      await door.close();
      return context.json(await door.state());
    })
    .post('/code', async (context) => {
      const grant = await readBody(context, grantSchema);
      if (!(await store.trials.existsBy({ id: grant.trialId, binnedAtMs: IsNull() }))) throw notFound('trial');
      if (grant.listenerId) {
        const listener = await store.listeners.findOneBy({ id: grant.listenerId, binnedAtMs: IsNull() });
        if (!listener || !(await store.rounds.existsBy({ id: listener.roundId, ...present(grant.trialId) }))) throw notFound('listener');
      }
      await door.giveCode(grant);
      return context.json(await door.state(), 201);
    })
    .delete('/code', async (context) => {
      door.withdrawCode();
      return context.json(await door.state());
    })
    .delete('/guests/:id', async (context) => {
      if (!(await putOut(store, pathId(context, 'id')))) throw notFound('device');
      // What it still listens to ends as well.
      door.hangUp();
      return context.json(await door.state());
    });
}
