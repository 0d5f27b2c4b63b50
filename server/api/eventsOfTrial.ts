import { type EventsTold, eventsTold } from '@marvet/core/decide/eventsTold';
import { usableRecordings, type VerdictInput } from '@marvet/core/decide/usableRecordings';
import type { Correction } from '@marvet/core/domain/correction';
import { shownEvents } from '@marvet/core/measure/events/corrected';
import type { AudioEvent } from '@marvet/core/measure/report.types';
import type { ReadTables } from '../store/store.ts';

interface Row {
  id: string;
  lengthS: number;
  corrections: string;
  events: string;
}

const EVENTS = `SELECT r."id", COALESCE(r."endS", json_extract(f."format", '$.durationS')) - COALESCE(r."startS", 0) AS "lengthS",
  r."corrections", json_extract(r."report", '$.events') AS "events"
  FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" WHERE r."trialId" = ? AND r."report" IS NOT NULL`;

/** What was found in the recordings that the verdict of a trial rests on, by candidate, as it was corrected. */
export async function eventsOfTrial(store: ReadTables, trialId: string, input: VerdictInput): Promise<EventsTold[]> {
  const rows = new Map((await store.query<Row>(EVENTS, [trialId])).map((row) => [row.id, row]));
  const heard = usableRecordings(input, []).flatMap(({ recording, take, setup }) => {
    const row = rows.get(recording.id);
    if (!row) return [];
    const events = shownEvents(JSON.parse(row.events) as AudioEvent[], JSON.parse(row.corrections) as Correction[]);
    return [{ candidateId: setup.candidateId, recordingId: recording.id, takeId: take.id, lengthS: row.lengthS, events }];
  });
  return eventsTold(
    heard,
    input.candidates.map(({ id }) => id),
  );
}
