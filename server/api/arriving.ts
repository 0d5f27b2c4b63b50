import { Readable } from 'node:stream';
import { instantMsSchema } from '@marvet/core/domain/identity';
import { Hono } from 'hono';
import { z } from 'zod';
import { ApiError, notFound, parsed, pathId } from './http.ts';
import { bringIn } from './newFile.ts';
import type { Services } from './services.ts';

const MOST_BYTES = 1e12;

/** What is told of a file before its bytes. */
export const arrivalSchema = z.object({
  name: z.string({ error: 'Give the file its name' }).trim().min(1, 'Give the file its name').max(255, 'A file name has at most 255 characters'),
  /** The folder that it lay in, from the root of what was chosen. */
  folder: z.string().max(1000, 'The path of a folder has at most 1,000 characters').nullable().default(null),
  modifiedMs: z.coerce.number({ error: 'When the file was last written is a number of milliseconds' }).pipe(instantMsSchema).nullable().default(null),
});
const arrivingSchema = arrivalSchema.extend({ sizeBytes: z.coerce.number().int().min(1).max(MOST_BYTES, 'A file has at most 1 TB') });
const arrivingPieceSchema = arrivingSchema.extend({ fromByte: z.coerce.number().int().min(0) });

/** Large files that come piece by piece, so that a broken connection costs no more than what was on its way. */
export function arrivingRoutes(services: Services): Hono {
  const { store, blobs } = services;
  return (
    new Hono()
      /** Of a large file what is here already, so that it is sent on from there. */
      .get('/arriving', async (context) => {
        const file = { trialId: pathId(context, 'trial'), ...parsed(arrivingSchema, context.req.query()) };
        return context.json({ receivedBytes: await blobs.arriving.receivedBytes(file) });
      })
      /** A piece of it. What is answered is on the disk; where it is at another byte, nothing is added, and it is said where. */
      .put('/arriving', async (context) => {
        const { fromByte, ...told } = parsed(arrivingPieceSchema, context.req.query());
        const body = context.req.raw.body;
        if (!body) throw new ApiError(422, 'empty', `${told.name}: a piece of 0 bytes`);
        return context.json({ receivedBytes: await blobs.arriving.append({ trialId: pathId(context, 'trial'), ...told }, fromByte, Readable.fromWeb(body as never)) });
      })
      /** All of it is here: it is brought in as a file that came at once. */
      .post('/arriving', async (context) => {
        const trialId = pathId(context, 'trial');
        const told = parsed(arrivingSchema, context.req.query());
        if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
        const file = { trialId, ...told };
        const receivedBytes = await blobs.arriving.receivedBytes(file);
        if (receivedBytes < told.sizeBytes) throw new ApiError(409, 'incomplete', `${told.name}: ${receivedBytes} of ${told.sizeBytes} bytes are here`);
        const staged = await blobs.stageFile(blobs.arriving.pathOf(file));
        try {
          const result = await bringIn(services, trialId, told, staged, context.req.raw.signal);
          await blobs.arriving.forget(file);
          return context.json(result, result.duplicate ? 200 : 201);
        } catch (error) {
          // What is no sound is not kept; what failed otherwise is tried again.
          if (error instanceof ApiError) await blobs.arriving.forget(file);
          throw error;
        }
      })
  );
}
