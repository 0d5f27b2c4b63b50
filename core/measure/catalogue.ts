import {
  EVENT_FIGURES,
  EVENT_KINDS,
  type EventFigure,
  type EventKind,
  type EventMeasureId,
  isLinkMeasure,
  isPairMeasure,
  type LinkMeasureId,
  type MeasureId,
  type PairMeasureId,
  type ReportMeasureId,
} from '../domain/measureId.ts';
import { EVENT_NAMES } from './eventNames.ts';
import type { ChannelReport } from './report.types.ts';

/** What is known of a figure: how it is called, its unit, how many digits it deserves, which way is better. */
export interface MeasureEntry {
  label: string;
  unit: string;
  digits: number;
  better: 'higher' | 'lower' | 'neither';
  /** Heading in docs/methods.md that explains it. */
  method: string;
  /** How right it is. */
  within: string;
  /** Values from which a criterion starts: best and worst. */
  typical: { best: number; worst: number };
}

/** How right the figures of a group are, as docs/methods.md states and docs/accuracy.md measures. */
const WITHIN: Record<string, string> = {
  levels: 'peak +0.2, −0.4 dB; others 0.01 dB',
  loudness: '0.1 LU; range 1 LU',
  activity: '0.3 dB',
  noise: '0.3 dB',
  spectrum: '0.1 dB on a tone',
  intelligibility: '0.04; transmission 0.1',
  character: '1.5 dB; reverberation 15 %',
  events: 'precision and recall in docs/accuracy.md',
  pair: '0.02 ms; level 0.1 dB',
  range: 'the interval beside it',
};

const entry = (label: string, unit: string, digits: number, better: MeasureEntry['better'], method: string, best: number, worst: number): MeasureEntry => ({
  label,
  unit,
  digits,
  better,
  method,
  within: WITHIN[method] ?? '',
  typical: { best, worst },
});

/** Every figure of a channel's report, by its path in the report. */
const REPORT_MEASURES = {
  'levels.samplePeakDbfs': entry('Sample peak', 'dBFS', 1, 'neither', 'levels', -10, 0),
  'levels.truePeakDbtp': entry('True peak', 'dBTP', 1, 'neither', 'levels', -10, 0),
  'levels.rmsDbfs': entry('RMS level', 'dBFS', 1, 'neither', 'levels', -20, -50),
  'levels.crestDb': entry('Crest factor', 'dB', 1, 'higher', 'levels', 20, 8),
  'levels.dcOffset': entry('DC offset', '', 4, 'lower', 'levels', 0, 0.01),
  'levels.clippedRuns': entry('Clipped runs', '', 0, 'lower', 'levels', 0, 20),
  'levels.clippedSamples': entry('Clipped samples', '', 0, 'lower', 'levels', 0, 200),
  'levels.flattenedShare': entry('Loud peaks flattened in an earlier stage', '', 2, 'lower', 'levels', 0, 0.3),
  'loudness.integratedLufs': entry('Integrated loudness', 'LUFS', 1, 'neither', 'loudness', -23, -50),
  'loudness.momentaryMaxLufs': entry('Highest momentary loudness', 'LUFS', 1, 'neither', 'loudness', -18, -45),
  'loudness.shortTermMaxLufs': entry('Highest short-term loudness', 'LUFS', 1, 'neither', 'loudness', -20, -48),
  'loudness.loudnessRangeLu': entry('Loudness range', 'LU', 1, 'neither', 'loudness', 4, 20),
  'activity.activeLevelDbfs': entry('Active speech level', 'dBFS', 1, 'neither', 'activity', -20, -50),
  'activity.activityFactor': entry('Share of time with speech', '', 2, 'neither', 'activity', 0.8, 0.2),
  'noise.floorDbfs': entry('Noise floor', 'dBFS', 1, 'lower', 'noise', -80, -40),
  'noise.floorDbfsA': entry('Noise floor, A-weighted', 'dBFS A', 1, 'lower', 'noise', -85, -45),
  'noise.floorDbfs468': entry('Noise floor, 468 quasi-peak', 'dBFS q', 1, 'lower', 'noise', -75, -35),
  'noise.practicalFloorDbfs': entry('Practical noise floor', 'dBFS', 1, 'lower', 'noise', -65, -35),
  'noise.practicalFloorDbfsA': entry('Practical noise floor, A-weighted', 'dBFS A', 1, 'lower', 'noise', -70, -40),
  'noise.noiseDbfsA': entry('Noise of all kinds between words, A-weighted', 'dBFS A', 1, 'lower', 'noise', -80, -35),
  'noise.snrDb': entry('Voice over noise', 'dB', 0, 'higher', 'noise', 40, 6),
  'noise.calmSnrDb': entry('Voice over calm room tone', 'dB', 0, 'higher', 'noise', 45, 10),
  'noise.humDbfs': entry('Mains hum', 'dBFS', 1, 'lower', 'noise', -95, -50),
  'noise.gatedDb': entry('Noise held down between words', 'dB', 0, 'lower', 'noise', 0, 20),
  'spectrum.tiltDbPerOctave': entry('Tilt', 'dB/octave', 1, 'neither', 'spectrum', -4, -10),
  'spectrum.groups.rumbleDb': entry('Rumble, 20-80 Hz', 'dB', 1, 'lower', 'spectrum', -35, -6),
  'spectrum.groups.chestDb': entry('Chest, 80-250 Hz', 'dB', 1, 'neither', 'spectrum', -4, -14),
  'spectrum.groups.boxDb': entry('Box, 250-600 Hz', 'dB', 1, 'lower', 'spectrum', -8, -2),
  'spectrum.groups.midDb': entry('Mids, 600-1500 Hz', 'dB', 1, 'neither', 'spectrum', -8, -20),
  'spectrum.groups.presenceDb': entry('Presence, 1.5-5 kHz', 'dB', 1, 'higher', 'spectrum', -8, -25),
  'spectrum.groups.sibilanceDb': entry('Sibilance, 5-9 kHz', 'dB', 1, 'neither', 'spectrum', -18, -35),
  'spectrum.groups.airDb': entry('Air, 9-16 kHz', 'dB', 1, 'higher', 'spectrum', -24, -45),
  'intelligibility.sii': entry('Intelligibility index', '', 2, 'higher', 'intelligibility', 0.9, 0.3),
  'intelligibility.sti': entry('Speech transmission index', '', 2, 'higher', 'intelligibility', 0.9, 0.4),
  'character.sibilanceDb': entry('Sibilance of the sharpest moments', 'dB', 1, 'neither', 'character', -8, 4),
  'character.proximityDb': entry('Proximity, 80-200 Hz over 0.5-2 kHz', 'dB', 1, 'neither', 'character', 0, 12),
  'character.windDb': entry('Wind against the voice', 'dB', 0, 'lower', 'character', -40, 0),
  'character.windShare': entry('Share of time with wind', '', 2, 'lower', 'character', 0, 0.6),
  'character.pumpingDb': entry('Pumping of room tone', 'dB', 1, 'lower', 'character', 0, 10),
  'character.reverberationS': entry('Reverberation', 's', 2, 'lower', 'character', 0.1, 1),
} as const satisfies Record<ReportMeasureId, MeasureEntry>;

/** Figures of a recording against the reference of its take. */
const PAIR_MEASURES = {
  'pair.latencyMs': entry('Later than the reference', 'ms', 2, 'lower', 'pair', 0, 20),
  'pair.levelDiffDb': entry('Level over the reference', 'dB', 1, 'neither', 'pair', 0, -20),
  'pair.spectralDistanceDb': entry('Spectral distance from the reference', 'dB', 1, 'lower', 'pair', 0, 10),
  'pair.matchedDistanceDb': entry('Distance from the reference once equalised', 'dB', 1, 'lower', 'pair', 0, 5),
  'pair.denoise.noiseReductionDb': entry('Noise taken off the reference', 'dB', 0, 'higher', 'pair', 20, 0),
  'pair.denoise.voiceLossDb': entry('Voice lost with the noise, worst band', 'dB', 1, 'lower', 'pair', 0, 6),
  'pair.denoise.wordEdgeLossDb': entry('Faint ends of words lost with the noise', 'dB', 1, 'lower', 'pair', 0, 10),
  'pair.denoise.musicalNoise': entry('Warble of the noise left', '', 2, 'lower', 'pair', 0, 1.5),
} as const satisfies Record<PairMeasureId, MeasureEntry>;

/** How far a link holds. */
const LINK_MEASURES = {
  'range.facingM': entry('Link reliable to, facing the receiver', 'm', 0, 'higher', 'range', 100, 10),
  'range.turnedM': entry('Link reliable to, turned away', 'm', 0, 'higher', 'range', 50, 5),
} as const satisfies Record<LinkMeasureId, MeasureEntry>;

/** Each kind of event as figures: how a mixer calls them, and from which values a criterion starts. */
const EVENT_ENTRIES: Record<EventFigure, (name: string) => MeasureEntry> = {
  perMinute: (name) => entry(`${name}, how often`, 'a minute', 1, 'lower', 'events', 0, 6),
  seconds: (name) => entry(`${name}, how long in all`, 's', 2, 'lower', 'events', 0, 2),
  worstDb: (name) => entry(`${name}, the worst`, 'dB', 0, 'lower', 'events', 0, 40),
};

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Every figure that can be a criterion, by its path. */
export const MEASURES: Readonly<Record<MeasureId, MeasureEntry>> = {
  ...REPORT_MEASURES,
  ...(Object.fromEntries(EVENT_KINDS.flatMap((kind) => EVENT_FIGURES.map((figure) => [`events.${kind}.${figure}`, EVENT_ENTRIES[figure](capital(EVENT_NAMES[kind]))]))) as Record<
    EventMeasureId,
    MeasureEntry
  >),
  ...PAIR_MEASURES,
  ...LINK_MEASURES,
  'recording.lengthS': entry('Length of the recording', 's', 1, 'neither', 'levels', 60, 0),
};

/** Of so many pauses a gate would be seen. */
const FEWEST_PAUSES = 3;

/**
 * The value of a figure of a channel; null where it could not be measured. Of events that did not come
 * there were none a minute, no seconds, and the worst is 0 dB. Figures against a reference are no part of a
 * channel's report, and null here: see takes/reference.ts; and so are figures of links: see radio/rangeWindows.ts.
 * @param lengthS length of the recording
 */
export function measureValue(report: ChannelReport, id: MeasureId, lengthS: number): number | null {
  if (id === 'recording.lengthS') return lengthS;
  if (isPairMeasure(id) || isLinkMeasure(id)) return null;
  const [group, kind, figure] = id.split('.');
  if (group === 'events') return eventValue(report, kind as EventKind, figure as EventFigure, lengthS);
  // No gate at work takes nothing off; with too few pauses to see one nobody knows.
  if (id === 'noise.gatedDb' && report.noise?.gatedDb === null && report.activity.pause.length >= FEWEST_PAUSES) return 0;
  let at: unknown = report;
  for (const step of id.split('.')) at = (at as Record<string, unknown> | null)?.[step];
  return typeof at === 'number' && Number.isFinite(at) ? at : null;
}

function eventValue(report: ChannelReport, kind: EventKind, figure: EventFigure, lengthS: number): number | null {
  if (!report.events) return null;
  const events = report.events.filter((event) => event.kind === kind);
  if (figure === 'perMinute') return lengthS > 0 ? (events.length * 60) / lengthS : null;
  if (figure === 'seconds') return events.reduce((sum, event) => sum + event.endS - event.startS, 0);
  return Math.max(0, ...events.map((event) => event.severityDb));
}

/** A value with the digits it deserves and its unit. */
export function measureText(id: MeasureId, value: number | null): string {
  const { digits, unit } = MEASURES[id];
  if (value === null) return 'not measured';
  return `${signed(value, digits)}${unit ? ` ${unit}` : ''}`;
}

/** A number as it was entered, with a true minus sign. */
export function plainNumber(value: number): string {
  return value < 0 ? `−${-value}` : String(value);
}

/** A number with a true minus sign and fixed digits; never "-0". */
export function signed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
}
