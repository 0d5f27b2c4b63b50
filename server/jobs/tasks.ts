import type { SoundFormat } from '@marvet/core/audio/decode/decodedSound';
import type { Allocation, GearProblem } from '@marvet/core/decide/allocate/gear';
import type { RankDoubt, WeightDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import type { DrawnFrom } from '@marvet/core/decide/doubt/samples';
import type { Effects } from '@marvet/core/decide/effects/effects';
import type { Observed } from '@marvet/core/decide/effects/observations';
import type { TogetherOf } from '@marvet/core/decide/effects/together';
import type { PlanDraft } from '@marvet/core/domain/plan';
import type { ClipSource, ClipTone } from '@marvet/core/listen/blindClip';
import type { RoundCut, RoundSource } from '@marvet/core/listen/cutRound';
import type { MeasuredFile } from '@marvet/core/measure/fileMeters';
import type { GrownFile, HeardWhileGrowing } from '@marvet/core/measure/measureGrowing';
import type { LowerTrack } from '@marvet/core/measure/pair/backupFile';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import type { LevelSeries, MeasureOptions } from '@marvet/core/measure/report.types';
import type { BuiltPlan, PlanContext } from '@marvet/core/plan/buildPlan';
import type { PlacedByClock } from '@marvet/core/takes/places/placeByClock';
import type { TimedFile, TimedTake } from '@marvet/core/takes/places/timed';
import type { SoundLink } from '@marvet/core/takes/sound/sameSound';
import type { SoundPrint } from '@marvet/core/takes/sound/soundPrint';

/** From where to where in a file, in seconds; null is its start, or its end. */
export type FileSpan = [startS: number | null, endS: number | null];

/** One channel of a stored file, or two that are one stereo recording, or a stretch of them. */
export interface ChannelPlace {
  path: string;
  channels: readonly number[];
  span: FileSpan;
}

/** A file measured, as a whole or in stretches, each with what is marked in it. */
export interface MeasureTask {
  kind: 'measure';
  path: string;
  parts: { span: FileSpan; options: MeasureOptions }[];
}

/** Two recordings compared, aligned first. */
export interface PairTask {
  kind: 'pair';
  channel: ChannelPlace;
  reference: ChannelPlace;
}

/** Two files of one length, channel by channel: is one the backup of the other? */
export interface BackupTask {
  kind: 'backup';
  path: string;
  otherPath: string;
  channels: number;
}

/** A plan turned into takes in their order. */
export interface PlanTask {
  kind: 'plan';
  plan: PlanDraft;
  context: PlanContext;
}

/** The recordings of a listening round, cut to clips that begin at the same syllable. */
export interface CutTask {
  kind: 'cut';
  sources: (ChannelPlace & Omit<RoundSource, 'track'>)[];
}

/** A clip: where it lies in which recording. */
export type ClipPlace = ChannelPlace & ClipSource;

/** One clip as a file, for a reel or a page to send. */
export interface ClipTask extends ChannelPlace, ClipSource {
  kind: 'clip';
  /** Made of two channels, whatever it was recorded in: so are all of a round in which one is stereo. */
  wide: boolean;
  /**
   * The letter it is heard under where checks are hidden in its round, so that the same recording under two letters is made twice and is
   * not the same bytes. Null where nothing is hidden.
   */
  disguise: string | null;
}

/** How loud a clip is behind filters. */
export interface ToneTask extends ChannelPlace, Omit<ClipSource, 'tone'> {
  kind: 'tone';
  wide: boolean;
  sections: ClipTone['sections'];
}

/** A piece of all clips that are heard beside each other: channels of the first, then of the second. */
export interface PieceTask {
  kind: 'piece';
  /** Each once. */
  clips: ClipPlace[];
  /** Which of them is heard under each letter. */
  heard: number[];
  wide: boolean;
  /** With a step of 24 bits up or down here and there, so that the same clip twice is not the same bytes. */
  disguised: boolean;
  piece: number;
}

/** How sure a ranking is. */
export interface DoubtTask {
  kind: 'doubt';
  from: DrawnFrom;
  weights: WeightDoubt;
}

/** What made the difference in each criterion. */
export interface EffectsTask {
  kind: 'effects';
  observed: Observed[];
  /** Pairs of which is asked whether they work on each other. */
  together: TogetherOf[];
}

/** Who gets what. */
export interface AllocationTask {
  kind: 'allocation';
  problem: GearProblem;
}

/** The takes of files of each recorder, by its clock. */
export interface PlacesTask {
  kind: 'places';
  recorders: { files: TimedFile[]; aheadByHandS: number | null }[];
  takes: TimedTake[];
}

/** How loud a whole file is over time. */
export interface LevelsTask {
  kind: 'levels';
  path: string;
}

/** The sound of a file that is no WAVE file, taken out into one. */
export interface DecodeTask {
  kind: 'decode';
  path: string;
  out: string;
}

/** A file that is being recorded, measured while it grows. */
export interface FollowTask {
  kind: 'follow';
  path: string;
  /** Two numbers shared with whoever writes: frames that are on the disk, and 1 once the file is closed. */
  state: SharedArrayBuffer;
}

/** How a file rises and falls, so that it can be found again on another microphone. */
export interface PrintTask {
  kind: 'print';
  path: string;
}

/** A file whose print was taken. */
export interface PrintedFile {
  id: string;
  path: string;
  print: SoundPrint;
}

/** Which of some files are of the same moment as one. Of those that lie on one time already, one that is surely of it is enough. */
export interface AlikeTask {
  kind: 'alike';
  file: PrintedFile;
  others: (PrintedFile & { group: string })[];
}

export type AnyTask =
  | DecodeTask
  | FollowTask
  | PrintTask
  | AlikeTask
  | MeasureTask
  | PairTask
  | BackupTask
  | CutTask
  | ClipTask
  | ToneTask
  | PieceTask
  | PlanTask
  | PlacesTask
  | LevelsTask
  | DoubtTask
  | EffectsTask
  | AllocationTask;

/** Tasks that are jobs: they have a row, and wait their turn. Sound that is being listened to waits for nothing. */
export type JobTask = Exclude<AnyTask, FollowTask | DecodeTask | PrintTask | AlikeTask | PieceTask>;

/** What a task tells on its way: how far it is, or what it heard. */
export type ToldBy<Task extends AnyTask> = Task extends FollowTask ? HeardWhileGrowing[] : number;

export type ResultOf<Task extends AnyTask> = Task extends DecodeTask
  ? SoundFormat | null
  : Task extends FollowTask
    ? GrownFile
    : Task extends MeasureTask
      ? MeasuredFile[]
      : Task extends PairTask
        ? ComparedPair
        : Task extends BackupTask
          ? (LowerTrack | null)[]
          : Task extends CutTask
            ? RoundCut
            : Task extends ClipTask | PieceTask
              ? Uint8Array
              : Task extends ToneTask
                ? ClipTone
                : Task extends AllocationTask
                  ? Allocation
                  : Task extends LevelsTask
                    ? LevelSeries
                    : Task extends EffectsTask
                      ? Effects[]
                      : Task extends DoubtTask
                        ? RankDoubt
                        : Task extends PlacesTask
                          ? PlacedByClock[]
                          : Task extends PrintTask
                            ? SoundPrint
                            : Task extends AlikeTask
                              ? SoundLink[]
                              : BuiltPlan;

/** What a thread answers: a result, or why there can be none. */
export type Answer = { ok: true; result: unknown } | { ok: false; message: string };
