import type { LaidOut, LayOut, MomentPart } from '@marvet/core/contract/beginning';
import { chainDraftSchema, type StoredChain } from '@marvet/core/domain/chain';
import { UNKNOWN_CONDITION } from '@marvet/core/domain/factor';
import { grouped } from '@marvet/core/domain/grouped';
import { newId } from '@marvet/core/domain/identity';
import { type Take, untouchedTake } from '@marvet/core/domain/take';
import { nextTape } from '@marvet/core/domain/tape';
import type { Tables } from '../store/store.ts';
import { present } from '../store/table.ts';
import { assignCuts, assignFile } from './assignFile.ts';
import { ApiError, changedMeanwhile, notFound } from './http.ts';
import { filesOfTrial, type LooseFile, momentStartMs } from './looseFiles.ts';

/**
 * Makes candidates of microphones and takes of moments, or adds them to takes that are there, and ties the files to them.
 * @throws ApiError 409 where a file was put into a take meanwhile, 422 where a microphone stands twice in a take, or is in it already
 */
export async function layOut(tables: Tables, trialId: string, { moments, channels }: LayOut): Promise<{ laid: LaidOut; cut: string[] }> {
  if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
  const files = new Map((await filesOfTrial(tables, trialId)).loose.map((file) => [file.id, file]));
  const fileOf = (fileId: string) => {
    const file = files.get(fileId);
    if (!file) throw changedMeanwhile('list of recordings', { fileId });
    return file;
  };
  for (const { fileId } of [...moments.flatMap(({ parts }) => parts), ...channels]) fileOf(fileId);
  const byFile = grouped(channels, ({ fileId }) => fileId);
  const { found: candidateOf, madeIds } = await candidates(tables, trialId, [...new Set(channels.flatMap(({ microphone }) => microphone ?? []))]);
  const [highest] = await tables.query<{ slate: number | null; position: number | null }>(
    'SELECT MAX("slate") AS "slate", MAX("position") AS "position" FROM "take" WHERE "trialId" = ?',
    [trialId],
  );
  const made: Take[] = [];
  const joined: Take[] = [];
  const given: LaidOut['back']['joined'] = [];
  const cuts = new Map<string, { part: MomentPart; take: Take; channels: { channelIndex: number; setupId: string | null }[] }[]>();
  for (const { takeId, parts } of moments) {
    const heard = parts.flatMap(({ fileId }) =>
      (byFile.get(fileId) ?? []).flatMap(({ microphone, channelIndex }) => (microphone === null ? [] : [{ fileId, channelIndex, microphone }])),
    );
    if (heard.length === 0) continue;
    const there = takeId === null ? null : await tables.takes.findOneBy({ id: takeId, ...present(trialId) });
    if (takeId !== null && !there) throw notFound('take');
    const slate = there?.slate ?? (highest?.slate ?? 0) + made.length + 1;
    refuseTwice(heard, slate, (fileId) => fileOf(fileId).name);
    const setups = heard.map(({ microphone }) => ({ id: newId(), candidateId: candidateOf.get(microphone) as string, levels: {} }));
    refuseThere(there, heard, setups, (fileId) => fileOf(fileId).name);
    const startsMs = momentStartMs(parts, files);
    const timed = startsMs === null ? {} : { startedAtMs: startsMs, stoppedAtMs: startsMs + Math.round(1000 * longestS(parts, files)) };
    const fresh = { id: newId(), trialId, slate, position: (highest?.position ?? -1) + made.length + 1, condition: UNKNOWN_CONDITION, setups };
    const take: Take = there ? { ...there, setups: [...there.setups, ...setups] } : { ...untouchedTake(fresh), status: 'done', ...timed };
    (there ? joined : made).push(take);
    if (there) given.push({ takeId: there.id, setupIds: setups.map(({ id }) => id) });
    for (const part of parts) {
      const ties = (byFile.get(part.fileId) ?? []).map(({ channelIndex }) => {
        const place = heard.findIndex((each) => each.fileId === part.fileId && each.channelIndex === channelIndex);
        return { channelIndex, setupId: setups[place]?.id ?? null };
      });
      cuts.set(part.fileId, [...(cuts.get(part.fileId) ?? []), { part, take, channels: ties }]);
    }
  }
  const takes = [...joined, ...made];
  for (const { id, setups } of joined) await tables.takes.update(id, { setups });
  await tables.takes.insert(made);
  const cut: string[] = [];
  for (const [fileId, own] of cuts) {
    const file = fileOf(fileId);
    const [first] = own as [(typeof own)[number]];
    const inOne = ({ takeId, parts }: LayOut['moments'][number]) => (takeId !== null || parts.length > 1) && parts.some((part) => part.fileId === fileId);
    const by = own.length > 1 || moments.some(inOne) ? ('sound' as const) : ('hand' as const);
    if (own.length === 1 && first.part.startS === null && first.part.endS === null) {
      if (await assignFile(tables, file, { takeId: first.take.id, by, channels: first.channels })) cut.push(fileId);
      continue;
    }
    const spans = own.map(({ part, take, channels: ties }) => ({
      takeId: take.id,
      startS: part.startS ?? 0,
      endS: part.endS ?? file.format.durationS,
      logStartS: null,
      cutBy: 'log' as const,
      channels: ties,
    }));
    await assignCuts(tables, file, spans, by);
    cut.push(fileId);
  }
  return {
    laid: {
      takes: takes.map(({ id, setups }) => ({ takeId: id, setups: setups.map((setup) => ({ setupId: setup.id, candidateId: setup.candidateId })) })),
      candidateIds: [...candidateOf.values()],
      back: { fileIds: [...cuts.keys()], takeIds: made.map(({ id }) => id), candidateIds: madeIds, joined: given },
    },
    cut,
  };
}

function longestS(parts: readonly MomentPart[], files: ReadonlyMap<string, LooseFile>): number {
  return Math.max(...parts.map(({ fileId, startS, endS }) => (endS ?? files.get(fileId)?.format.durationS ?? 0) - (startS ?? 0)));
}

/** Candidates by the names of microphones: those that are there already, and new ones with tapes. */
async function candidates(tables: Tables, trialId: string, names: readonly string[]): Promise<{ found: Map<string, string>; madeIds: string[] }> {
  const known = await tables.chains.find({ where: present(trialId), order: { position: 'ASC' } });
  const found = new Map<string, string>();
  const tapes = known.filter(({ candidate }) => candidate).map(({ tape }) => tape);
  const fresh: StoredChain[] = [];
  for (const name of names) {
    const there = known.find((chain) => chain.candidate && chain.name.toLowerCase() === name.toLowerCase());
    if (there) found.set(name, there.id);
    else {
      const tape = nextTape(name, tapes);
      tapes.push(tape);
      const chain: StoredChain = { ...chainDraftSchema.parse({ name, tape, position: known.length + fresh.length }), id: newId(), trialId, version: 1, binnedAtMs: null };
      fresh.push(chain);
      found.set(name, chain.id);
    }
  }
  if (fresh.length > 0) await tables.chains.insert(fresh);
  return { found, madeIds: fresh.map(({ id }) => id) };
}

/** @throws ApiError 422 where a microphone stands twice in a take */
function refuseTwice(heard: readonly { fileId: string; microphone: string }[], slate: number, nameOf: (fileId: string) => string): void {
  for (const [microphone, own] of grouped(heard, (each) => each.microphone)) {
    if (own.length < 2) continue;
    const names = own.map(({ fileId }) => nameOf(fileId));
    const where = new Set(names).size > 1 ? names.join(' and ') : `${own.length} channels of ${names[0]}`;
    throw new ApiError(422, 'invalid', `${microphone} stands twice in take ${slate}: ${where}. Give one of them another name, or leave it out.`, {
      channels: 'A microphone is once in a take',
    });
  }
}

/** @throws ApiError 422 where a microphone is in the take already that its file would join */
function refuseThere(
  there: Take | null,
  heard: readonly { fileId: string; microphone: string }[],
  setups: readonly { candidateId: string }[],
  nameOf: (fileId: string) => string,
): void {
  const place = setups.findIndex(({ candidateId }) => there?.setups.some((setup) => setup.candidateId === candidateId));
  const own = heard[place];
  if (!there || !own) return;
  throw new ApiError(422, 'invalid', `${own.microphone} is in take ${there.slate} already: ${nameOf(own.fileId)}. Give it another name, or leave it out.`, {
    channels: 'A microphone is once in a take',
  });
}
