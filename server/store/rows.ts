import type { WavFormat } from '@marvet/core/audio/wavFormat';
import type { Chain } from '@marvet/core/domain/chain';
import type { Criterion, Mark } from '@marvet/core/domain/criterion';
import type { Item } from '@marvet/core/domain/item';
import type { LogLine } from '@marvet/core/domain/logLine';
import type { Photo } from '@marvet/core/domain/photo';
import type { Plan } from '@marvet/core/domain/plan';
import type { PreflightTick } from '@marvet/core/domain/preflight';
import type { MeasureState } from '@marvet/core/domain/recording';
import type { RatingDraft, RoundDraft } from '@marvet/core/domain/round';
import type { Script } from '@marvet/core/domain/script';
import type { Station } from '@marvet/core/domain/station';
import type { Take } from '@marvet/core/domain/take';
import type { CriterionComparison, Role, TrialDraft } from '@marvet/core/domain/trial';
import type { MeasureId } from '@marvet/core/measure/catalogue';
import type { ChannelReport, FileReport, LevelSeries, Span } from '@marvet/core/measure/report.types';
import type { MatchedBy } from '@marvet/core/takes/matchFile';

/** Rows as they are stored. Where a record can be binned, `binnedAtMs` says since when it is. */
interface Binnable {
  binnedAtMs: number | null;
}

export interface TrialRow extends Binnable {
  id: string;
  name: string;
  question: string;
  use: string;
  place: string;
  sample: boolean;
  createdAtMs: number;
  verdictOpenedAtMs: number | null;
  roles: Role[];
  budget: TrialDraft['budget'];
  comparisons: CriterionComparison[];
}

/** The winner that one person expects; sealed until the verdict was opened. */
export interface ExpectationRow {
  trialId: string;
  person: string;
  candidateId: string;
  reason: string;
  sealedAtMs: number;
}

export interface PreflightRow extends PreflightTick {
  trialId: string;
}

export type PhotoRow = Photo & { sha256: string };
export type CriterionRow = Criterion & Binnable;
export type MarkRow = Mark;
export type ItemRow = Item & Binnable;
export type ChainRow = Chain & Binnable;
export type StationRow = Station & Binnable;
export type ScriptRow = Script & Binnable;
export type PlanRow = Plan;
export type TakeRow = Take;

export interface LogLineRow {
  id: string;
  trialId: string;
  takeId: string;
  atMs: number;
  receivedAtMs: number;
  line: LogLine;
}

export interface AudioFileRow extends Binnable {
  id: string;
  trialId: string;
  name: string;
  sha256: string;
  sizeBytes: number;
  uploadedAtMs: number;
  format: WavFormat;
  state: MeasureState;
  failure: string | null;
  methodVersion: number | null;
  warnings: string[];
  programme: FileReport['programme'] | null;
  takeId: string | null;
  matchedBy: MatchedBy | null;
}

export interface RecordingRow {
  id: string;
  fileId: string;
  trialId: string;
  channelIndex: number;
  trackName: string | null;
  candidateId: string | null;
  /** Figures of the report by measure id, for tables and the verdict. */
  figures: Partial<Record<MeasureId, number>> | null;
  report: ChannelReport | null;
  series: LevelSeries | null;
  /** Marked by hand; wins over the pauses that were found. */
  roomTone: Span | null;
}

export interface RoundRow extends RoundDraft, Binnable {
  id: string;
  trialId: string;
  sample: boolean;
  createdAtMs: number;
  matchedLufs: number;
  gainsDb: number[];
}

export interface ListenerRow extends Binnable {
  id: string;
  roundId: string;
  name: string;
  listenedOn: string;
  sample: boolean;
  createdAtMs: number;
  finishedAtMs: number | null;
  /** Places in the round's recordings, in the order of this listener's letters. */
  order: number[];
}

export interface RatingRow extends RatingDraft {
  listenerId: string;
}
