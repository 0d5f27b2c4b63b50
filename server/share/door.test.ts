import { X509Certificate } from 'node:crypto';
import { readdir, readFile, rm } from 'node:fs/promises';
import { request as plainRequest } from 'node:http';
import { join } from 'node:path';
import type { DoorState } from '@marvet/core/contract/door';
import { newId } from '@marvet/core/domain/identity';
import type { Listener } from '@marvet/core/domain/round';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { openPhone, type Phone } from '../testing/doorCalls.ts';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

const ADDRESS = '127.0.0.2';
const OTHER_ID = '99999999-9999-4999-8999-999999999999';
const NO_LISTENER = '88888888-8888-4888-8888-888888888888';

let harness: Harness;
let trialId: string;
let at: string;
beforeAll(async () => {
  harness = await openHarness();
  ({ at } = await readyTrial(harness));
  trialId = at.split('/')[2] as string;
});
afterEach(() => harness.door.close());
afterAll(() => harness.close());

const state = async () => (await harness.call<DoorState>('GET', '/door')).body;
const open = (address = ADDRESS) => harness.call<DoorState>('POST', '/door/open', { address, days: 1 });
const kept = async () => JSON.parse(await readFile(join(harness.folder, 'door', 'certificate.json'), 'utf8')) as { cert: string; key: string; authority: string };

async function before(browser?: string): Promise<Phone> {
  const { open: opened } = await state();
  const { hostname, port } = new URL(opened?.url ?? '');
  return openPhone({ host: hostname, port: Number(port), ca: (await kept()).authority }, browser);
}

async function codeFor(role: 'log' | 'listen', listenerId: string | null = null): Promise<string> {
  const { body } = await harness.call<DoorState>('POST', '/door/code', { trialId, role, listenerId });
  return body.code?.code ?? '';
}

async function letIn(role: 'log' | 'listen' = 'log', listenerId: string | null = null, browser?: string): Promise<Phone> {
  const phone = await before(browser);
  const answer = await phone.ask('POST', '/api/door/enter', { code: await codeFor(role, listenerId), name: 'Assistant' });
  expect(answer.status).toBe(201);
  return phone;
}

/** Whether anything answers at an address and port. */
const answers = (port: number) =>
  new Promise<boolean>((resolve) => {
    const asked = plainRequest({ host: ADDRESS, port, path: '/enter', agent: false }, () => resolve(true));
    asked.on('error', () => resolve(false));
    asked.end();
  });

describe('closed', () => {
  it('nothing stands there before it is opened, nor after it is closed', async () => {
    expect((await state()).open).toBeNull();
    expect((await harness.call('POST', '/door/code', { trialId, role: 'log' })).status).toBe(409);
    await open();
    const phone = await letIn();
    await harness.call('POST', '/door/close');
    expect((await state()).open).toBeNull();
    await expect(phone.ask('GET', '/api/door/me')).rejects.toThrow('ECONNREFUSED');
  });

  it('it opens at an address of this computer only', async () => {
    const answer = await open('203.0.113.9');
    expect(answer.status).toBe(422);
    expect((await state()).open).toBeNull();
  });
});

describe('the certificate', () => {
  it('is for this address, of one day, signed by an authority whose key nobody has', async () => {
    const { body } = await open();
    const { cert, authority, key } = await kept();
    const [own, root] = [new X509Certificate(cert), new X509Certificate(authority)];
    expect(own.fingerprint256).toBe(body.open?.fingerprint);
    expect(own.checkIP(ADDRESS)).toBe(ADDRESS);
    expect(own.checkIP('127.0.0.3')).toBeUndefined();
    expect([own.ca, root.ca]).toEqual([false, true]);
    expect(own.verify(root.publicKey)).toBe(true);
    expect(Date.parse(own.validTo) - Date.now()).toBeLessThanOrEqual(24 * 3_600_000);
    const files = await readdir(join(harness.folder, 'door'));
    expect(files).toEqual(['certificate.json']);
    // The key that is kept is that of the door, which cannot sign for anybody.
    expect(own.checkPrivateKey((await import('node:crypto')).createPrivateKey(key))).toBe(true);
  });

  it('stays the same while it lasts; a new one is said to be new, and puts all out', async () => {
    await open();
    const phone = await letIn();
    const first = (await state()).open;
    await harness.call('POST', '/door/close');
    await open();
    expect((await state()).open).toMatchObject({ fingerprint: first?.fingerprint, certificateIsNew: false });
    const again = await before();
    again.cookie = phone.cookie;
    expect((await again.ask('GET', '/api/door/me')).status).toBe(200);
    await harness.call('POST', '/door/close');
    await rm(join(harness.folder, 'door'), { recursive: true });
    expect((await open()).body.open?.certificateIsNew).toBe(true);
    // The phone that trusted the first is warned by its own means, and its key is worth nothing.
    const { hostname, port } = new URL((await state()).open?.url ?? '');
    const warned = openPhone({ host: hostname, port: Number(port), ca: '' });
    await expect(warned.ask('GET', '/enter')).rejects.toThrow(/certificate/);
    const late = await before();
    late.cookie = phone.cookie;
    expect(await late.ask('GET', '/api/door/me')).toMatchObject({ status: 401, body: { error: { code: 'not-in-other-certificate' } } });
  });

  it('plain text gets no answer', async () => {
    const { body } = await open();
    expect(await answers(Number(new URL(body.open?.url ?? '').port))).toBe(false);
  });
});

describe('letting in', () => {
  it('a code opens once; the key is held by the browser alone, and only its hash is kept', async () => {
    await open();
    const phone = await before();
    const code = await codeFor('log');
    const answer = await phone.ask('POST', '/api/door/enter', { code, name: 'Assistant' });
    expect(answer).toMatchObject({ status: 201, body: { goTo: `/trials/${trialId}/field` } });
    const cookie = String(answer.headers['set-cookie']);
    for (const word of ['__Host-', 'HttpOnly', 'Secure', 'SameSite=Strict', 'Path=/']) expect(cookie).toContain(word);
    const [guest] = await harness.services.store.guests.find({ order: { enteredAtMs: 'DESC' } });
    expect(cookie).not.toContain(guest?.keyHash);
    expect(await phone.ask('GET', '/api/door/me')).toMatchObject({ status: 200, body: { guest: { name: 'Assistant', role: 'log', trialId } } });
    const other = await before();
    expect(await other.ask('POST', '/api/door/enter', { code, name: 'Second' })).toMatchObject({ status: 403, body: { error: { code: 'wrong-void' } } });
    expect(await state()).toMatchObject({ wrongTries: 1, code: null });
  }, 20_000);

  it('the code is in a picture that leads to the page, after a sign that is never sent', async () => {
    await open();
    await codeFor('log');
    const { code, open: opened } = await state();
    expect(code?.url).toBe(`${opened?.url}/enter`);
    expect(code?.qrSvg).toContain('<svg');
  });

  it.each([
    ['12345', 'The code is six digits'],
    ['letters', 'The code is six digits'],
  ])('%s is told to be no code, and counts as no try', async (code, why) => {
    await open();
    const answer = await (await before()).ask('POST', '/api/door/enter', { code, name: 'A' });
    expect(answer).toMatchObject({ status: 422, body: { error: { fields: { code: why } } } });
    expect((await state()).wrongTries).toBe(0);
  });
});

describe('keys', () => {
  it('none, a made-up one, one that was put out and one whose day is over open nothing', async () => {
    await open();
    const phone = await before();
    const codeOf = async () => ((await phone.ask('GET', `/api/trials/${trialId}/takes`)).body as { error: { code: string } }).error.code;
    expect(await codeOf()).toBe('not-in-unknown');
    phone.cookie = '__Host-marvet=made-up';
    expect(await codeOf()).toBe('not-in-unknown');
    await phone.ask('POST', '/api/door/enter', { code: await codeFor('log'), name: 'A' });
    const [guest] = (await state()).guests;
    await harness.services.store.write((tables) => tables.guests.update(guest!.id, { expiresAtMs: Date.now() - 1 }));
    expect(await codeOf()).toBe('not-in-over');
    await harness.services.store.write((tables) => tables.guests.update(guest!.id, { expiresAtMs: Date.now() + 60_000 }));
    await harness.call('DELETE', `/door/guests/${guest!.id}`);
    expect(await codeOf()).toBe('not-in-put-out');
  });

  it('a device that is put out hears nothing more, though it was listening', async () => {
    await open();
    const phone = await letIn();
    let heard = '';
    const ended = phone
      .ask('GET', `/api/trials/${trialId}/events`, undefined, {}, (part) => {
        heard += part;
      })
      .then(
        () => 'ended',
        () => 'cut off',
      );
    await expect.poll(() => heard).toContain('hello');
    harness.services.events.tell(trialId, { type: 'records', tags: ['Takes'], page: null });
    await expect.poll(() => heard).toContain('Takes');
    await harness.call('DELETE', `/door/guests/${(await state()).guests[0]!.id}`);
    expect(await ended).toMatch(/ended|cut off/);
    harness.services.events.tell(trialId, { type: 'records', tags: ['Plan'], page: null });
    expect(heard).not.toContain('Plan');
    expect((await phone.ask('GET', `/api/trials/${trialId}/takes`)).status).toBe(401);
  });

  it('one that turns up in another browser is refused, and the laptop is told', async () => {
    await open();
    const phone = await letIn();
    const thief = await before('Other/9');
    thief.cookie = phone.cookie;
    expect(await thief.ask('GET', `/api/trials/${trialId}/takes`)).toMatchObject({ status: 401, body: { error: { code: 'not-in-other-browser' } } });
    expect((await state()).guests[0]?.refused).toContain('another browser');
    expect((await phone.ask('GET', `/api/trials/${trialId}/takes`)).status).toBe(200);
  });

  it('is worth nothing at the laptop’s own address', async () => {
    await open();
    const phone = await letIn();
    const { body } = await harness.call<{ guest: unknown }>('GET', '/door/me', undefined, { cookie: phone.cookie ?? '' });
    expect(body.guest).toBeNull();
  });
});

describe('other hosts and sites', () => {
  it.each([
    ['host', { host: 'marvet.example:4811' }, 'wrong-host'],
    ['host', { host: '127.0.0.1:4810' }, 'wrong-host'],
    ['origin', { origin: 'https://evil.example' }, 'wrong-origin'],
    ['origin', { origin: 'http://127.0.0.2' }, 'wrong-origin'],
    ['site', { 'sec-fetch-site': 'cross-site' }, 'wrong-origin'],
    ['site', { 'sec-fetch-site': 'same-site' }, 'wrong-origin'],
  ] as const)('another %s is refused', async (_what, headers, code) => {
    await open();
    const phone = await letIn();
    const line = { id: newId(), takeId: newId(), atMs: 1, kind: 'stop' };
    expect(await phone.ask('POST', `/api/trials/${trialId}/log`, { lines: [line] }, headers)).toMatchObject({ status: 403, body: { error: { code } } });
    expect(await harness.services.store.logLines.find()).toEqual([]);
  });
});

/** All addresses of the API, with identities put in: those of the device's own trial, or of another. */
function addresses(ofTrial: string, listenerId: string): { method: string; path: string }[] {
  const routes = harness.app.routes.filter(({ method, path }) => method !== 'ALL' && path.startsWith('/api/'));
  const filled = routes.map(({ method, path }) => ({
    method,
    path: path
      .replace(':trial', ofTrial)
      .replace(':listener', listenerId)
      .replace(':piece', '0')
      .replace(':number', '0')
      .replace(/:[a-zA-Z]+/g, OTHER_ID)
      .replace('/api/trials/99999999-9999-4999-8999-999999999999', `/api/trials/${ofTrial}`),
  }));
  return [...new Map(filled.map((each) => [`${each.method} ${each.path}`, each])).values()];
}

async function reached(phone: Phone, ofTrial: string, listenerId: string): Promise<string[]> {
  const open: string[] = [];
  for (const { method, path } of addresses(ofTrial, listenerId)) {
    // What streams is asked for by its address alone.
    if (path.endsWith('/events')) continue;
    const { status, body } = await phone.ask(method, path, method === 'GET' || method === 'DELETE' ? undefined : {});
    if (status !== 403 || (body as { error: { code: string } }).error.code !== 'outside-role')
      open.push(`${method} ${path.replaceAll(ofTrial, 'T').replaceAll(listenerId, 'L').replaceAll(OTHER_ID, 'X')}`);
  }
  return open.sort();
}

describe('roles', () => {
  it('who logs reaches the log of its trial and what Field reads, and no other address there is', async () => {
    await open();
    const phone = await letIn();
    expect(addresses(trialId, NO_LISTENER).length).toBeGreaterThan(100);
    const shown = [
      '',
      '/chains',
      '/devices',
      '/devices/live',
      '/log/written',
      '/placements',
      '/plan',
      '/plan/day.ics',
      '/plan/run-sheet.csv',
      '/preflight',
      '/readings/X',
      '/rigs',
    ];
    expect(await reached(phone, trialId, NO_LISTENER)).toEqual(
      [
        ...[...shown, '/scripts', '/stations', '/takes', '/voice-notes', '/voice-notes/X'].map((path) => `GET /api/trials/T${path}`),
        'DELETE /api/trials/T/voice-notes/X',
        'GET /api/door/me',
        'GET /api/items',
        'GET /api/photos',
        'GET /api/photos/X',
        'POST /api/photos',
        'DELETE /api/photos/X',
        'POST /api/photos/X/restore',
        'POST /api/trials/T/devices/X/lines',
        'POST /api/trials/T/log',
        'POST /api/trials/T/voice-notes',
        'POST /api/trials/T/voice-notes/X/restore',
      ].sort(),
    );
  }, 60_000);

  it('of another trial it reaches nothing', async () => {
    await open();
    const phone = await letIn();
    const { at: otherAt } = await readyTrial(harness);
    const of = await reached(phone, otherAt.split('/')[2] as string, NO_LISTENER);
    expect(of.filter((each) => each.includes('/trials/'))).toEqual([]);
  }, 60_000);

  it('who listens reaches its own clips and scores, and learns what it would at the laptop', async () => {
    await open();
    const listener = await blindListener();
    const phone = await letIn('listen', listener.id);
    expect(await reached(phone, trialId, listener.id)).toEqual([
      'GET /api/door/me',
      'GET /api/listen/L',
      'GET /api/listen/L/comparisons/0/pieces/0',
      'GET /api/listen/L/pieces/0',
      'POST /api/listen/L/close',
      'POST /api/listen/L/finish',
      'PUT /api/listen/L/comparisons/0',
      'PUT /api/listen/L/guess',
      'PUT /api/listen/L/orders',
      'PUT /api/listen/L/ratings',
    ]);
    const outside = await phone.ask('GET', `/api/listen/${listener.id}`);
    expect(outside.body).toEqual((await harness.call('GET', `/listen/${listener.id}`)).body);
    const other = await blindListener();
    expect((await phone.ask('GET', `/api/listen/${other.id}`)).status).toBe(403);
    expect(await phone.ask('GET', `/trials/${trialId}/listen`)).toMatchObject({ status: 302, headers: { location: `/listen/${listener.id}` } });
  }, 60_000);

  it('photographs are those of its own trial', async () => {
    await open();
    const phone = await letIn();
    const { at: otherAt } = await readyTrial(harness);
    const takeOf = async (path: string) => (await harness.call<{ id: string }[]>('GET', `${path}/takes`)).body[0]!.id;
    const photo = (ownerId: string, id: string) => ({
      id,
      ownerKind: 'take' as const,
      ownerId,
      caption: '',
      sha256: 'a'.repeat(64),
      type: 'image/png' as const,
      addedAtMs: 1,
      binnedAtMs: null,
    });
    const [own, strange] = [newId(), newId()];
    const [ownTake, strangeTake] = [await takeOf(at), await takeOf(otherAt)];
    await harness.services.store.write((tables) => tables.photos.insert([photo(ownTake, own), photo(strangeTake, strange)]));
    expect((await phone.ask('GET', '/api/photos?ownerKind=take')).body).toMatchObject([{ id: own }]);
    expect((await phone.ask('GET', `/api/photos/${strange}`)).status).toBe(404);
    expect((await phone.ask('POST', `/api/photos?ownerKind=take&ownerId=${strangeTake}`, {})).status).toBe(404);
    expect((await phone.ask('GET', '/api/photos?ownerKind=item')).body).toEqual([]);
    // A wrong one of its own can be put away and brought back; a strange one cannot.
    for (const [id, status] of [
      [own, 204],
      [strange, 404],
    ] as const) {
      expect((await phone.ask('DELETE', `/api/photos/${id}`)).status).toBe(status);
      expect((await phone.ask('POST', `/api/photos/${id}/restore`)).status).toBe(status);
    }
    expect(await harness.services.store.photos.findOneByOrFail({ id: strange })).toMatchObject({ binnedAtMs: null });
  });
});

describe('logging from outside', () => {
  it('lines carry who wrote them, and a clock that is off is put right and told', async () => {
    await open();
    const phone = await letIn();
    const [take] = (await harness.call<{ id: string }[]>('GET', `${at}/takes`)).body;
    const behindMs = 190_000;
    const atMs = Date.now() - behindMs;
    const line = { id: newId(), takeId: take!.id, atMs, kind: 'note', text: 'gulls' };
    const answer = await phone.ask('POST', `/api/trials/${trialId}/log`, { lines: [line], sentAtMs: atMs + 5 });
    expect(answer.status).toBe(200);
    const told = (answer.body as { clockBehindMs: number }).clockBehindMs;
    expect(Math.abs(told - behindMs)).toBeLessThan(3000);
    const { body: written } = await harness.call<{ line: { atMs: number }; writer: string | null; clockBehindMs: number }[]>('GET', `${at}/log/written`);
    expect(written).toMatchObject([{ writer: 'Assistant', clockBehindMs: told, line: { atMs: atMs + told } }]);
    expect((await state()).guests[0]?.clockBehindMs).toBe(told);
    // Knowing it, the device adds it itself: nothing is moved twice, and its own clock is still told to be off.
    const nowMs = Date.now();
    const next = { id: newId(), takeId: take!.id, atMs: nowMs, kind: 'note', text: 'gulls again' };
    const second = await phone.ask('POST', `/api/trials/${trialId}/log`, { lines: [next], sentAtMs: nowMs - told, addedMs: told, knownMs: told });
    expect(second.body).toMatchObject({ clockBehindMs: told });
    const [newest] = (await harness.call<{ line: { atMs: number }; clockBehindMs: number }[]>('GET', `${at}/log/written`)).body;
    expect(newest).toMatchObject({ clockBehindMs: told, line: { atMs: nowMs } });
    expect((await state()).guests[0]?.clockBehindMs).toBe(told);
  });
});

async function blindListener(): Promise<Listener> {
  const criterion = (await harness.call<{ id: string }>('POST', `${at}/criteria`, { name: `Clear ${newId()}`, kind: 'listened', weight: 1, best: 10, worst: 0 })).body;
  const roundId = newId();
  const listener = {
    id: newId(),
    roundId,
    name: 'Orla',
    listenedOn: 'buds',
    order: [0, 1],
    comparisons: null,
    closedAtMs: null,
    guess: null,
    orders: {},
    awayKey: null,
    sample: false,
    createdAtMs: 1,
    finishedAtMs: null,
    binnedAtMs: null,
  };
  const round = {
    id: roundId,
    trialId,
    title: 'R',
    kind: 'scores',
    comparisons: null,
    checks: [],
    checkOf: [],
    steadyWeighs: false,
    opens: 'done',
    closedAtMs: null,
    recordingIds: [newId(), newId()],
    criterionIds: [criterion.id],
    matchedLufs: -23,
    targetLufs: -23,
    gainsDb: [0, 0],
    lengthS: 1,
    cuts: [],
    createdAtMs: 1,
    ceilingDbtp: -1,
    sample: false,
  };
  await harness.services.store.write(async (tables) => {
    await tables.rounds.insert({ ...round, binnedAtMs: null } as never);
    await tables.listeners.insert(listener as never);
  });
  return listener as never;
}
