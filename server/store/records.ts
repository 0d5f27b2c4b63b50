import type { MeasuredAgainst, SecondChannel } from '@marvet/core/contract/recordings';
import { captureSchema } from '@marvet/core/domain/capture';
import { chainSchema } from '@marvet/core/domain/chain';
import { criterionSchema, markSchema } from '@marvet/core/domain/criterion';
import { deviceSchema } from '@marvet/core/domain/device';
import { frameSchema } from '@marvet/core/domain/frame';
import { guestSchema } from '@marvet/core/domain/guest';
import { idSchema, instantMsSchema } from '@marvet/core/domain/identity';
import { itemSchema } from '@marvet/core/domain/item';
import { jobSchema } from '@marvet/core/domain/job';
import { type LogLine, logLineSchema } from '@marvet/core/domain/logLine';
import { momentSchema } from '@marvet/core/domain/moment';
import { photoSchema } from '@marvet/core/domain/photo';
import { placementSchema } from '@marvet/core/domain/placement';
import { planSchema } from '@marvet/core/domain/plan';
import { preflightRowSchema } from '@marvet/core/domain/preflight';
import { readingSecondSchema } from '@marvet/core/domain/reading';
import { recorderSchema } from '@marvet/core/domain/recorder';
import { audioFileSchema, recordingSchema } from '@marvet/core/domain/recording';
import { rigRecordSchema } from '@marvet/core/domain/rigRecord';
import { choiceSchema, listenerSchema, ratingSchema, roundSchema } from '@marvet/core/domain/round';
import { scriptSchema } from '@marvet/core/domain/script';
import { sightSchema } from '@marvet/core/domain/sight';
import { stationSchema } from '@marvet/core/domain/station';
import { takeSchema } from '@marvet/core/domain/take';
import { expectationSchema, trialSchema } from '@marvet/core/domain/trial';
import { voiceNoteSchema } from '@marvet/core/domain/voiceNote';
import { wearerSchema } from '@marvet/core/domain/wearer';
import type { ChannelReport, FileReport, LevelSeries } from '@marvet/core/measure/report.types';
import { EntitySchema } from 'typeorm';
import { z } from 'zod';
import { columnsOf } from './columns.ts';

/** What the server measured itself is not checked again when it is read. */
const measured = <Value>() => z.custom<Value>((value) => typeof value === 'object');

/**
 * Every table by its record: one description, from which columns, reading and writing follow. A new
 * field is added to the record's schema in core/domain, and to a migration.
 */
export const RECORDS = {
  trials: { table: 'trial', schema: trialSchema, keys: ['id'] },
  expectations: { table: 'expectation', schema: expectationSchema, keys: ['trialId', 'person'] },
  preflight: { table: 'preflight', schema: preflightRowSchema, keys: ['trialId', 'key'] },
  photos: { table: 'photo', schema: photoSchema, keys: ['id'] },
  criteria: { table: 'criterion', schema: criterionSchema, keys: ['id'] },
  marks: { table: 'mark', schema: markSchema, keys: ['chainId', 'criterionId'] },
  items: { table: 'item', schema: itemSchema, keys: ['id'] },
  chains: { table: 'chain', schema: chainSchema, keys: ['id'] },
  stations: { table: 'station', schema: stationSchema, keys: ['id'] },
  placements: { table: 'placement', schema: placementSchema, keys: ['id'] },
  rigs: { table: 'rig', schema: rigRecordSchema, keys: ['id'] },
  frames: { table: 'frame', schema: frameSchema, keys: ['id'] },
  wearers: { table: 'wearer', schema: wearerSchema, keys: ['id'] },
  sights: { table: 'sight', schema: sightSchema, keys: ['id'] },
  scripts: { table: 'script', schema: scriptSchema, keys: ['id'] },
  plans: { table: 'plan', schema: planSchema, keys: ['trialId'] },
  takes: { table: 'take', schema: takeSchema, keys: ['id'] },
  logLines: {
    table: 'log_line',
    schema: z.object({
      id: idSchema,
      trialId: idSchema,
      takeId: idSchema,
      atMs: instantMsSchema,
      receivedAtMs: instantMsSchema,
      writer: z.string().nullable(),
      clockBehindMs: z.number().int().nullable(),
      line: logLineSchema as z.ZodType<LogLine>,
    }),
    keys: ['id'],
  },
  files: { table: 'audio_file', schema: audioFileSchema.extend({ programme: measured<FileReport['programme']>().nullable() }), keys: ['id'] },
  recordings: {
    table: 'recording',
    schema: recordingSchema.extend({
      /** The few figures that tables show, kept apart so that thousands are read quickly. */
      shown: z.array(z.number().nullable()).nullable(),
      report: measured<ChannelReport>().nullable(),
      series: measured<LevelSeries>().nullable(),
      /** The second channel of a stereo recording, by itself. */
      second: measured<SecondChannel>().nullable(),
      against: measured<MeasuredAgainst>().nullable(),
    }),
    keys: ['id'],
  },
  recorders: { table: 'recorder', schema: recorderSchema, keys: ['trialId', 'name'] },
  rounds: { table: 'round', schema: roundSchema, keys: ['id'] },
  listeners: { table: 'listener', schema: listenerSchema, keys: ['id'] },
  ratings: { table: 'rating', schema: ratingSchema, keys: ['listenerId', 'letter', 'criterionId'] },
  choices: { table: 'choice', schema: choiceSchema, keys: ['listenerId', 'number'] },
  moments: { table: 'moment', schema: momentSchema, keys: ['id'] },
  devices: { table: 'device', schema: deviceSchema, keys: ['id'] },
  readings: { table: 'reading', schema: readingSecondSchema, keys: ['deviceId', 'atS'] },
  guests: { table: 'guest', schema: guestSchema, keys: ['id'] },
  captures: { table: 'capture', schema: captureSchema, keys: ['id'] },
  voiceNotes: { table: 'voice_note', schema: voiceNoteSchema, keys: ['id'] },
  jobs: { table: 'job', schema: jobSchema, keys: ['id'] },
} as const satisfies Record<string, { table: string; schema: z.ZodObject; keys: readonly string[] }>;

export type RecordName = keyof typeof RECORDS;
/** A row of a table, JSON already parsed. */
export type Row<Name extends RecordName> = z.output<(typeof RECORDS)[Name]['schema']>;

export type TrialRow = Row<'trials'>;
export type PlanRow = Row<'plans'>;
export type AudioFileRow = Row<'files'>;
export type RecordingRow = Row<'recordings'>;
export type RoundRow = Row<'rounds'>;
export type ListenerRow = Row<'listeners'>;
export type RecorderRow = Row<'recorders'>;
export type GuestRow = Row<'guests'>;
export type CaptureRow = Row<'captures'>;
export type JobRow = Row<'jobs'>;

/** Entities for the mapper, in the order of {@link RECORDS}. */
export const ENTITIES = Object.fromEntries(
  Object.entries(RECORDS).map(([name, { table, schema, keys }]) => [
    name,
    new EntitySchema({ name: table, columns: columnsOf(table, schema.shape as Record<string, z.ZodType>, keys) as never }),
  ]),
) as unknown as { [Name in RecordName]: EntitySchema<Row<Name>> };
