import { type ConditionKind, EXTRA_KINDS, type FactorKind } from '../domain/factor.ts';
import { candidatesOf, kindsWithin, slateLabel, type Take } from '../domain/take.ts';
import { toCsv } from '../formats/csv.ts';
import { changesBetween } from './order/changeCost.ts';

/** Words for the levels of a plan: records' names, tapes' letters. */
export interface LevelWords {
  label(kind: FactorKind, levelId: string): string;
  letters(chainId: string): string;
  scriptText(scriptId: string): string;
}

/** One line of the run sheet. */
export interface RunSheetRow {
  takeId: string;
  slate: string;
  station: string;
  distance: string;
  windscreen: string;
  script: string;
  /** What this plan varies or holds besides. */
  others: { kind: FactorKind; label: string }[];
  text: string;
  /** Letters of each setup, with its own levels where something differs within the take. */
  candidates: string[];
  candidateIds: string[];
  changes: FactorKind[];
}

/** The run sheet: takes in their order, in words, with what has to be changed before each. */
export function runSheet(takes: readonly Take[], words: LevelWords): RunSheetRow[] {
  let before: Take | null = null;
  return takes.map((take) => {
    const changes = changesBetween(before, take);
    before = take;
    const within = kindsWithin(take);
    return {
      takeId: take.id,
      slate: slateLabel(take),
      station: words.label('station', take.condition.station),
      distance: levelsText(take, 'distance', words),
      windscreen: levelsText(take, 'windscreen', words),
      script: words.label('script', take.condition.script),
      others: EXTRA_KINDS.flatMap((kind) => {
        const label = levelsText(take, kind, words);
        return label === '' ? [] : [{ kind, label }];
      }),
      text: words.scriptText(take.condition.script),
      candidates: take.setups.map((setup) => [words.letters(setup.candidateId), ...within.map((kind) => words.label(kind, setup.levels[kind] ?? ''))].join(' ')),
      candidateIds: candidatesOf(take),
      changes,
    };
  });
}

/** The level of a take on a kind, in words; all of them where they differ within the take. */
export function levelsText(take: Pick<Take, 'condition' | 'setups'>, kind: ConditionKind, words: Pick<LevelWords, 'label'>): string {
  const shared = take.condition[kind];
  if (shared !== undefined) return words.label(kind, shared);
  const own = take.setups.flatMap((setup) => setup.levels[kind as keyof typeof setup.levels] ?? []);
  return [...new Set(own)].map((levelId) => words.label(kind, levelId)).join(' and ');
}

/**
 * The run sheet as CSV, with empty columns to write in.
 * @param startsAt clock time of each take by its place, where the day has a start
 */
export function runSheetCsv(rows: readonly RunSheetRow[], startsAt: readonly string[] = []): string {
  const others = EXTRA_KINDS.filter((kind) => rows.some((row) => row.others.some((other) => other.kind === kind)));
  const clock = startsAt.length > 0 ? ['starts'] : [];
  return toCsv(
    ['slate', ...clock, 'station', 'distance', 'windscreen', ...others, 'script', 'candidates', 'change', 'text', 'done', 'remarks'],
    rows.map((row, index) => ({
      slate: row.slate,
      starts: startsAt[index] ?? null,
      station: row.station,
      distance: row.distance,
      windscreen: row.windscreen,
      ...Object.fromEntries(row.others.map(({ kind, label }) => [kind, label])),
      script: row.script,
      candidates: row.candidates.join(' '),
      change: row.changes.join(', '),
      text: row.text,
      done: null,
      remarks: null,
    })),
  );
}
