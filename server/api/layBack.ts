import type { LayBack } from '@marvet/core/contract/beginning';
import { candidatesOf } from '@marvet/core/domain/take';
import type { Tables } from '../store/store.ts';
import { IsNull, inParts, present } from '../store/table.ts';
import { assignFile } from './assignFile.ts';
import { notFound } from './http.ts';

/**
 * Takes laying out back: its files lie in no take again, takes and candidates that it made go to the bin, and takes that were there have
 * their setups of before. A file that was put elsewhere since stays there, and so do a take that
 * other files lie in by now, and a candidate that other takes have.
 * @returns files whose stretches changed, and are to be measured
 */
export async function layBack(tables: Tables, trialId: string, { fileIds, takeIds, joined, candidateIds }: LayBack): Promise<string[]> {
  if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
  const laidIn = new Set([...takeIds, ...joined.map(({ takeId }) => takeId)]);
  const cut: string[] = [];
  for (const file of await inParts(fileIds, (part) => tables.files.findBy({ id: part, ...present(trialId) }))) {
    const rows = await tables.recordings.find({ select: { id: true, takeId: true }, where: { fileId: file.id } });
    if (!rows.every(({ takeId }) => takeId === null || laidIn.has(takeId))) continue;
    if (await assignFile(tables, file, { takeId: null, by: null, channels: [] })) cut.push(file.id);
  }
  const held = await inParts(takeIds, (part) => tables.recordings.find({ select: { id: true, takeId: true }, where: { takeId: part } }));
  const empty = takeIds.filter((id) => !held.some(({ takeId }) => takeId === id));
  const atMs = Date.now();
  await inParts(empty, async (part) => [await tables.takes.update({ id: part, trialId, binnedAtMs: IsNull() }, { binnedAtMs: atMs })]);
  for (const { takeId, setupIds } of joined) {
    const take = await tables.takes.findOneBy({ id: takeId, ...present(trialId) });
    if (take) await tables.takes.update(takeId, { setups: take.setups.filter(({ id }) => !setupIds.includes(id)) });
  }
  const used = new Set((await tables.takes.find({ select: { id: true, setups: true as never }, where: present(trialId) })).flatMap((take) => candidatesOf(take)));
  const spare = candidateIds.filter((id) => !used.has(id));
  await inParts(spare, async (part) => [await tables.chains.update({ id: part, trialId, binnedAtMs: IsNull() }, { binnedAtMs: atMs })]);
  return cut;
}
