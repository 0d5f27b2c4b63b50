import type { TrialEvent } from '@marvet/core/contract/events';
import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import type { SentEvent } from '../jobs/events.ts';
import { pathId } from './http.ts';
import type { Services } from './services.ts';

const HEARTBEAT_MS = 15_000;

/** Server-sent events of a trial: progress of measuring, and what changed. A page that was cut off hears what it missed. */
export function eventRoutes({ events }: Pick<Services, 'events'>): Hono {
  return new Hono().get('/', (context) => {
    const trialId = pathId(context, 'trial');
    const last = context.req.header('last-event-id');
    return streamSSE(context, async (stream) => {
      const send = ({ id, event }: SentEvent) => {
        // A page that has gone is told of by onAbort; what was on its way to it is no error.
        void stream.writeSSE({ id, event: event.type, data: JSON.stringify(event satisfies TrialEvent) }).catch(() => stop());
      };
      const stop = events.listen(trialId, send);
      stream.onAbort(() => void stop());
      await stream.writeSSE({ event: 'hello', data: '{}' });
      if (last) for (const missed of events.since(trialId, last)) send(missed);
      while (!stream.aborted) {
        await stream.sleep(HEARTBEAT_MS);
        if (!stream.aborted) await stream.writeSSE({ event: 'hello', data: '{}' });
      }
    });
  });
}
