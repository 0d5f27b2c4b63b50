import { captureDraftSchema } from '@marvet/core/domain/capture';
import { Hono } from 'hono';
import { z } from 'zod';
import { ApiError, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const finishSchema = z.object({ binned: z.boolean().default(false) });

/** Takes that are recorded straight in: announced, sent piece by piece, closed. */
export function captureRoutes({ captures }: Pick<Services, 'captures'>): Hono {
  return new Hono()
    .get('/', async (context) => context.json(await captures.open(pathId(context, 'trial'))))
    .post('/', async (context) => context.json(await captures.begin(pathId(context, 'trial'), await readBody(context, captureDraftSchema)), 201))
    .put('/:id/pieces/:number', async (context) => {
      const number = Number(context.req.param('number'));
      if (!Number.isInteger(number) || number < 0) throw new ApiError(422, 'invalid', 'Pieces are counted 0, 1, 2...');
      const bytes = new Uint8Array(await context.req.arrayBuffer());
      return context.json({ pieces: await captures.put(pathId(context, 'trial'), pathId(context, 'id'), number, bytes) });
    })
    .post('/:id/finish', async (context) => {
      const { binned } = await readBody(context, finishSchema);
      return context.json(await captures.finish(pathId(context, 'trial'), pathId(context, 'id'), binned));
    });
}
