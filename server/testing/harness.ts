import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeWav } from '@marvet/core/audio/writeWav';
import type { Trial } from '@marvet/core/domain/trial';
import { fieldRecordingWav } from '@marvet/core/simulate/fieldRecording';
import type { Hono } from 'hono';
import type { Services } from '../api/services.ts';
import { buildApp } from '../app.ts';
import { type Door, openDoor } from '../share/door.ts';
import { closeServices, openServices } from '../start.ts';

/** The server without a network, on a data folder of its own. */
export interface Harness {
  services: Services;
  folder: string;
  door: Door;
  app: Hono;
  call<Result = unknown>(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<{ status: number; body: Result; headers: Headers; text: string }>;
  /** A request whose body or answer is no JSON. */
  raw(method: string, path: string, body?: Uint8Array): Promise<Response>;
  /** Changes a record as a page does that has just read it. */
  change<Result = unknown>(path: string, patch: object): Promise<{ status: number; body: Result }>;
  upload(trialId: string, name: string, bytes: Uint8Array): Promise<{ status: number; body: never }>;
  close(): Promise<void>;
}

/** What worker threads run, built before the first test: each test opens some, and from sources each would take two seconds to begin. */
const BUILT_WORKER = new URL('../../dist/worker.mjs', import.meta.url);

/** @param workerEntry what worker threads run, where a test has one of its own */
export async function openHarness(workerEntry = BUILT_WORKER): Promise<Harness> {
  const folder = await mkdtemp(join(tmpdir(), 'marvet-api-'));
  const services = await openServices(folder, workerEntry);
  const door = openDoor({
    store: services.store,
    inner: { fetch: (request, bindings) => app.fetch(request, bindings) },
    pageFolder: null,
    dataFolder: folder,
    port: 0,
    extraAddress: '127.0.0.2',
  });
  const app = buildApp(services, door, 'test', null);
  const call: Harness['call'] = async (method, path, body, headers = {}) => {
    const response = await app.request(`http://127.0.0.1/api${path}`, {
      method,
      headers: { host: '127.0.0.1', ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const json = response.headers.get('content-type')?.includes('json');
    return { status: response.status, body: (json ? JSON.parse(text) : null) as never, headers: response.headers, text };
  };
  return {
    services,
    folder,
    door,
    app,
    call,
    async change(path, patch) {
      const list = path.split('/').slice(0, -1).join('/');
      const own = await call<{ id?: string; version: number }>('GET', path);
      const rows = own.status === 404 ? (await call<{ id: string; version: number }[]>('GET', list)).body : null;
      const record = rows ? rows.find((row) => path.endsWith(row.id)) : own.body;
      const isTrial = /^\/trials\/[^/]+$/.test(path);
      const result = await call(isTrial ? 'PATCH' : 'PUT', path, { ...(isTrial ? {} : record), ...patch, version: record?.version });
      return result as never;
    },
    raw: async (method, path, body) => app.request(`http://127.0.0.1/api${path}`, { method, headers: { host: '127.0.0.1' }, ...(body ? { body: body as never } : {}) }),
    async upload(trialId, name, bytes) {
      const response = await app.request(`http://127.0.0.1/api/trials/${trialId}/files?name=${encodeURIComponent(name)}`, {
        method: 'POST',
        headers: { host: '127.0.0.1' },
        body: bytes as never,
      });
      return { status: response.status, body: (await response.json()) as never };
    },
    async close() {
      await door.close();
      await closeServices(services);
      await rm(folder, { recursive: true, force: true });
    },
  };
}

export const plainWav = (...channels: Float64Array[]) => writeWav(channels, { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 });

/** A poly file as a field recorder writes it. */
export const recorderWav = (channels: Float64Array[], scene: string, take: string, trackNames: string[]) =>
  fieldRecordingWav({ channels, sampleRateHz: 48_000, project: 'Test', scene, take, tape: '', note: '', trackNames, startedAtMs: 0 });

/** A trial with two candidates, one station, one script and its slates. */
export async function readyTrial(harness: Harness) {
  const { call } = harness;
  const trial = (await call<Trial>('POST', '/trials', { name: 'Jetty', question: 'Which one?' })).body;
  const at = `/trials/${trial.id}`;
  const item = (await call<{ id: string }>('POST', '/items', { kind: 'microphone', name: 'Reed capsule', price: 100 })).body;
  const chain = async (name: string, kind: number, letters: string) =>
    (await call<{ id: string }>('POST', `${at}/chains`, { name, tape: { kind, letters }, links: [{ itemId: item.id, settings: {} }] })).body.id;
  const chains = [await chain('Quoin', 0, 'QU'), await chain('Lodestar', 1, 'LO')] as const;
  await call('POST', `${at}/stations`, { name: 'jetty' });
  const scripts = (await call<{ id: string; name: string }[]>('GET', `${at}/scripts`)).body;
  const plan = (await call<{ factors: { kind: string; levels: { id: string; ticked: boolean }[] }[] }>('GET', `${at}/plan`)).body;
  const factors = plan.factors.map((factor) =>
    factor.kind === 'script' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === scripts[0]!.id })) } : factor,
  );
  await call('PUT', `${at}/plan`, { ...plan, factors });
  await call('POST', `${at}/plan/commit`);
  return { trial, at, chains };
}
