import { EXTRA_KINDS, type FactorKind } from '../domain/factor.ts';
import { slateLabel, type Take } from '../domain/take.ts';
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
    return {
      takeId: take.id,
      slate: slateLabel(take),
      station: words.label('station', take.condition.station),
      distance: words.label('distance', take.condition.distance),
      windscreen: words.label('windscreen', take.condition.windscreen),
      script: words.label('script', take.condition.script),
      others: EXTRA_KINDS.flatMap((kind) => {
        const levelId = take.condition[kind];
        return levelId === undefined ? [] : [{ kind, label: words.label(kind, levelId) }];
      }),
      text: words.scriptText(take.condition.script),
      candidates: take.candidateIds.map((id) => words.letters(id)),
      candidateIds: take.candidateIds,
      changes,
    };
  });
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
