import { type ChildProcess, spawn } from 'node:child_process';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildServer } from '../scripts/ready.mjs';

/** Where the door of a tested server stands: another address of this machine. */
export const DOOR_ADDRESS = '127.0.0.2';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** The whole program as its own process, on a data folder of its own, which can be killed and started again. */
export interface RunningMarvet {
  address: string;
  dataFolder: string;
  /** Ends it as a power cut would. */
  kill(): Promise<void>;
  /** Ends it as Ctrl-C would. */
  stop(): Promise<void>;
  start(): Promise<void>;
  /** Stops it and removes the data folder. */
  dispose(): Promise<void>;
}

async function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/**
 * Starts the server as npm start does, from what is built of its sources; with a demo folder the demo is brought in first.
 * @param options.copyOf a data folder of which a copy is worked on
 */
export async function runMarvet(options: { dataFolder?: string; demo?: string; copyOf?: string } = {}): Promise<RunningMarvet> {
  buildServer();
  const dataFolder = options.dataFolder ?? (await mkdtemp(join(tmpdir(), 'marvet-')));
  if (options.copyOf) await cp(options.copyOf, dataFolder, { recursive: true });
  const [port, doorPort] = [await freePort(), await freePort()];
  let child: ChildProcess | null = null;
  const end = async (signal: NodeJS.Signals) => {
    const running = child;
    if (!running || running.exitCode !== null || running.signalCode !== null) return;
    const gone = new Promise<void>((resolve) => running.once('exit', () => resolve()));
    running.kill(signal);
    await gone;
    child = null;
  };
  const marvet: RunningMarvet = {
    address: `http://127.0.0.1:${port}`,
    dataFolder,
    kill: () => end('SIGKILL'),
    stop: () => end('SIGTERM'),
    async start() {
      const args = [join(ROOT, 'dist', 'main.mjs'), ...(options.demo ? [options.demo] : [])];
      const started = spawn(process.execPath, args, {
        cwd: ROOT,
        env: { ...process.env, PORT: String(port), MARVET_DATA: dataFolder, DOOR_PORT: String(doorPort), DOOR_ADDRESS },
        stdio: ['ignore', 'pipe', 'pipe'],
      });
      child = started;
      let said = '';
      await new Promise<void>((resolve, reject) => {
        const hear = (chunk: Buffer) => {
          said += chunk.toString();
          if (said.includes('Marvet is ready')) resolve();
        };
        started.stdout.on('data', hear);
        started.stderr.on('data', hear);
        started.once('exit', () => reject(new Error(`The server ended before it was ready:\n${said}`)));
      });
    },
    async dispose() {
      await end('SIGTERM');
      if (!options.dataFolder) await rm(dataFolder, { recursive: true, force: true });
    },
  };
  await marvet.start();
  return marvet;
}
