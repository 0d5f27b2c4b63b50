import { createServer, type Server, type Socket } from 'node:net';
import type { TakeReadings } from '@marvet/core/contract/field';
import type { Device, DeviceState } from '@marvet/core/domain/device';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Harness, openHarness, readyTrial } from '../testing/harness.ts';

const HELLO = { hello: 1, name: 'Rx', kind: 'receiver', session: 's1', channels: [{ id: 'a', quantity: 'radioLevelDbm', name: 'Aerial A', group: '1' }] };

let harness: Harness;
let at: string;
let trialId: string;
const servers: Server[] = [];
beforeEach(async () => {
  harness = await openHarness();
  ({
    at,
    trial: { id: trialId },
  } = await readyTrial(harness));
});
afterEach(async () => {
  await harness.close();
  for (const server of servers.splice(0)) server.close();
});

/** Something that listens on the loopback, and what was said to it. */
async function device(
  port: number,
  onConnect: (say: (line: object | string) => void, socket: Socket) => void,
): Promise<{ port: number; heard: string[]; sockets: Set<Socket>; close(): Promise<void> }> {
  const sockets = new Set<Socket>();
  const heard: string[] = [];
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => heard.push(...bytes.toString().trim().split('\n')));
    onConnect((line) => socket.write(`${typeof line === 'string' ? line : JSON.stringify(line)}\n`), socket);
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    port: (server.address() as { port: number }).port,
    heard,
    sockets,
    async close() {
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

const adopt = async (way: object, more: object = {}) => (await harness.call<Device>('POST', `${at}/devices`, { name: 'Rx', kind: 'receiver', way, ...more })).body;
const live = async () => (await harness.call<DeviceState[]>('GET', `${at}/devices/live`)).body;

async function until<Value>(ask: () => Promise<Value | false | undefined | null>, what: string): Promise<Value> {
  const endMs = Date.now() + 15_000;
  for (;;) {
    const value = await ask();
    if (value) return value;
    if (Date.now() > endMs) throw new Error(`Waited in vain for ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
}
const stateOf = (link: DeviceState['link']) => until(async () => (await live()).find((state) => state.link === link), link);

describe('a device over TCP', () => {
  it('is heard, acknowledged once its lines are on the disk, lost, and taken up again without doubling what it sends twice', async () => {
    const lines = (from: number) => [from, from + 1, from + 2].map((n) => ({ n, at: 1_000_000 + n * 100, values: { a: -60 - n } }));
    const first = await device(0, (say) => {
      say({ ...HELLO, now: 1_000_300 });
      for (const line of lines(1)) say(line);
    });
    await adopt({ by: 'json lines', host: '127.0.0.1', port: first.port });
    expect((await stateOf('live')).values).toEqual({ a: -63 });
    await until(async () => first.heard.includes('{"ack":3}'), 'the acknowledgement');
    const counted = async () => (await harness.services.store.readings.find()).reduce((sum, row) => sum + (row.values.a?.[3] ?? 0), 0);
    expect(await counted()).toBe(3);
    await first.close();
    expect((await stateOf('lost')).health).toBe('it closed the connection');
    // It never got the answer, and sends all of it again.
    await device(first.port, (say) => {
      say({ ...HELLO, now: 1_000_600 });
      for (const line of [...lines(1), ...lines(4)]) say(line);
    });
    // Why it was lost is no news any more.
    expect(await stateOf('live')).toMatchObject({ values: { a: -66 }, health: '' });
    await until(async () => (await counted()) === 6, 'six lines');
  });

  it('that stalls, lies or never ends a line harms no other', async () => {
    const good = await device(0, (say) => {
      say(HELLO);
      const timer = setInterval(() => say({ values: { a: -50 } }), 20);
      timer.unref();
    });
    const mad = await device(0, (say, socket) => {
      say(HELLO);
      say({ values: { a: 5000 } });
      say('not JSON');
      say({ hello: 2 });
      socket.write('x'.repeat(300_000));
    });
    const mute = await device(0, () => undefined);
    for (const { port } of [good, mad, mute]) await adopt({ by: 'json lines', host: '127.0.0.1', port }, { name: String(port) });
    await stateOf('live');
    const told = await until(async () => (await live()).find(({ troubles }) => troubles.length >= 4), 'its troubles');
    expect(told.troubles.map(({ text }) => text).sort()).toEqual([
      'sent a hello that cannot be understood: hello: The first line says "hello":1, the number of this protocol',
      'sent a line that is no JSON',
      'sent a line without an end',
      'told radio level of 5000 dBm',
    ]);
    // In whatever order they came to be heard.
    await until(async () => String((await live()).map(({ link }) => link).sort()) === 'connecting,live,live', 'two that are heard and one that says nothing');
  });

  it('that tells positions as sentences is a device like any other', async () => {
    const source = await device(0, (say) => say('$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47'));
    const { id } = await adopt({ by: 'nmea', host: '127.0.0.1', port: source.port }, { kind: 'position' });
    expect((await stateOf('live')).values).toMatchObject({ lat: expect.closeTo(48.1173, 4), lon: expect.closeTo(11.5167, 4), alt: 545.4 });
    await until(async () => (await harness.services.store.devices.findOneByOrFail({ id })).about?.channels.length === 3, 'what it tells');
  });

  it('is let go when it is turned off or deleted, and comes back from the bin', async () => {
    const own = await device(0, (say) => {
      say(HELLO);
      say({ values: { a: -50 } });
    });
    const { id } = await adopt({ by: 'json lines', host: '127.0.0.1', port: own.port });
    await stateOf('live');
    await harness.call('DELETE', `${at}/devices/${id}`);
    expect(await live()).toEqual([]);
    await until(async () => own.sockets.size === 0, 'the end of the connection');
    await harness.call('POST', `${at}/bin/restore`, { kind: 'device', id });
    await stateOf('live');
    await harness.change(`${at}/devices/${id}`, { on: false });
    expect(await live()).toEqual([]);
  });

  it('says why it cannot be reached', async () => {
    const gone = await device(0, () => undefined);
    await gone.close();
    await adopt({ by: 'json lines', host: '127.0.0.1', port: gone.port });
    expect((await stateOf('lost')).health).toBe('nothing listens at its address');
  });
});

describe('a device that posts', () => {
  it('is answered once its lines are on the disk, and told what was wrong with them', async () => {
    const { id } = await adopt({ by: 'posted' });
    const { status, body } = await harness.call('POST', `${at}/devices/${id}/lines`, { lines: [HELLO, { n: 1, values: { a: -50 } }, { n: 'x' }] });
    expect(status).toBe(200);
    expect(body).toEqual({ ack: 1, wrong: [expect.stringContaining('a reading that cannot be understood')] });
    expect(await harness.services.store.readings.count()).toBe(1);
    await harness.change(`${at}/devices/${id}`, { on: false });
    expect((await harness.call('POST', `${at}/devices/${id}/lines`, { lines: [{ values: { a: -50 } }] })).status).toBe(409);
  });

  it('lies with the take that ran meanwhile, least and most of every step with it', async () => {
    const { id } = await adopt({ by: 'posted' });
    const [take] = await harness.services.store.takes.find({ order: { slate: 'ASC' } });
    const startMs = Date.now() - 2_000_000;
    const line = (kind: string, atMs: number, n: number) => ({ id: `00000000-0000-4000-8000-0000000001${n}`, takeId: take!.id, atMs, kind });
    await harness.call('POST', `${at}/log`, { lines: [line('start', startMs, 10), line('stop', startMs + 1_500_000, 11)] });
    const now = Date.now();
    const reading = (second: number) => ({ at: startMs + second * 1000, values: { a: second === 700 ? -99 : -60 } });
    await harness.call('POST', `${at}/devices/${id}/lines`, { lines: [{ ...HELLO, now }, ...Array.from({ length: 150 }, (_, index) => reading(index * 10))] });
    const { body } = await harness.call<TakeReadings>('GET', `${at}/readings/${take!.id}`);
    const [channel] = body.devices[0]!.channels;
    expect(channel!.sum).toMatchObject({ least: -99, most: -60, count: 150 });
    expect(channel!.series.length).toBeLessThanOrEqual(600);
    expect(channel!.series.some(([, least]) => least === -99)).toBe(true);
    expect((await harness.call('GET', `/trials/${trialId}/readings/${id}`)).status).toBe(404);
  });
});
