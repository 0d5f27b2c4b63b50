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

export type ReportMeasureId = (typeof REPORT_MEASURE_IDS)[number];
/** Every figure that a recording can have, and that can be a criterion. */
export type MeasureId = ReportMeasureId | EventMeasureId | 'recording.lengthS';

const eventIds = EVENT_KINDS.flatMap((kind) => EVENT_FIGURES.map((figure): EventMeasureId => `events.${kind}.${figure}`));
export const MEASURE_IDS = [...REPORT_MEASURE_IDS, ...eventIds, 'recording.lengthS'] as [MeasureId, ...MeasureId[]];
export const measureIdSchema = z.enum(MEASURE_IDS);
