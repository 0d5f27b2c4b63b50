import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import { pathId } from './http.ts';
import type { Services } from './services.ts';

const HEARTBEAT_MS = 15_000;

/** Server-sent events of a trial: progress of measuring, files and takes that changed. */
export function eventRoutes({ events }: Pick<Services, 'events'>): Hono {
  return new Hono().get('/', (context) => {
    const trialId = pathId(context, 'trial');
    return streamSSE(context, async (stream) => {
      const stop = events.listen(trialId, (event) => {
        void stream.writeSSE({ event: event.type, data: JSON.stringify(event) });
      });
      stream.onAbort(stop);
      await stream.writeSSE({ event: 'hello', data: '{}' });
      while (!stream.aborted) {
        await stream.sleep(HEARTBEAT_MS);
        if (!stream.aborted) await stream.writeSSE({ event: 'hello', data: '{}' });
      }
    });
  });
}
