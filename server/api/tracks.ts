import type { Device } from '@marvet/core/domain/device';
import type { LogLine } from '@marvet/core/domain/logLine';
import type { ReadingSecond } from '@marvet/core/domain/reading';
import type { Take } from '@marvet/core/domain/take';
import type { TrackPoint } from '@marvet/core/domain/walk';
import { type WalkTrack, walkTrack } from '@marvet/core/radio/walkTrack';
import type { ReadTables } from '../store/store.ts';
import { present } from '../store/table.ts';

/** Where somebody was a little before and after still says where they were at the ends. */
const AROUND_S = 15;

type Timed = Pick<Take, 'id' | 'startedAtMs' | 'stoppedAtMs' | 'walk'>;

/** Seconds of a device between two moments. */
export async function secondsBetween(store: Pick<ReadTables, 'query'>, deviceId: string, fromS: number, toS: number): Promise<Pick<ReadingSecond, 'atS' | 'values'>[]> {
  const rows = await store.query<{ atS: number; values: string }>(`SELECT "atS", "values" FROM "reading" WHERE "deviceId" = ? AND "atS" BETWEEN ? AND ? ORDER BY "atS"`, [
    deviceId,
    Math.floor(fromS),
    Math.ceil(toS),
  ]);
  return rows.map(({ atS, values }) => ({ atS, values: JSON.parse(values) as ReadingSecond['values'] }));
}

/** The ways of takes, from what the phone or a file said, else from a device that tells positions and is tied to no station. */
export async function tracksOf(store: Pick<ReadTables, 'query' | 'devices'>, trialId: string, takes: readonly Timed[]): Promise<Map<string, WalkTrack>> {
  const said = await positionsSaid(store, trialId);
  const devices = (await store.devices.findBy(present(trialId))).filter(carried);
  const tracks = new Map<string, WalkTrack>();
  for (const take of takes) {
    const track = walkTrack(said.get(take.id) ?? (await positionsRead(store, devices, take)), take.walk);
    if (track) tracks.set(take.id, track);
  }
  return tracks;
}

const channelOf = (device: Pick<Device, 'about'>, quantity: 'latitudeDeg' | 'longitudeDeg') => device.about?.channels.find((channel) => channel.quantity === quantity)?.id;
const carried = (device: Device) => channelOf(device, 'latitudeDeg') !== undefined && device.ties.every(({ stationId }) => stationId === null);

/** What the phone or a file said, by take, without what was taken back. */
export async function positionsSaid(store: Pick<ReadTables, 'query'>, trialId: string): Promise<Map<string, TrackPoint[]>> {
  const rows = await store.query<{ takeId: string; line: string }>(
    `SELECT "takeId", "line" FROM "log_line" WHERE "trialId" = ? AND json_extract("line", '$.kind') IN ('positions', 'unpositions') ORDER BY "atMs"`,
    [trialId],
  );
  const points = new Map<string, TrackPoint[]>();
  for (const { takeId, line } of rows) {
    const said = JSON.parse(line) as Extract<LogLine, { kind: 'positions' | 'unpositions' }>;
    if (said.kind === 'unpositions') points.delete(takeId);
    else points.set(takeId, [...(points.get(takeId) ?? []), ...said.points]);
  }
  return points;
}

async function positionsRead(store: Pick<ReadTables, 'query'>, devices: readonly Device[], { startedAtMs, stoppedAtMs }: Timed): Promise<TrackPoint[]> {
  if (startedAtMs === null) return [];
  for (const device of devices) {
    const [latitude, longitude] = [channelOf(device, 'latitudeDeg') as string, channelOf(device, 'longitudeDeg') ?? ''];
    const seconds = await secondsBetween(store, device.id, startedAtMs / 1000 - AROUND_S, (stoppedAtMs ?? Date.now()) / 1000 + AROUND_S);
    const points = seconds.flatMap(({ atS, values }): TrackPoint[] => {
      const [north, east] = [values[latitude], values[longitude]];
      return north && east ? [{ atMs: atS * 1000 + 500, latitudeDeg: north[1] / north[3], longitudeDeg: east[1] / east[3], accuracyM: null }] : [];
    });
    if (points.length > 0) return points;
  }
  return [];
}
