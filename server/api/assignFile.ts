import type { MatchedBy } from '@marvet/core/domain/recording';
import type { AudioFileRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { present } from '../store/table.ts';
import { cutFiles } from './cuts.ts';
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
  for (const recording of await tables.recordings.find({ select: { id: true, channels: true }, where: { fileId: file.id } })) {
    const said = channels.find(({ channelIndex }) => channelIndex === recording.channels[0]);
    const named = said?.trackName === undefined ? {} : { trackName: said.trackName || null };
    await tables.recordings.update(recording.id, { takeId, matchedBy: takeId === null ? null : by, setupId: takeId === null ? null : (said?.setupId ?? null), ...named });
  }
  // A take in which something was switched has its stretches anew.
  return (await cutFiles(tables, [file])).length > 0;
}
