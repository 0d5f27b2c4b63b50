import type { Device } from '@marvet/core/domain/device';
import { Hono, type MiddlewareHandler } from 'hono';
import { z } from 'zod';
import { present } from '../store/table.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const MOST_LINES = 1000;
const postedSchema = z.object({ lines: z.array(z.unknown()).min(1, 'Send at least one line').max(MOST_LINES, `Send at most ${MOST_LINES} lines at once`) });

/** Devices come, go and move with their records: whenever one may have changed, Marvet looks which to listen to. */
export function followDevices({ devices }: Pick<Services, 'devices'>): MiddlewareHandler {
  return async (context, next) => {
    await next();
    const posted = context.req.path.endsWith('/lines');
    if (context.req.method !== 'GET' && context.res.ok && !posted) await devices.follow();
  };
}

/** What the devices of a trial tell right now, and lines that a device posts. The records themselves are listed and changed like any other. */
export function deviceRoutes({ store, devices }: Pick<Services, 'store' | 'devices'>): Hono {
  return new Hono()
    .get('/live', (context) => context.json(devices.states(pathId(context, 'trial'))))
    .post('/:id/lines', async (context) => {
      const where = { id: pathId(context, 'id'), ...present(pathId(context, 'trial')) };
      const { lines } = await readBody(context, postedSchema);
      const device = (await store.devices.findOneBy(where)) as Device | null;
      if (!device) throw notFound('device');
      if (!device.on) throw new ApiError(409, 'off', 'Marvet does not listen to this device now. Turn it on under Devices, then send again.');
      return context.json(await devices.post(device, lines));
    });
}
