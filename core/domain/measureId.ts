import { z } from 'zod';

/** Kinds of events that are found on a recording. */
export const EVENT_KINDS = ['dropout', 'click', 'clip', 'plosive', 'wind', 'handling', 'rustle', 'disturbance'] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** What is told of all events of a kind: how often they come, how long they last, how bad the worst is. */
export const EVENT_FIGURES = ['perMinute', 'seconds', 'worstDb'] as const;
export type EventFigure = (typeof EVENT_FIGURES)[number];
export type EventMeasureId = `events.${EventKind}.${EventFigure}`;

/** Figures of a channel's report, by their path in it. */
const REPORT_MEASURE_IDS = [
  'levels.samplePeakDbfs',
  'levels.truePeakDbtp',
  'levels.rmsDbfs',
  'levels.crestDb',
  'levels.dcOffset',
  'levels.clippedRuns',
  'levels.clippedSamples',
  'levels.flattenedShare',
  'loudness.integratedLufs',
  'loudness.momentaryMaxLufs',
  'loudness.shortTermMaxLufs',
  'loudness.loudnessRangeLu',
  'activity.activeLevelDbfs',
  'activity.activityFactor',
  'noise.floorDbfs',
  'noise.floorDbfsA',
  'noise.floorDbfs468',
  'noise.practicalFloorDbfs',
  'noise.practicalFloorDbfsA',
  'noise.noiseDbfsA',
  'noise.snrDb',
  'noise.calmSnrDb',
  'noise.humDbfs',
  'noise.gatedDb',
  'spectrum.tiltDbPerOctave',
  'spectrum.groups.rumbleDb',
  'spectrum.groups.chestDb',
  'spectrum.groups.boxDb',
  'spectrum.groups.midDb',
  'spectrum.groups.presenceDb',
  'spectrum.groups.sibilanceDb',
  'spectrum.groups.airDb',
  'intelligibility.sii',
  'intelligibility.sti',
  'character.sibilanceDb',
  'character.proximityDb',
  'character.windDb',
  'character.windShare',
  'character.pumpingDb',
  'character.reverberationS',
] as const;

/** Figures against the reference of the same take, by their path in a pair. */
export const PAIR_MEASURE_IDS = [
  'pair.latencyMs',
  'pair.levelDiffDb',
  'pair.spectralDistanceDb',
  'pair.matchedDistanceDb',
  'pair.denoise.noiseReductionDb',
  'pair.denoise.voiceLossDb',
  'pair.denoise.wordEdgeLossDb',
  'pair.denoise.musicalNoise',
] as const;

/** How far a link holds: of a candidate at a station, over all its takes there, and not of one recording. */
export const LINK_MEASURE_IDS = ['range.facingM', 'range.turnedM'] as const;

export type ReportMeasureId = (typeof REPORT_MEASURE_IDS)[number];
export type PairMeasureId = (typeof PAIR_MEASURE_IDS)[number];
/** Every figure that can be a criterion. */
export type LinkMeasureId = (typeof LINK_MEASURE_IDS)[number];
export type MeasureId = ReportMeasureId | EventMeasureId | PairMeasureId | LinkMeasureId | 'recording.lengthS';

const eventIds = EVENT_KINDS.flatMap((kind) => EVENT_FIGURES.map((figure): EventMeasureId => `events.${kind}.${figure}`));
export const MEASURE_IDS = [...REPORT_MEASURE_IDS, ...eventIds, ...PAIR_MEASURE_IDS, ...LINK_MEASURE_IDS, 'recording.lengthS'] as [MeasureId, ...MeasureId[]];
/** Every figure that a recording can have. */
export const RECORDING_MEASURE_IDS = MEASURE_IDS.filter((id) => !id.startsWith('range.'));
export const measureIdSchema = z.enum(MEASURE_IDS);

/** Whether a figure needs a reference: it is of two recordings of one take. */
export const isPairMeasure = (id: MeasureId): id is PairMeasureId => id.startsWith('pair.');

/** Whether a figure is of a link and not of a recording. */
export const isLinkMeasure = (id: MeasureId): id is LinkMeasureId => id.startsWith('range.');
