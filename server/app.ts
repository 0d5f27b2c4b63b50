import { serveStatic } from '@hono/node-server/serve-static';
import { chainDraftSchema } from '@marvet/core/domain/chain';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { scriptDraftSchema } from '@marvet/core/domain/script';
import { stationDraftSchema } from '@marvet/core/domain/station';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { binRoutes, restoreRoutes } from './api/bin.ts';
import { fileRoutes } from './api/files.ts';
import { guardHeaders, guardOrigin } from './api/guard.ts';
import { ApiError } from './api/http.ts';
import { itemRoutes } from './api/items.ts';
import { listenRoutes } from './api/listen.ts';
import { markRoutes } from './api/marks.ts';
import { photoRoutes } from './api/photos.ts';
import { planRoutes } from './api/plan.ts';
import { preflightRoutes } from './api/preflight.ts';
import { recordingRoutes } from './api/recordings.ts';
import { roundRoutes } from './api/rounds.ts';
import type { Services } from './api/services.ts';
import { startingPointRoutes } from './api/startingPoint.ts';
import { takeRoutes } from './api/takes.ts';
import { eventRoutes } from './api/trialEvents.ts';
import { trialRecordRoutes } from './api/trialRecords.ts';
import { trialRoutes } from './api/trials.ts';
import { verdictRoutes } from './api/verdict.ts';

const LARGEST_JSON_BYTES = 2 << 20;
const UPLOAD = /^\/api\/trials\/[^/]+\/files$/;

/** The whole server: API, and the built page where there is one. */
export function buildApp(services: Services, version: string, pageFolder: string | null): Hono {
  const { store } = services;
  const app = new Hono();
  const limit = bodyLimit({
    maxSize: LARGEST_JSON_BYTES,
    onError: () => {
      throw new ApiError(413, 'too-large', 'The request is larger than 2 MiB');
    },
  });
  app.use('*', guardHeaders, guardOrigin);
  // Audio streams to the disk and has no limit but the disk's; all else is small.
  app.use('*', (context, next) => (context.req.method === 'POST' && UPLOAD.test(context.req.path) ? next() : limit(context, next)));
  app.onError((error, context) => {
    if (error instanceof ApiError) return context.json(error.body(), error.status);
    console.error(error);
    return context.json(new ApiError(500, 'internal', 'Something went wrong on the server; nothing was lost. The terminal says more.').body(), 500);
  });

  app.get('/api/health', (context) => context.json({ status: 'ok', version }));
  app.route('/api/trials', trialRoutes(store));
  app.route('/api/items', itemRoutes(store));
  app.route('/api/photos', photoRoutes(services));
  app.route('/api/restore', restoreRoutes(store));
  app.route('/api/listen', listenRoutes(services));
  const trial = '/api/trials/:trial';
  app.route(`${trial}/criteria`, trialRecordRoutes(store, { noun: 'criterion', table: (tables) => tables.criteria, schema: criterionDraftSchema }));
  app.route(`${trial}/chains`, trialRecordRoutes(store, { noun: 'chain', table: (tables) => tables.chains, schema: chainDraftSchema }));
  app.route(`${trial}/stations`, trialRecordRoutes(store, { noun: 'station', table: (tables) => tables.stations, schema: stationDraftSchema }));
  app.route(`${trial}/scripts`, trialRecordRoutes(store, { noun: 'script', table: (tables) => tables.scripts, schema: scriptDraftSchema }));
  app.route(`${trial}/marks`, markRoutes(store));
  app.route(`${trial}/plan`, planRoutes(services));
  app.route(`${trial}/preflight`, preflightRoutes(store));
  app.route(`${trial}/starting-point`, startingPointRoutes(store));
  app.route(`${trial}/files`, fileRoutes(services));
  app.route(`${trial}/recordings`, recordingRoutes(services));
  app.route(`${trial}/rounds`, roundRoutes(store));
  app.route(`${trial}/verdict`, verdictRoutes(store));
  app.route(`${trial}/bin`, binRoutes(services));
  app.route(`${trial}/events`, eventRoutes(services));
  app.route(trial, takeRoutes(services));
  app.all('/api/*', (context) => context.json(new ApiError(404, 'not-found', 'There is no such address in the API').body(), 404));

  if (pageFolder) {
    const forever = (_path: string, context: { header(name: string, value: string): void }) => context.header('Cache-Control', 'public, max-age=31536000, immutable');
    app.use('/assets/*', serveStatic({ root: pageFolder, onFound: forever }));
    app.use('*', serveStatic({ root: pageFolder }));
    app.get('*', serveStatic({ root: pageFolder, path: 'index.html' }));
  }
  return app;
}
