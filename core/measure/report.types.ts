import type { WavFormat } from '../audio/wavFormat.ts';

/** Raised whenever the definition of a figure changes; old reports then say that they are old. */
export const METHOD_VERSION = 1;

/** A stretch of time in seconds from the start of the file: [start, end]. */
export type Span = [startS: number, endS: number];

/** Figures are null where they cannot be measured; a warning says why. */
export interface LevelsGroup {
  samplePeakDbfs: number | null;
  truePeakDbtp: number | null;
  rmsDbfs: number | null;
  crestDb: number | null;
  dcOffset: number | null;
  clippedRuns: number | null;
  clippedSamples: number | null;
}

export interface LoudnessGroup {
  integratedLufs: number | null;
  momentaryMaxLufs: number | null;
  shortTermMaxLufs: number | null;
  loudnessRangeLu: number | null;
}

export interface ActivityGroup {
  speech: Span[];
  pause: Span[];
  activeLevelDbfs: number | null;
  activityFactor: number | null;
}

export interface NoiseGroup {
  floorDbfs: number | null;
  floorDbfsA: number | null;
  practicalFloorDbfs: number | null;
  practicalFloorDbfsA: number | null;
  snrDb: number | null;
}

export const SPECTRUM_GROUPS = ['rumbleDb', 'chestDb', 'boxDb', 'midDb', 'presenceDb', 'sibilanceDb', 'airDb'] as const;
export type SpectrumGroupId = (typeof SPECTRUM_GROUPS)[number];

export interface SpectrumGroup {
  bandsHz: number[];
  speechDb: (number | null)[];
  pauseDb: (number | null)[];
  tiltDbPerOctave: number | null;
  groups: Record<SpectrumGroupId, number | null>;
}

export interface ChannelReport {
  index: number;
  name: string | null;
  levels: LevelsGroup;
  loudness: LoudnessGroup;
  activity: ActivityGroup;
  noise: NoiseGroup;
  spectrum: SpectrumGroup;
}

export interface FileReport {
  format: WavFormat;
  programme: LoudnessGroup & { truePeakDbtp: number | null };
  channels: ChannelReport[];
  warnings: string[];
}

/** Level over time of one channel: the RMS of each step, in dBFS, -120 at the lowest. */
export interface LevelSeries {
  stepS: number;
  rmsDbfs: number[];
}

export interface MeasureOptions {
  /** Loudness to which practical figures are brought, in LUFS. */
  targetLufs: number;
  /** A mono channel is judged as played from two loudspeakers: +3.01 LU. */
  dualMono: boolean;
  /** Taken as room tone instead of the detected pauses. */
  roomTone: Span | null;
}
export const DEFAULT_MEASURE_OPTIONS: MeasureOptions = { targetLufs: -23, dualMono: false, roomTone: null };
