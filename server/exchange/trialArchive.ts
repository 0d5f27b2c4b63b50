import { idSchema, instantMsSchema, nameSchema, sha256Schema } from '@marvet/core/domain/identity';
import { z } from 'zod';
import { MIGRATIONS } from '../store/migrations/migrations.ts';

/** How records are laid out in an archive; it grows when what is there already is understood otherwise. */
export const ARCHIVE_VERSION = 1;
/** What the records of an archive are the records of: the schema of this program. */
export const SCHEMA = MIGRATIONS.length;

/** What an archive says of itself: `trial.json`. */
export const manifestSchema = z.object({
  format: z.literal('marvet trial', { error: 'It is no archive of a trial' }),
  version: z.number().int().positive(),
  /** The schema of the records: how many steps the database that they come from had gone. */
  schema: z.number().int().positive(),
  madeAtMs: instantMsSchema,
  trial: z.object({ id: idSchema, name: nameSchema }),
  /** Each kind of record with how many there are, and the SHA-256 of its file. */
  records: z.record(z.string().regex(/^[A-Za-z]{1,30}$/), z.object({ rows: z.number().int().nonnegative(), sha256: sha256Schema })),
  blobs: z.array(z.object({ sha256: sha256Schema, sizeBytes: z.number().int().nonnegative() })).max(200_000),
  /** Bytes that were missing where it was made. */
  missing: z.array(sha256Schema),
});
export type Manifest = z.infer<typeof manifestSchema>;
