import { existsSync } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type ServerType, serve } from '@hono/node-server';
import { keptVerdicts } from './api/keptVerdicts.ts';
import type { Services } from './api/services.ts';
import { buildApp } from './app.ts';
import { openBlobs } from './audio/blobs.ts';
import { openCaptures } from './capture/captures.ts';
import { openGrowingFiles } from './capture/growingFiles.ts';
import type { Config } from './config.ts';
import { openHub } from './devices/hub.ts';
import { openStandIns } from './devices/standIns/standIns.ts';
import { openEvents } from './jobs/events.ts';
import { openPool } from './jobs/pool.ts';
import { openSounds } from './jobs/sounds.ts';
import { openWork } from './jobs/work.ts';
import { openDoor } from './share/door.ts';
import { checkData } from './store/check.ts';
import { openStore } from './store/store.ts';
import { In, IsNull } from './store/table.ts';

/** A trouble that the person at the terminal can mend; told in one line. */
export class StartError extends Error {}

/** Longer than a page is ever busy with itself, so that it does not write into a connection that was just closed. */
const KEEP_ALIVE_MS = 65_000;

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/**
 * Opens the data folder with all that works on it, and looks it over.
 * @param workerEntry what worker threads run, in place of the measuring that they do
 */
export async function openServices(dataFolder: string, workerEntry?: URL): Promise<Services> {
  try {
    await mkdir(dataFolder, { recursive: true });
    const blobs = await openBlobs(dataFolder);
    const store = await openStore(dataFolder);
    const troubles = await checkData(store, blobs.has);
    const pool = openPool(workerEntry);
    const events = openEvents();
    const work = openWork(store, blobs, pool, events);
    const livePool = openPool(workerEntry);
    return {
      store,
      blobs,
      pool,
      livePool,
      events,
      work,
      sounds: openSounds({ blobs, pool, events }),
      captures: openCaptures({ store, blobs, files: await openGrowingFiles(dataFolder), pool: livePool, events, work }),
      verdicts: keptVerdicts(store),
      devices: openHub(store, events),
      standIns: openStandIns(),
      troubles,
    };
  } catch (error) {
    throw new StartError(`The data folder ${dataFolder} cannot be used: ${(error as Error).message}. Choose another with MARVET_DATA.`);
  }
}

/** Takes up what was queued or under way when the data folder was last left, whether it was left cleanly or not. */
export async function resumeWork({ store, work }: Pick<Services, 'store' | 'work'>): Promise<void> {
  await work.runner.resume();
  const unfinished = await store.files.find({ select: { id: true }, where: { state: In(['queued', 'measuring']), binnedAtMs: IsNull() } });
  const known = await store.jobs.find({ select: { id: true, subjectId: true }, where: { kind: 'measure', state: In(['queued', 'running']) } });
  const inHand = new Set(known.map((job) => job.subjectId));
  await work.measuring.request(unfinished.map((file) => file.id).filter((id) => !inHand.has(id)));
}

/** Leaves the data folder: what is under way is stopped and stays queued for the next start. */
export async function closeServices({ work, sounds, pool, livePool, captures, store, devices, standIns }: Services): Promise<void> {
  await devices.close();
  await standIns.stop();
  await captures.close();
  await livePool.close();
  await sounds.close();
  await work.runner.stop();
  await pool.close();
  await store.close();
}

/** A running server. */
export interface RunningServer {
  address: string;
  close(): Promise<void>;
}

/** Serves on 127.0.0.1. @throws StartError when the port is taken */
export async function startServer(services: Services, config: Config): Promise<RunningServer> {
  const { version } = JSON.parse(await readFile(join(ROOT, 'package.json'), 'utf8')) as { version: string };
  const page = join(ROOT, 'web', 'dist');
  const pageFolder = existsSync(page) ? page : null;
  const { dataFolder, doorPort: port, doorAddress: extraAddress } = config;
  // What stands behind the door is the program itself.
  const door = openDoor({ store: services.store, inner: { fetch: (request, bindings) => app.fetch(request, bindings) }, pageFolder, dataFolder, port, extraAddress });
  const app = buildApp(services, door, version, pageFolder);
  // Thousands of recordings take half a second to read: before the first page is served, not while it waits.
  await services.verdicts.warm().catch((error: unknown) => console.error('Verdicts could not be worked out ahead:', error));
  const server = await new Promise<ServerType>((resolve, reject) => {
    const starting = serve({ fetch: app.fetch, port: config.port, hostname: '127.0.0.1', serverOptions: { keepAliveTimeout: KEEP_ALIVE_MS } }, () => resolve(starting));
    starting.on('error', (error: NodeJS.ErrnoException) => {
      const taken = error.code === 'EADDRINUSE';
      reject(new StartError(taken ? `Port ${config.port} is taken. Stop what uses it, or choose another with PORT.` : `The server cannot listen: ${error.message}`));
    });
  });
  await services.devices.follow();
  await resumeWork(services);
  const at = server.address() as AddressInfo;
  return {
    address: `http://127.0.0.1:${at.port}`,
    async close() {
      await door.close();
      if ('closeAllConnections' in server) server.closeAllConnections();
      await new Promise<void>((resolve) => server.close(() => resolve()));
      await closeServices(services);
    },
  };
}
