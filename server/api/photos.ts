import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { newId } from '@marvet/core/domain/identity';
import { imageType, LARGEST_PHOTO_BYTES, type Photo, photoDraftSchema, photoOwnerSchema } from '@marvet/core/domain/photo';
import { type Context, Hono } from 'hono';
import { webStream } from '../audio/webStream.ts';
import { guestOf } from './guestOf.ts';
import { ApiError, notFound, parsed, pathId } from './http.ts';
import type { Services } from './services.ts';

/** Photographs of items, stations and rigs: listed by owner (those in the bin marked), brought in, shown, binned and brought back. */
export function photoRoutes({ store, blobs }: Pick<Services, 'store' | 'blobs'>): Hono {
  /** What a device that was let in may see: photographs of takes and placements of its own trial. This computer sees all. */
  async function shownTo<Owned extends Pick<Photo, 'ownerKind' | 'ownerId'>>(context: Context, photos: Owned[]): Promise<Owned[]> {
    const guest = guestOf(context);
    if (!guest) return photos;
    const here = { select: { id: true }, where: { trialId: guest.trialId } } as const;
    const own = { take: new Set((await store.takes.find(here)).map(({ id }) => id)), placement: new Set((await store.placements.find(here)).map(({ id }) => id)) };
    return photos.filter(({ ownerKind, ownerId }) => (ownerKind === 'take' || ownerKind === 'placement') && own[ownerKind].has(ownerId));
  }
  async function shown(context: Context) {
    const photo = await store.photos.findOneBy({ id: pathId(context, 'id') });
    if (!photo || (await shownTo(context, [photo])).length === 0) throw notFound('photograph');
    return photo;
  }
  const setBinned = async (context: Context, binnedAtMs: number | null) => {
    const { id } = await shown(context);
    await store.write((tables) => tables.photos.update({ id }, { binnedAtMs }));
  };
  return new Hono()
    .get('/', async (context) => {
      const ownerKind = parsed(photoOwnerSchema, context.req.query('ownerKind'));
      const photos = await shownTo(context, await store.photos.find({ where: { ownerKind }, order: { addedAtMs: 'ASC' } }));
      return context.json(photos.map(({ sha256: _bytes, ...photo }) => photo));
    })
    .post('/', async (context) => {
      const draft = parsed(photoDraftSchema, context.req.query());
      const owners = { item: store.items, station: store.stations, chain: store.chains, sight: store.sights, frame: store.frames, take: store.takes, placement: store.placements };
      if (!(await (owners[draft.ownerKind] as typeof store.items).existsBy({ id: draft.ownerId }))) throw notFound(draft.ownerKind);
      if ((await shownTo(context, [draft])).length === 0) throw notFound(draft.ownerKind);
      const bytes = new Uint8Array(await context.req.arrayBuffer());
      const type = imageType(bytes);
      if (!type) throw new ApiError(422, 'not-image', 'That is no JPEG, PNG or WebP image. Choose a photograph');
      if (bytes.byteLength > LARGEST_PHOTO_BYTES) throw new ApiError(413, 'too-large', 'The photograph is larger than 2 MiB. Make it smaller first');
      const staged = await blobs.stage(Readable.from([bytes]));
      const photo = { ...draft, id: newId(), type, addedAtMs: Date.now(), binnedAtMs: null };
      await store.write(async (tables) => tables.photos.insert({ ...photo, sha256: (await staged.keep()).sha256 }));
      return context.json(photo, 201);
    })
    .get('/:id', async (context) => {
      const photo = await shown(context);
      const stream = webStream(createReadStream(blobs.pathOf(photo.sha256)));
      return context.body(stream, 200, { 'Content-Type': photo.type, 'Cache-Control': 'private, max-age=31536000, immutable' });
    })
    .delete('/:id', async (context) => {
      await setBinned(context, Date.now());
      return context.body(null, 204);
    })
    .post('/:id/restore', async (context) => {
      await setBinned(context, null);
      return context.body(null, 204);
    });
}
