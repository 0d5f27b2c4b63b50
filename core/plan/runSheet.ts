import type { FactorKind } from '../domain/factor.ts';
import { slateLabel, type Take } from '../domain/take.ts';
import { toCsv } from '../formats/csv.ts';
import { changesBetween } from './order.ts';

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
      text: words.scriptText(take.condition.script),
      candidates: take.candidateIds.map((id) => words.letters(id)),
      candidateIds: take.candidateIds,
      changes,
    };
  });
}

const COLUMNS = ['slate', 'station', 'distance', 'windscreen', 'script', 'candidates', 'change', 'text', 'done', 'remarks'];

/** The run sheet as CSV, with empty columns to write in. */
export function runSheetCsv(rows: readonly RunSheetRow[]): string {
  return toCsv(
    COLUMNS,
    rows.map((row) => ({
      slate: row.slate,
      station: row.station,
      distance: row.distance,
      windscreen: row.windscreen,
      script: row.script,
      candidates: row.candidates.join(' '),
      change: row.changes.join(', '),
      text: row.text,
      done: null,
      remarks: null,
    })),
  );
}
