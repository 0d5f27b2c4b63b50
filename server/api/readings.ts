import type { TakeReadings } from '@marvet/core/contract/field';
import { slateLabel } from '@marvet/core/domain/take';
import { toGpx, trackToCsv } from '@marvet/core/formats/trackPoints';
import { readingSeries } from '@marvet/core/radio/readingSeries';
import { Hono } from 'hono';
import type { Store } from '../store/store.ts';
import { present } from '../store/table.ts';
import { download, notFound, pathId } from './http.ts';
import { positionsSaid, secondsBetween, tracksOf } from './tracks.ts';

/** What devices told while a take ran, and the way of whoever walked, to look at and to take away. */
export function readingRoutes(store: Store): Hono {
  async function takeOf(trialId: string, id: string) {
    const take = await store.takes.findOneBy({ id, ...present(trialId) });
    if (!take) throw notFound('take');
    return { take, track: (await tracksOf(store, trialId, [take])).get(id) ?? null };
  }
  return new Hono()
    .get('/:take', async (context) => {
      const { take, track } = await takeOf(pathId(context, 'trial'), pathId(context, 'take'));
      const { startedAtMs, stoppedAtMs } = take;
      const devices: TakeReadings['devices'] = [];
      if (startedAtMs !== null) {
        for (const device of await store.devices.find({ where: present(take.trialId), order: { position: 'ASC' } })) {
          const seconds = await secondsBetween(store, device.id, startedAtMs / 1000, (stoppedAtMs ?? Date.now()) / 1000);
          const channels = readingSeries(device.about?.channels ?? [], seconds);
          if (channels.length > 0) devices.push({ deviceId: device.id, name: device.name, channels });
        }
      }
      const trackSaid = (await positionsSaid(store, take.trialId)).has(take.id);
      return context.json({ devices, track, trackSaid } satisfies TakeReadings);
    })
    .get('/:take/track.gpx', async (context) => {
      const { take, track } = await takeOf(pathId(context, 'trial'), pathId(context, 'take'));
      if (!track) throw notFound('track');
      return download(context, `track ${fileLabel(take)}.gpx`, 'application/gpx+xml', toGpx(`Take ${slateLabel(take)}`, track.points));
    })
    .get('/:take/track.csv', async (context) => {
      const { take, track } = await takeOf(pathId(context, 'trial'), pathId(context, 'take'));
      if (!track) throw notFound('track');
      return download(context, `track ${fileLabel(take)}.csv`, 'text/csv', trackToCsv(track.points));
    });
}

const fileLabel = (take: Parameters<typeof slateLabel>[0]) => slateLabel(take).replace('/', '-');
