import type { Correction } from '../domain/correction.ts';
import type { FileFormat } from '../domain/fileFormat.ts';
import type { EventKind } from '../domain/measureId.ts';

/** Raised whenever the definition of a figure changes; old reports then say that they are old. */
export const METHOD_VERSION = 6;

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
  /** Part of the loud peaks that an earlier stage flattened, 0 to 1. */
  flattenedShare: number | null;
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
  floorDbfs468: number | null;
  practicalFloorDbfs: number | null;
  practicalFloorDbfsA: number | null;
  /** A-weighted energy mean of all that is no word. */
  noiseDbfsA: number | null;
  /** A-weighted level of the words over `noiseDbfsA`. */
  snrDb: number | null;
  /** The same over the calm floor. */
  calmSnrDb: number | null;
  humDbfs: number | null;
  /** How far a gate or the like holds noise down between words; null where none is at work. */
  gatedDb: number | null;
}

export const SPECTRUM_GROUPS = ['rumbleDb', 'chestDb', 'boxDb', 'midDb', 'presenceDb', 'sibilanceDb', 'airDb'] as const;
export type SpectrumGroupId = (typeof SPECTRUM_GROUPS)[number];

export interface SpectrumGroup {
  bandsHz: number[];
  speechDb: (number | null)[];
  pauseDb: (number | null)[];
  /** Of all that is no word. */
  noiseDb: (number | null)[];
  tiltDbPerOctave: number | null;
  groups: Record<SpectrumGroupId, number | null>;
}

export interface IntelligibilityGroup {
  /** Speech intelligibility index, 0 to 1. */
  sii: number | null;
  /** Speech transmission index, 0 to 1. */
  sti: number | null;
}

export interface CharacterGroup {
  sibilanceDb: number | null;
  proximityDb: number | null;
  windDb: number | null;
  windShare: number | null;
  pumpingDb: number | null;
  reverberationS: number | null;
}

/** Something that is not the performance: when, and how bad. What a severity means stands in docs/methods.md. */
export interface AudioEvent {
  kind: EventKind;
  startS: number;
  endS: number;
  severityDb: number;
  /** Where somebody marked it: the correction that says so. */
  correctionId?: string;
}

/** A filter of a match: peaking, or a shelf from its frequency down or up. */
export interface MatchFilter {
  type: 'peaking' | 'lowShelf' | 'highShelf';
  frequencyHz: number;
  gainDb: number;
  q: number;
}

/** This channel against a reference, aligned first. */
export interface PairGroup {
  /** At the start of the reference; positive when this channel is late. */
  latencyMs: number | null;
  /** Positive when this channel falls later and later. */
  driftPpm: number | null;
  polarity: 1 | -1 | null;
  /** This channel less the reference. */
  levelDiffDb: number | null;
  /** Third-octave bands, this channel less the reference. */
  bandDiffDb: (number | null)[];
  /** RMS of the level-free band differences, 100 Hz to 10 kHz. */
  spectralDistanceDb: number | null;
  /** At most five filters that bring this channel nearest to the reference. */
  eqMatch: MatchFilter[];
  /** What the distance is once the filters are in. */
  matchedDistanceDb: number | null;
  coherentSnrDb: number | null;
  /** What processing took of the reference; null where both have the same noise, or are not the same microphone. */
  denoise: Denoise | null;
  /** Whether both are one microphone with the same noise, of which nothing was taken; null where that cannot be told. */
  sameNoise: boolean | null;
}

/** A moment of the reference at which to hear what noise reduction cost. */
export interface DenoiseMoment {
  kind: 'swallowed' | 'warble';
  startS: number;
  endS: number;
  /** Swallowed: how many dB are gone; warble: the logarithm of the kurtosis, after against before. */
  amount: number;
}

/** What noise reduction did to a sound, against the same sound without it. */
export interface Denoise {
  /** Noise against the voice: how much lower than in the reference. */
  noiseReductionDb: number;
  /** Third-octave bands: how much of the voice is gone, against what is left of its strongest moments. */
  voiceLossDb: (number | null)[];
  /** How much more is gone of the faint beginnings and ends of words. */
  wordEdgeLossDb: number | null;
  /** Logarithm of the kurtosis of the noise's spectrum, after against before: over 0.5 it warbles. */
  musicalNoise: number;
  /** Where it is heard best, in order of time. */
  moments: DenoiseMoment[];
}

export interface ChannelReport {
  index: number;
  name: string | null;
  levels: LevelsGroup;
  loudness: LoudnessGroup;
  activity: ActivityGroup;
  noise: NoiseGroup;
  spectrum: SpectrumGroup;
  intelligibility: IntelligibilityGroup;
  character: CharacterGroup;
  events: AudioEvent[];
  pair?: PairGroup;
}

export interface FileReport {
  format: FileFormat;
  programme: LoudnessGroup & { truePeakDbtp: number | null };
  channels: ChannelReport[];
  warnings: string[];
}

/** Level over time of one channel: the RMS of each step, in dBFS, -120 at the lowest. */
export interface LevelSeries {
  stepS: number;
  rmsDbfs: number[];
  /** Absent in what was measured before method 4. */
  bands?: BandPicture;
}

/** Third-octave levels over time: a byte for each band of each step, half decibels from -120 dBFS up, in base64. */
export interface BandPicture {
  stepS: number;
  bandsHz: number[];
  levels: string;
}

export interface MeasureOptions {
  /** Channels that are one stereo recording, two by two: each is measured as a programme of its own as well. */
  stereo?: readonly (readonly [number, number])[];
  /** Loudness to which practical figures are brought, in LUFS. */
  targetLufs: number;
  /** A mono channel is judged as played from two loudspeakers: +3.01 LU. */
  dualMono: boolean;
  /** Taken as room tone instead of the detected pauses. */
  roomTone: Span | null;
  /** What somebody marked on each channel; wins over what is found. */
  markedByChannel?: readonly MarkedByHand[];
}

/** What somebody marked on a channel. */
export interface MarkedByHand {
  roomTone: Span | null;
  corrections: readonly Correction[];
}
export const NOTHING_MARKED: MarkedByHand = { roomTone: null, corrections: [] };
export const DEFAULT_MEASURE_OPTIONS: MeasureOptions = { targetLufs: -23, dualMono: false, roomTone: null };
