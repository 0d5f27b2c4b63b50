import { thinnedTogether } from '@marvet/core/domain/reading';
import type { Store, Tables } from '../store/store.ts';
import { In } from '../store/table.ts';
import type { Intake, Unwritten } from './intake.ts';

interface Kept {
  trialId: string;
  intake: Intake;
}

/**
 * Writes what all devices told, in one transaction; what cannot be written is kept for the next time. Never rejects.
 * @param onRenewed a device of this trial said something new of itself, and that is written
 */
export async function keepReadings(store: Pick<Store, 'write'>, from: readonly Kept[], onRenewed: (trialId: string) => void): Promise<void> {
  const parts = from.flatMap(({ trialId, intake }) => {
    const out = intake.unwritten();
    return out ? [{ trialId, intake, out }] : [];
  });
  if (parts.length === 0) return;
  try {
    await store.write(async (tables) => {
      const known = await tables.devices.find({ select: { id: true }, where: { id: In(parts.map(({ intake }) => intake.deviceId)) } });
      const here = new Set(known.map(({ id }) => id));
      for (const { trialId, intake, out } of parts) if (here.has(intake.deviceId)) await keepOne(tables, trialId, intake.deviceId, out);
    });
    for (const { intake, out } of parts) intake.written(out);
    for (const trialId of new Set(parts.filter(({ out }) => out.renewed).map((part) => part.trialId))) onRenewed(trialId);
  } catch (error) {
    for (const { intake, out } of parts) intake.notWritten(out, (error as Error).message);
  }
}

async function keepOne(tables: Tables, trialId: string, deviceId: string, { seconds, about }: Unwritten): Promise<void> {
  const known = await tables.readings.findBy({ deviceId, atS: In([...seconds.keys()]) });
  const before = new Map(known.map((row) => [row.atS, row.values]));
  const rows = [...seconds].map(([atS, values]) => {
    const merged = { ...before.get(atS) };
    for (const [id, thinned] of Object.entries(values)) merged[id] = thinnedTogether(merged[id], thinned);
    return { deviceId, trialId, atS, values: merged };
  });
  for (let start = 0; start < rows.length; start += 100) await tables.readings.upsert(rows.slice(start, start + 100), ['deviceId', 'atS']);
  await tables.devices.update(deviceId, { about });
}
