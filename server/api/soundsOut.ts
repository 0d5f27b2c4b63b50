import { existsSync } from 'node:fs';
import { figuresCsv } from '@marvet/core/takes/figuresOut';
import { takenNames } from '@marvet/core/takes/takenName';
import { Hono } from 'hono';
import { type ZipPart, zipped } from '../exchange/zipped.ts';
import { present } from '../store/table.ts';
import { measuredOf } from './figuresOut.ts';
import { notFound, pathId, savedAs } from './http.ts';
import type { Services } from './services.ts';

/** The files of a trial as they came, in one ZIP, under names that say slate and candidate, with every figure beside them. */
export function soundsOutRoutes({ store, blobs }: Pick<Services, 'store' | 'blobs'>): Hono {
  return new Hono().get('/sounds.zip', async (context) => {
    const trialId = pathId(context, 'trial');
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial) throw notFound('trial');
    const select = { id: true, name: true, sha256: true, originalSha256: true, uploadedAtMs: true, modifiedAtMs: true } as const;
    const files = await store.files.find({ select, where: present(trialId), order: { uploadedAtMs: 'ASC', name: 'ASC' } });
    const takes = new Map((await store.takes.findBy(present(trialId))).map((take) => [take.id, take]));
    const chains = new Map((await store.chains.findBy({ trialId })).map((chain) => [chain.id, chain.tape.letters]));
    const tied = await store.recordings.find({ select: { id: true, fileId: true, takeId: true, setupId: true, channels: true }, where: { trialId } });
    const names = takenNames(
      files.map(({ id, name }) => {
        const own = tied.filter(({ fileId }) => fileId === id).sort((a, b) => (a.channels[0] ?? 0) - (b.channels[0] ?? 0));
        const of = [...new Set(own.map(({ takeId }) => takeId))].flatMap((takeId) => takes.get(takeId ?? '') ?? []);
        const tapes = own.flatMap(({ takeId, setupId }) => {
          const candidateId = takes.get(takeId ?? '')?.setups.find((setup) => setup.id === setupId)?.candidateId;
          return chains.get(candidateId ?? '') ?? [];
        });
        return { name, takes: of, tapes };
      }),
    );
    const missing: string[] = [];
    const parts = files.flatMap((file, index): ZipPart[] => {
      const path = blobs.pathOf(file.originalSha256 ?? file.sha256);
      if (existsSync(path)) return [{ path, name: names[index] as string, mtimeMs: file.modifiedAtMs ?? file.uploadedAtMs }];
      missing.push(file.name);
      return [];
    });
    const nowMs = Date.now();
    parts.push({ text: figuresCsv((await measuredOf(store, trialId)).rows), name: 'figures.csv', mtimeMs: nowMs });
    if (missing.length > 0) parts.push({ text: `The bytes of these files are missing from the data folder:\r\n${missing.join('\r\n')}\r\n`, name: 'MISSING.txt', mtimeMs: nowMs });
    const { body, sizeBytes } = await zipped(parts);
    return new Response(body, { headers: { 'Content-Type': 'application/zip', ...savedAs(`${trial.name}.zip`), 'Content-Length': String(sizeBytes) } });
  });
}
