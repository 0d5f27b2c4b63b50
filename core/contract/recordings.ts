import type { AudioFile, Figures, MeasureState, Recording } from '../domain/recording.ts';
import type { ChannelReport, FileReport, LevelSeries, Span } from '../measure/report.types.ts';
import type { PairFiguresById } from '../takes/reference.ts';

/** Figures that the table of recordings shows; all others are asked for one at a time. */
export const TABLE_FIGURES = ['noise.snrDb', 'noise.practicalFloorDbfsA', 'loudness.integratedLufs', 'levels.truePeakDbtp', 'levels.clippedRuns'] as const;

/** One recording in a table: its place, its file and the figures of the table. */
export interface RecordingRow {
  id: string;
  fileId: string;
  fileName: string;
  channels: number[];
  trackName: string | null;
  /** From where on in its file; null is the start. */
  startS: number | null;
  /** To where in its file; null is the end. */
  endS: number | null;
  takeId: string | null;
  setupId: string | null;
  backup: Recording['backup'];
  state: MeasureState;
  methodVersion: number | null;
  /** Values of {@link TABLE_FIGURES}, in that order; null until it was measured. */
  table: (number | null)[] | null;
  /** Whether the file was cut short, or its figures are upper bounds: something to look at before judging. */
  remarks: number;
}

/** One figure of all recordings of a trial that have it, by recording. */
export type FigureOfAll = Record<string, number>;

/** A file in a table. */
export interface FileRow extends AudioFile {
  takeId: string | null;
  matchedBy: Recording['matchedBy'];
}

/** What one measured or matched file changes: its own row, and those of its recordings. */
export interface FileChange {
  file: FileRow | null;
  recordings: RecordingRow[];
}

/** Where the part that is judged was taken from. */
export type PerformanceSource = 'hand' | 'log' | 'slate' | 'words' | 'whole';

/** What was measured of a recording against the reference of its take. */
export interface MeasuredAgainst {
  /** Of what, exactly, and by which method. */
  key: string;
  referenceId: string;
  figures: PairFiguresById;
  warnings: string[];
}

/** The second channel of a stereo recording, measured by itself. */
export interface SecondChannel {
  report: ChannelReport;
  series: LevelSeries;
}

/** A recording looked at from inside. */
export interface RecordingDetail extends Omit<Recording, 'figures'> {
  figures: Figures | null;
  file: AudioFile;
  report: ChannelReport | null;
  series: LevelSeries | null;
  second: SecondChannel | null;
  against: MeasuredAgainst | null;
  programme: FileReport['programme'] | null;
  /** Nobody logged its take by the plan: under which condition it was may be said afterwards. */
  conditionOpen: boolean;
  /** The part that is judged, as it is now, and why. */
  judged: { span: Span; by: PerformanceSource } | null;
}
