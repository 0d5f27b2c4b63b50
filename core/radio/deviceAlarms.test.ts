import { describe, expect, it } from 'vitest';
import { type Device, type DeviceState, deviceSchema } from '../domain/device.ts';
import { newId } from '../domain/identity.ts';
import { AlarmBoard, deviceAlarms } from './deviceAlarms.ts';

const deviceId = newId();
const candidateId = newId();
const device: Device = deviceSchema.parse({
  id: deviceId,
  trialId: newId(),
  version: 1,
  binnedAtMs: null,
  name: 'Receiver',
  way: { by: 'json lines', host: '127.0.0.1', port: 4821 },
  ties: [{ group: '1', candidateId }],
  about: {
    session: '',
    lastN: 0,
    channels: [
      { id: 'b', quantity: 'batteryPercent', group: '1' },
      { id: 'm', quantity: 'muted', group: '1' },
      { id: 'l', quantity: 'audioLevelDbfs', group: '1' },
      { id: 'r', quantity: 'rolling' },
      { id: 's', quantity: 'spaceLeftMin' },
    ],
  },
});
const state = (values: Record<string, number>, link: DeviceState['link'] = 'live'): DeviceState => ({
  deviceId,
  link,
  sinceMs: 0,
  values,
  atMs: 0,
  health: 'nothing listens',
  troubles: [],
});
const texts = (values: Record<string, number>, rolling = false, link: DeviceState['link'] = 'live') =>
  deviceAlarms([device], [state(values, link)], rolling).map(({ text }) => text);

describe('what is wrong at a device', () => {
  it.each<[string, Record<string, number>, boolean, string[]]>([
    ['nothing', { b: 80, m: 0, l: -20, r: 1, s: 300 }, true, []],
    ['a battery that is low', { b: 15 }, false, ['Receiver: battery of 1 at 15 %']],
    ['a mute', { m: 1 }, false, ['Receiver: muted of 1']],
    ['full scale', { l: -0.5 }, false, ['Receiver: level of 1 at full scale']],
    ['little room', { s: 12 }, false, ['Receiver: room for 12 min more']],
    ['a recorder that stands while nothing runs', { r: 0 }, false, []],
    ['a recorder that stands while a take runs', { r: 0 }, true, ['Receiver: does not roll']],
  ])('%s', (_case, values, rolling, expected) => expect(texts(values, rolling)).toEqual(expected));

  it('that it is gone says all', () => {
    expect(texts({ b: 3 }, true, 'lost')).toEqual(['Receiver: gone, nothing listens']);
    expect(texts({ b: 3 }, true, 'silent')).toEqual(['Receiver: connected, but nothing comes']);
    expect(deviceAlarms([{ ...device, on: false }], [state({}, 'lost')], true)).toEqual([]);
  });

  it('belongs to the candidate that the channels are tied to', () => {
    expect(deviceAlarms([device], [state({ m: 1 })], false)[0]?.candidateId).toBe(candidateId);
  });
});

describe('alarms that do not nag', () => {
  const muted = deviceAlarms([device], [state({ m: 1 })], false);
  it('are told once they last, and not for a fade', () => {
    const board = new AlarmBoard();
    expect(board.shown(muted, 0)).toEqual([]);
    expect(board.shown([], 500)).toEqual([]);
    expect(board.shown(muted, 5000)).toEqual([]);
    expect(board.shown(muted, 6000)).toEqual([]);
    expect(board.shown(muted, 7000)).toEqual(muted);
  });

  it('stay away once they were put away, until they were gone for a minute', () => {
    const board = new AlarmBoard();
    board.shown(muted, 0);
    expect(board.shown(muted, 2000)).toEqual(muted);
    board.putAway(muted[0]!.key);
    for (const nowMs of [3000, 30_000, 60_000]) expect(board.shown(muted, nowMs)).toEqual([]);
    expect(board.shown([], 121_000)).toEqual([]);
    expect(board.shown(muted, 122_000)).toEqual([]);
    expect(board.shown(muted, 124_000)).toEqual(muted);
  });
});
