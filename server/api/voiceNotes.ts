import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { idSchema } from '@marvet/core/domain/identity';
import { LONGEST_VOICE_NOTE_S, voiceType } from '@marvet/core/domain/voiceNote';
import { Hono } from 'hono';
import { z } from 'zod';
import { webStream } from '../audio/webStream.ts';
import { present } from '../store/table.ts';
import { ApiError, notFound, parsed, pathId } from './http.ts';
import type { Services } from './services.ts';

const draftSchema = z.object({
  /** Made where the note was spoken, so that one that is sent twice counts once. */
  id: idSchema,
  takeId: idSchema,
  lengthS: z.coerce
    .number()
    .min(0, 'A note lasts 0 s or more')
    .max(LONGEST_VOICE_NOTE_S + 5, `A note lasts at most ${LONGEST_VOICE_NOTE_S} s`),
});

/** Notes that were spoken at takes: listed (those in the bin marked), brought in, heard, binned and brought back. */
export function voiceNoteRoutes({ store, blobs }: Pick<Services, 'store' | 'blobs'>): Hono {
  const setBinned = async (where: { id: string; trialId: string }, binnedAtMs: number | null) => {
    const { affected } = await store.write((tables) => tables.voiceNotes.update(where, { binnedAtMs }));
    if (!affected) throw notFound('voice note');
  };
  return new Hono()
    .get('/', async (context) => {
      const notes = await store.voiceNotes.find({ where: { trialId: pathId(context, 'trial') }, order: { addedAtMs: 'ASC' } });
      return context.json(notes.map(({ sha256: _bytes, ...note }) => note));
    })
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const { id, takeId, lengthS } = parsed(draftSchema, context.req.query());
      if (!(await store.takes.existsBy({ id: takeId, ...present(trialId) }))) throw notFound('take');
      const known = await store.voiceNotes.findOneBy({ id, trialId });
      if (known) return context.json({ id });
      const bytes = new Uint8Array(await context.req.arrayBuffer());
      const type = voiceType(bytes);
      if (!type) throw new ApiError(422, 'not-sound', 'That is no sound that a browser records. Record the note again');
      const staged = await blobs.stage(Readable.from([bytes]));
      const note = { id, trialId, takeId, type, lengthS, addedAtMs: Date.now(), binnedAtMs: null };
      await store.write(async (tables) => tables.voiceNotes.insert({ ...note, sha256: (await staged.keep()).sha256 }));
      return context.json(note, 201);
    })
    .get('/:id', async (context) => {
      const note = await store.voiceNotes.findOneBy({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') });
      if (!note) throw notFound('voice note');
      const stream = webStream(createReadStream(blobs.pathOf(note.sha256)));
      return context.body(stream, 200, { 'Content-Type': note.type, 'Cache-Control': 'private, max-age=31536000, immutable' });
    })
    .delete('/:id', async (context) => {
      await setBinned({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') }, Date.now());
      return context.body(null, 204);
    })
    .post('/:id/restore', async (context) => {
      await setBinned({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') }, null);
      return context.body(null, 204);
    });
}
