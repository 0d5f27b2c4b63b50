import { grouped } from '../domain/grouped.ts';
import { isSpoiled, slateLabel, type Take } from '../domain/take.ts';
import type { VerdictNote } from './usableRecordings.ts';

/** A recording, as far as it matters for whether a verdict looks at it. */
export interface LeftRecording {
  fileId: string;
  fileName: string;
  takeId: string | null;
  setupId: string | null;
  /** It is the same sound as another, lower. */
  backup: object | null;
  state: string;
}

export interface LeftFrom {
  takes: readonly Take[];
  recordings: readonly LeftRecording[];
  /** Of a slate that was done again, whether all passes count. */
  passes: 'last' | 'all' | null;
  notes: readonly VerdictNote[];
}

/** What a verdict does not look at, in sentences; none where it looks at everything. */
export function leftOutTexts({ takes, recordings, passes, notes }: LeftFrom): string[] {
  const recorded = new Set(recordings.flatMap(({ takeId }) => takeId ?? []));
  const slates = (which: (take: Take) => boolean) => takes.filter(which).map(slateLabel);
  const lastPass = new Map<number, number>();
  for (const take of takes) if (recorded.has(take.id) && !isSpoiled(take)) lastPass.set(take.slate, Math.max(lastPass.get(take.slate) ?? 0, take.pass));
  const files = [...grouped(recordings, ({ fileId }) => fileId).values()];
  const filesWith = (which: (own: readonly LeftRecording[]) => boolean) => files.filter(which).map((own) => own[0]?.fileName ?? '');
  const inTake = (own: readonly LeftRecording[]) => own.some(({ takeId }) => takeId !== null);
  const say = (names: readonly string[], text: (names: string, many: boolean) => string) => (names.length === 0 ? [] : [text(listedShort(names), names.length > 1)]);
  return [
    ...say(slates(isSpoiled), (names, many) => `Marked spoiled, so ${many ? 'they do' : 'it does'} not count: ${names}.`),
    ...say(
      passes === 'all' ? [] : slates((take) => recorded.has(take.id) && !isSpoiled(take) && take.pass < (lastPass.get(take.slate) ?? 0)),
      (names) => `Done again, so that the last pass counts, and not ${names}.`,
    ),
    ...say(
      slates(({ status }) => status === 'skipped'),
      (names) => `Skipped: ${names}.`,
    ),
    ...say(
      slates(({ id, status }) => status === 'planned' && !recorded.has(id)),
      (names) => `Planned and not recorded: ${names}.`,
    ),
    ...say(
      filesWith((own) => !inTake(own)),
      (names, many) => `${many ? 'Files' : 'A file'} that ${many ? 'belong' : 'belongs'} to no take: ${names}.`,
    ),
    ...say(
      filesWith((own) => own.some(({ takeId, setupId, backup }) => takeId !== null && setupId === null && backup === null)),
      (names) => `Channels that were given to no candidate, of ${names}.`,
    ),
    ...say(
      filesWith((own) => inTake(own) && own.some(({ state }) => state !== 'done')),
      (names) => `Not measured: ${names}.`,
    ),
    ...notes.flatMap(({ kind, text }) => (kind === 'twice' ? [text] : [])),
  ];
}

/** More than this is counted rather than named. */
const MOST_NAMED = 30;

function listedShort(names: readonly string[]): string {
  return names.length <= MOST_NAMED ? names.join(', ') : `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`;
}
