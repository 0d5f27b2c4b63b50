import { serveStatic } from '@hono/node-server/serve-static';
import type { Health } from '@marvet/core/contract/answers';
import { chainDraftSchema } from '@marvet/core/domain/chain';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { deviceDraftSchema } from '@marvet/core/domain/device';
import { frameDraftSchema } from '@marvet/core/domain/frame';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { scriptDraftSchema } from '@marvet/core/domain/script';
import { sightDraftSchema } from '@marvet/core/domain/sight';
import { stationDraftSchema } from '@marvet/core/domain/station';
import { wearerDraftSchema } from '@marvet/core/domain/wearer';
import { Hono, type MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import { secureHeaders } from 'hono/secure-headers';
import { archiveRoutes } from './api/archives.ts';
import { arrivingRoutes } from './api/arriving.ts';
import { awayRoutes } from './api/away.ts';
import { beginningRoutes } from './api/beginning.ts';
import { binRoutes, restoreRoutes } from './api/bin.ts';
import { captureRoutes } from './api/captures.ts';
import { channelUseRoutes } from './api/channelUse.ts';
import { comparingRoutes } from './api/comparing.ts';
import { correctionRoutes } from './api/corrections.ts';
import { deviceRoutes, followDevices } from './api/devices.ts';
import { doorRoutes } from './api/door.ts';
import { figuresOutRoutes } from './api/figuresOut.ts';
import { fileRoutes } from './api/files.ts';
import { foreseenRoutes } from './api/foreseen.ts';
import { foundRoutes } from './api/found.ts';
import { guardOrigin, HEADERS } from './api/guard.ts';
import { ApiError } from './api/http.ts';
import { itemRoutes } from './api/items.ts';
import { jobRoutes } from './api/jobs.ts';
import { joinRoutes } from './api/joinFiles.ts';
import { learnedRoutes } from './api/learned.ts';
import { LIBRARY_KINDS, libraryRoutes } from './api/library.ts';
import { listenRoutes } from './api/listen.ts';
import { markRoutes } from './api/marks.ts';
import { momentRoutes } from './api/moments.ts';
import { openListeningRoutes } from './api/openListening.ts';
import { photoRoutes } from './api/photos.ts';
import { placeRoutes } from './api/places.ts';
import { planRoutes } from './api/plan.ts';
import { preflightRoutes } from './api/preflight.ts';
import { rangeRoutes } from './api/range.ts';
import { readingRoutes } from './api/readings.ts';
import { recordingRoutes } from './api/recordings.ts';
import { reelRoutes } from './api/reel.ts';
import { roundRoutes } from './api/rounds.ts';
import { sayConditionRoutes } from './api/sayCondition.ts';
import type { Services } from './api/services.ts';
import { soundsOutRoutes } from './api/soundsOut.ts';
import { standInRoutes } from './api/standIns.ts';
import { startingPointRoutes } from './api/startingPoint.ts';
import { storageRoutes } from './api/storage.ts';
import { takeRoutes } from './api/takes.ts';
import { tellChanges } from './api/tellChanges.ts';
import { eventRoutes } from './api/trialEvents.ts';
import { type RecordKind, trialRecordRoutes } from './api/trialRecords.ts';
import { trialRoutes } from './api/trials.ts';
import { verdictRoutes } from './api/verdict.ts';
import { voiceNoteRoutes } from './api/voiceNotes.ts';
import { JobCancelled } from './jobs/runner.ts';
import type { Door } from './share/door.ts';

const LARGEST_JSON_BYTES = 2 << 20;
const UPLOAD = /^\/api\/trials\/(?:[^/]+\/files|archive)$/;
/** A piece of a large file, as the page cuts it. */
const LARGEST_FILE_PIECE_BYTES = 16 << 20;
const FILE_PIECE = /^\/api\/trials\/[^/]+\/files\/arriving$/;
/** A piece of sound of all channels and at the highest rate that can be recorded. */
const LARGEST_PIECE_BYTES = 4 << 20;
const PIECE = /^\/api\/trials\/[^/]+\/captures\/[^/]+\/pieces\/\d+$/;

/** Records of a trial that are changed as a whole, under addresses of their names. */
const RECORD_KINDS: RecordKind[] = [
  { noun: 'criterion', name: 'criteria', schema: criterionDraftSchema },
  { noun: 'chain', name: 'chains', schema: chainDraftSchema },
  { noun: 'station', name: 'stations', schema: stationDraftSchema },
  { noun: 'placement', name: 'placements', schema: placementDraftSchema },
  { noun: 'rig', name: 'rigs', schema: rigRecordDraftSchema },
  { noun: 'frame', name: 'frames', schema: frameDraftSchema },
  { noun: 'wearer', name: 'wearers', schema: wearerDraftSchema },
  { noun: 'answer', name: 'sights', schema: sightDraftSchema },
  { noun: 'device', name: 'devices', schema: deviceDraftSchema },
  { noun: 'script', name: 'scripts', schema: scriptDraftSchema },
];

/** The whole server: API, and the built page where there is one. */
export function buildApp(services: Services, door: Door, version: string, pageFolder: string | null): Hono {
  const { store } = services;
  const app = new Hono();
  const packed = compress();
  const limitTo = (maxSize: number) =>
    bodyLimit({
      maxSize,
      onError: () => {
        throw new ApiError(413, 'too-large', `The request is larger than ${maxSize >> 20} MiB`);
      },
    });
  const [limit, pieceLimit, filePieceLimit] = [LARGEST_JSON_BYTES, LARGEST_PIECE_BYTES, LARGEST_FILE_PIECE_BYTES].map(limitTo) as [
    MiddlewareHandler,
    MiddlewareHandler,
    MiddlewareHandler,
  ];
  app.use('*', secureHeaders(HEADERS), guardOrigin);
  // Tables of thousands are text that says much alike; audio is left as it is, and so are live events.
  app.use('/api/*', (context, next) => (context.req.path.endsWith('/events') ? next() : packed(context, next)));
  app.use('/api/*', tellChanges(services.events));
  // Audio streams to the disk and has no limit but the disk's; all else is small.
  app.use('*', (context, next) => {
    if (context.req.method === 'POST' && UPLOAD.test(context.req.path)) return next();
    if (context.req.method !== 'PUT') return limit(context, next);
    if (FILE_PIECE.test(context.req.path)) return filePieceLimit(context, next);
    return PIECE.test(context.req.path) ? pieceLimit(context, next) : limit(context, next);
  });
  app.onError((error, context) => {
    const told = error instanceof JobCancelled ? new ApiError(409, 'cancelled', `${error.message}. Nothing else was touched.`) : error;
    if (told instanceof ApiError) return context.json(told.body(), told.status);
    console.error(error);
    return context.json(new ApiError(500, 'internal', 'Something went wrong on the server; nothing was lost. The terminal says more.').body(), 500);
  });

  app.get('/api/health', (context) => context.json({ status: 'ok', version, troubles: services.troubles } satisfies Health));
  app.route('/api/trials', archiveRoutes(services));
  app.route('/api/trials', trialRoutes(services));
  app.route('/api/items', itemRoutes(store));
  for (const kind of LIBRARY_KINDS) app.route(`/api/library/${kind}`, libraryRoutes(store, kind));
  app.route('/api/learned', learnedRoutes(store));
  app.route('/api/found', foundRoutes(services));
  app.route('/api/photos', photoRoutes(services));
  app.route('/api/restore', restoreRoutes(services));
  app.route('/api/listen', listenRoutes(services));
  app.route('/api/listen', comparingRoutes(services));
  app.route('/api/stand-ins', standInRoutes(services));
  app.route('/api/door', doorRoutes(store, door));
  app.route('/api/storage', storageRoutes(services));
  const trial = '/api/trials/:trial';
  app.route(trial, reelRoutes(services));
  app.use(`${trial}/devices/*`, followDevices(services));
  app.use(`${trial}/bin/*`, followDevices(services));
  for (const whole of [trial, `${trial}/restore`]) app.use(whole, followDevices(services));
  app.route(`${trial}/devices`, deviceRoutes(services));
  for (const kind of RECORD_KINDS) app.route(`${trial}/${kind.name}`, trialRecordRoutes(store, kind));
  app.route(`${trial}/captures`, captureRoutes(services));
  app.route(`${trial}/jobs`, jobRoutes(services));
  app.route(`${trial}/marks`, markRoutes(store));
  app.route(`${trial}/plan`, planRoutes(services));
  app.route(`${trial}/preflight`, preflightRoutes(store));
  app.route(`${trial}/starting-point`, startingPointRoutes(store));
  app.route(`${trial}/files`, soundsOutRoutes(services));
  app.route(`${trial}/files`, arrivingRoutes(services));
  app.route(`${trial}/files`, channelUseRoutes(services));
  app.route(`${trial}/files/join`, joinRoutes(services));
  app.route(`${trial}/files`, fileRoutes(services));
  app.route(`${trial}/places`, placeRoutes(services));
  app.route(`${trial}/recordings`, figuresOutRoutes(services));
  app.route(`${trial}/recordings`, correctionRoutes(services));
  app.route(`${trial}/recordings`, recordingRoutes(services));
  app.route(`${trial}/open-listening`, openListeningRoutes(services));
  app.route(`${trial}/rounds`, roundRoutes(services));
  app.route(`${trial}/rounds`, awayRoutes(services));
  app.route(`${trial}/moments`, momentRoutes(store));
  app.route(`${trial}/verdict`, verdictRoutes(services));
  app.route(`${trial}/voice-notes`, voiceNoteRoutes(services));
  app.route(`${trial}/readings`, readingRoutes(store));
  app.route(`${trial}/range`, rangeRoutes(store));
  app.route(`${trial}/foreseen`, foreseenRoutes(store));
  app.route(`${trial}/beginning`, beginningRoutes(services));
  app.route(`${trial}/conditions`, sayConditionRoutes(services));
  app.route(`${trial}/bin`, binRoutes(services));
  app.route(`${trial}/events`, eventRoutes(services));
  app.route(trial, takeRoutes(services));
  app.all('/api/*', (context) => context.json(new ApiError(404, 'not-found', 'There is no such address in the API').body(), 404));

  if (pageFolder) {
    const forever = (_path: string, context: { header(name: string, value: string): void }) => context.header('Cache-Control', 'public, max-age=31536000, immutable');
    app.use('/assets/*', serveStatic({ root: pageFolder, onFound: forever }));
    app.get('/enter', (context) => context.redirect('/'));
    app.get('/listen/*', serveStatic({ root: pageFolder, path: 'listen.html' }));
    app.use('*', serveStatic({ root: pageFolder }));
    app.get('*', serveStatic({ root: pageFolder, path: 'index.html' }));
  }
  return app;
}
