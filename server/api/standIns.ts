import { Hono } from 'hono';
import type { Services } from './services.ts';

/** Simulated devices on this computer, to try without any: which there are, starting and stopping them. */
export function standInRoutes({ standIns }: Pick<Services, 'standIns'>): Hono {
  return new Hono()
    .get('/', (context) => context.json(standIns.list()))
    .post('/', async (context) => context.json(await standIns.start()))
    .delete('/', async (context) => {
      await standIns.stop();
      return context.json(standIns.list());
    });
}
