import { createReadStream, existsSync } from 'node:fs';
import { Readable } from 'node:stream';
import { type CopyNames, namedCopy } from '@marvet/core/audio/namedCopy';
import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import { figuresCsv } from '@marvet/core/takes/figuresOut';
import { takenNames } from '@marvet/core/takes/takenName';
import { Hono } from 'hono';
import { withFileSource } from '../audio/fileSource.ts';
import { type ZipPart, zipped } from '../exchange/zipped.ts';
import type { AudioFileRow, RecordingRow, TrialRow } from '../store/records.ts';
import { present } from '../store/table.ts';
import { measuredOf } from './figuresOut.ts';
import { notFound, pathId, savedAs } from './http.ts';
import type { Services } from './services.ts';

type OutFile = Pick<AudioFileRow, 'id' | 'name' | 'sha256' | 'originalSha256' | 'uploadedAtMs' | 'modifiedAtMs' | 'format'>;
type Tied = Pick<RecordingRow, 'fileId' | 'takeId' | 'setupId' | 'channels'>;

/** The files of a trial in one ZIP, under names that say slate and candidate, with every figure beside them: as they came, or as copies that say so themselves. */
export function soundsOutRoutes({ store, blobs }: Pick<Services, 'store' | 'blobs'>): Hono {
  async function zipOf(trialId: string, partOf: (file: OutFile, path: string, names: CopyNames) => Omit<Extract<ZipPart, { read: unknown }>, 'name' | 'mtimeMs'> | null) {
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial) throw notFound('trial');
    const select = { id: true, name: true, sha256: true, originalSha256: true, uploadedAtMs: true, modifiedAtMs: true, format: true as never };
    const files = (await store.files.find({ select, where: present(trialId), order: { uploadedAtMs: 'ASC', name: 'ASC' } })) as OutFile[];
    const takes = new Map((await store.takes.findBy(present(trialId))).map((take) => [take.id, take]));
    const chains = new Map((await store.chains.findBy({ trialId })).map((chain) => [chain.id, chain]));
    const tied = await store.recordings.find({ select: { id: true, fileId: true, takeId: true, setupId: true, channels: true }, where: { trialId } });
    const uses = files.map((file) => useOf(file, tied, takes, chains));
    const names = takenNames(uses);
    const missing: string[] = [];
    const parts = files.flatMap((file, index): ZipPart[] => {
      const path = blobs.pathOf(file.originalSha256 ?? file.sha256);
      const own = { name: names[index] as string, mtimeMs: file.modifiedAtMs ?? file.uploadedAtMs };
      if (existsSync(path)) return [{ ...own, ...(partOf(file, path, writtenNames(trial, uses[index] as FileUse)) ?? { path }) }];
      missing.push(file.name);
      return [];
    });
    const nowMs = Date.now();
    parts.push({ text: figuresCsv((await measuredOf(store, trialId)).rows), name: 'figures.csv', mtimeMs: nowMs });
    if (missing.length > 0) parts.push({ text: `The bytes of these files are missing from the data folder:\r\n${missing.join('\r\n')}\r\n`, name: 'MISSING.txt', mtimeMs: nowMs });
    const { body, sizeBytes } = await zipped(parts);
    return new Response(body, { headers: { 'Content-Type': 'application/zip', ...savedAs(`${trial.name}.zip`), 'Content-Length': String(sizeBytes) } });
  }

  return (
    new Hono()
      /** To the last byte as they came. */
      .get('/sounds.zip', (context) => zipOf(pathId(context, 'trial'), () => null))
      /** WAVE files with slate, take and candidates written into bext and iXML; all others, and those over 4 GiB, as they came. */
      .get('/named.zip', (context) =>
        zipOf(pathId(context, 'trial'), ({ originalSha256 }, path, names) => {
          const copy = originalSha256 === null ? withFileSource(path, (source) => namedCopy(source, names)) : null;
          if (!copy) return null;
          const { head, dataOffset, dataBytes, padBytes } = copy;
          async function* bytes() {
            yield head;
            if (dataBytes > 0) yield* createReadStream(path, { start: dataOffset, end: dataOffset + dataBytes - 1 });
            if (padBytes) yield new Uint8Array(1);
          }
          return { read: () => Readable.from(bytes()), sizeBytes: head.byteLength + dataBytes + padBytes };
        }),
      )
  );
}

/** What a file is of: its takes, and the candidate of each of its channels. */
interface FileUse {
  name: string;
  takes: Take[];
  tapes: string[];
  trackNames: string[];
}

function useOf({ id, name, format }: OutFile, tied: readonly Tied[], takes: ReadonlyMap<string, Take>, chains: ReadonlyMap<string, Chain>): FileUse {
  const own = tied.filter(({ fileId }) => fileId === id).sort((a, b) => (a.channels[0] ?? 0) - (b.channels[0] ?? 0));
  const trackNames = format.trackNames.map(() => '');
  const tapes = own.flatMap(({ takeId, setupId, channels }) => {
    const candidateId = takes.get(takeId ?? '')?.setups.find((setup) => setup.id === setupId)?.candidateId;
    const chain = chains.get(candidateId ?? '');
    if (!chain) return [];
    for (const channel of channels) trackNames[channel] = `${chain.tape.letters} ${chain.name}`;
    return chain.tape.letters;
  });
  return { name, takes: [...new Set(own.map(({ takeId }) => takeId))].flatMap((takeId) => takes.get(takeId ?? '') ?? []), tapes, trackNames };
}

/** A file of several takes has no scene of its own: its note lists them. */
function writtenNames(trial: Pick<TrialRow, 'name'>, { takes, trackNames }: FileUse): CopyNames {
  const [only, ...others] = takes;
  const one = only && others.length === 0;
  const note = one ? only.note : takes.length > 0 ? `of slates ${takes.map(({ slate, pass }) => `${slate}/${pass}`).join(', ')}` : '';
  return { project: trial.name, scene: one ? String(only.slate) : '', take: one ? String(only.pass) : '', note, trackNames };
}
