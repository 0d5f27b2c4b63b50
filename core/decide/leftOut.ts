import { isSpoiled, slateLabel, type Take } from '../domain/take.ts';

/** What a verdict does not look at, in sentences; none where it looks at everything. */
export function leftOutTexts(takes: readonly Take[], files: readonly { name: string; takeId: string | null; state: string }[]): string[] {
  const slates = (which: (take: Take) => boolean) => takes.filter(which).map(slateLabel);
  const say = (names: readonly string[], text: (names: string, many: boolean) => string) => (names.length === 0 ? [] : [text(listedShort(names), names.length > 1)]);
  return [
    ...say(slates(isSpoiled), (names, many) => `Marked spoiled, so ${many ? 'they do' : 'it does'} not count: ${names}.`),
    ...say(
      slates(({ status }) => status === 'skipped'),
      (names) => `Skipped: ${names}.`,
    ),
    ...say(
      slates(({ status }) => status === 'planned'),
      (names) => `Planned and not recorded: ${names}.`,
    ),
    ...say(
      files.flatMap(({ name, takeId }) => (takeId === null ? [name] : [])),
      (names, many) => `${many ? 'Files' : 'A file'} that ${many ? 'belong' : 'belongs'} to no take: ${names}.`,
    ),
    ...say(
      files.flatMap(({ name, takeId, state }) => (takeId !== null && state !== 'done' ? [name] : [])),
      (names) => `Not measured: ${names}.`,
    ),
  ];
}

/** More than this is counted rather than named. */
const MOST_NAMED = 30;

function listedShort(names: readonly string[]): string {
  return names.length <= MOST_NAMED ? names.join(', ') : `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`;
}
