import { grouped } from '@marvet/core/domain/grouped';
import { newId } from '@marvet/core/domain/identity';
import { isPart, type MatchedBy } from '@marvet/core/domain/recording';
import { marksOn } from '@marvet/core/takes/stretchMarks';
import type { AudioFileRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { present } from '../store/table.ts';
import { cutFiles, letGo, type Placed, placedRows, UNMEASURED } from './cuts.ts';
import { ApiError, notFound } from './http.ts';

/** What becomes of a channel of a file. */
export interface ChannelTie {
  channelIndex: number;
  setupId: string | null;
  /** A name in place of its own; left out, it stays. */
  trackName?: string | undefined;
}

/**
 * Ties the recordings of a file to a take and to setups of that take, or to none. A channel that is not named is tied to the take
 * only.
 * @returns whether stretches of it changed, so that it has to be measured
 * @throws ApiError 404 where there is no such take, 422 where a setup is not in it
 */
export async function assignFile(
  tables: Tables,
  file: Pick<AudioFileRow, 'id' | 'trialId' | 'format'>,
  { takeId, by, channels }: { takeId: string | null; by: MatchedBy | null; channels: readonly ChannelTie[] },
): Promise<boolean> {
  const take = takeId === null ? null : await tables.takes.findOneBy({ id: takeId, ...present(file.trialId) });
  if (takeId !== null && !take) throw notFound('take');
  const strange = channels.find(({ setupId }) => setupId !== null && !take?.setups.some((setup) => setup.id === setupId));
  if (strange) throw new ApiError(422, 'invalid', `Channel ${strange.channelIndex + 1}: that candidate is not in this take`, { channels: 'Choose candidates of the take' });
  await joinParts(tables, file.id);
  for (const recording of await tables.recordings.find({ select: { id: true, channels: true }, where: { fileId: file.id } })) {
    const said = channels.find(({ channelIndex }) => channelIndex === recording.channels[0]);
    const named = said?.trackName === undefined ? {} : { trackName: said.trackName || null };
    await tables.recordings.update(recording.id, { takeId, matchedBy: takeId === null ? null : by, setupId: takeId === null ? null : (said?.setupId ?? null), ...named });
  }
  // A take in which something was switched has its stretches anew.
  return (await cutFiles(tables, [file])).length > 0;
}

/** A part of a file that is of a take. */
export interface FileCut {
  takeId: string;
  startS: number;
  endS: number;
  logStartS: number | null;
  cutBy: 'log' | 'passage';
  channels: readonly ChannelTie[];
}

/**
 * Cuts a file that ran on about several takes: each channel has a recording of each. What is marked goes with the part that it lies in.
 * @throws ApiError 404 where there is no such take, 422 where a part lies outside of the file, or two overlap
 */
export async function assignCuts(tables: Tables, file: Pick<AudioFileRow, 'id' | 'trialId' | 'format'>, cuts: readonly FileCut[], by: MatchedBy | null): Promise<void> {
  const inOrder = [...cuts].sort((a, b) => a.startS - b.startS);
  for (const [index, { endS, takeId }] of inOrder.entries()) {
    if (!(await tables.takes.existsBy({ id: takeId, ...present(file.trialId) }))) throw notFound('take');
    if (endS > file.format.durationS + 1e-6) throw new ApiError(422, 'invalid', `The file ends at ${file.format.durationS.toFixed(2)} s`, { cuts: 'A part ends after the file' });
    if (inOrder.some((other, place) => place < index && other.takeId === takeId))
      throw new ApiError(422, 'invalid', 'Two parts are of one take. What was said again is a take of its own: choose another, or join the two', { cuts: 'A take has two parts' });
    const next = inOrder[index + 1];
    if (next && next.startS < endS) throw new ApiError(422, 'invalid', `Two parts overlap at ${next.startS.toFixed(2)} s`, { cuts: 'Two parts overlap' });
  }
  const rows = await placedRows(tables, file.id);
  for (const own of grouped(rows, ({ channels }) => String(channels)).values()) {
    refuseLostMarks(own, inOrder);
    const left = [...own];
    const [pattern] = own as [Placed];
    for (const { takeId, startS, endS, logStartS, cutBy, channels } of inOrder) {
      const setupId = channels.find(({ channelIndex }) => channelIndex === pattern.channels[0])?.setupId ?? null;
      const place = { takeId, setupId, matchedBy: by, startS, endS, logStartS, cutBy };
      const fresh = { ...place, ...UNMEASURED, ...marksOn(own, startS, endS) };
      const [row] = left.splice(
        Math.max(
          0,
          left.findIndex((each) => each.takeId === takeId),
        ),
        1,
      );
      if (row) await tables.recordings.update(row.id, fresh);
      else await tables.recordings.insert({ ...pattern, ...fresh, id: newId() });
    }
    for (const row of left) await letGo(tables, row);
  }
  await cutFiles(tables, [file]);
}

/** A file that was cut about takes is one again, each channel in its first recording. */
async function joinParts(tables: Tables, fileId: string): Promise<void> {
  const rows = await placedRows(tables, fileId);
  if (!rows.some(({ cutBy }) => isPart(cutBy))) return;
  for (const own of grouped(rows, ({ channels }) => String(channels)).values()) {
    const [first, ...others] = own.sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0)) as [Placed, ...Placed[]];
    await tables.recordings.update(first.id, { startS: null, endS: null, cutBy: null, logStartS: null, ...UNMEASURED, ...marksOn(own, null, null) });
    for (const row of others) await letGo(tables, row);
  }
}

/** @throws ApiError 409 where something was marked that lies in no part, and would be gone */
function refuseLostMarks(rows: readonly Placed[], cuts: readonly FileCut[]): void {
  for (const { startS, corrections, roomTone, performance } of rows) {
    const fromS = startS ?? 0;
    const events = corrections.flatMap(({ was, now }) => now ?? was ?? []).map((event): [number, number] => [event.startS, event.startS]);
    const lost = [...events, roomTone, performance].find((span) => span && !cuts.some((cut) => span[0] + fromS >= cut.startS && span[1] + fromS <= cut.endS));
    if (lost) throw new ApiError(409, 'marked', `At ${(lost[0] + fromS).toFixed(1)} s of the file something was marked that lies in none of the takes. Take the mark back first.`);
  }
}
