import { TABLE_FIGURES } from '@marvet/core/contract/recordings';
import { formatRemarks } from '@marvet/core/domain/formatRemarks';
import { RECORDING_MEASURE_IDS } from '@marvet/core/domain/measureId';
import type { Figures } from '@marvet/core/domain/recording';
import { measureValue } from '@marvet/core/measure/catalogue';
import { backupsAmong } from '@marvet/core/measure/channelPairs';
import type { MeasuredFile } from '@marvet/core/measure/fileMeters';
import { type ChannelReport, METHOD_VERSION } from '@marvet/core/measure/report.types';
import { savedClips } from '@marvet/core/measure/savedClips';
import { stereoFigures } from '@marvet/core/measure/stereo';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import type { FileSpan } from './tasks.ts';

/** Figures of a report by measure id, without those that could not be measured. */
export function figuresOf(report: ChannelReport, lengthS: number): Figures {
  return Object.fromEntries(
    RECORDING_MEASURE_IDS.flatMap((id) => {
      const value = measureValue(report, id, lengthS);
      // Four decimals are more than any figure deserves, and keep tables of thousands small.
      return value === null ? [] : [[id, Number(value.toFixed(4))]];
    }),
  );
}

/** The few of them that tables show. */
export const shownFigures = (figures: Figures) => TABLE_FIGURES.map((id) => figures[id] ?? null);

/** Whether two stretches of a file are one. */
export const sameSpan = (a: FileSpan, b: FileSpan) => a[0] === b[0] && a[1] === b[1];

/** A stretch of a file that was measured, and the channels in it that are one stereo recording. */
export interface MeasuredPart {
  span: FileSpan;
  stereo: readonly (readonly [number, number])[];
  measured: MeasuredFile;
}

type Measured = Pick<RecordingRow, 'report' | 'series' | 'second' | 'stereo'> & { figures: Figures };

/** Writes what was measured beside the file it belongs to. */
export async function keepReport(tables: Tables, file: Pick<AudioFileRow, 'id' | 'format'>, parts: readonly MeasuredPart[]): Promise<void> {
  // What is said of the file as a whole is that of its first part.
  const { report, pairs } = (parts[0] as (typeof parts)[number]).measured;
  await tables.files.update(
    { id: file.id },
    { state: 'done', failure: null, methodVersion: METHOD_VERSION, warnings: [...formatRemarks(file.format), ...report.warnings], programme: report.programme },
  );
  const backups = new Map(backupsAmong(pairs).map((backup) => [backup.channel, backup]));
  const select = { id: true, channels: true, against: true, startS: true, endS: true, setupId: true, backup: true } as const;
  const rows = await tables.recordings.find({ select, where: { fileId: file.id } });
  for (const recording of rows) {
    const part = parts.find(({ span }) => sameSpan(span, [recording.startS, recording.endS]));
    const measured = part && recordingReport(part.measured, recording.channels, part.stereo);
    if (!measured) continue;
    const figures = { ...measured.figures, ...recording.against?.figures };
    const [channel] = recording.channels as [number];
    const copy = recording.channels.length === 1 ? backups.get(channel) : undefined;
    const events = (index: number) => part.measured.report.channels.find((each) => each.index === index)?.events ?? [];
    // What it is to another file is looked at once both are measured.
    const ofOther = recording.backup?.ofFile ? recording.backup : null;
    const backup = copy ? { ofChannel: copy.of, lowerByDb: copy.lowerByDb, ...savedClips(events(copy.of), events(channel)) } : ofOther;
    // Once it is known to be a backup it is no candidate; who chose it after that wanted it.
    const main = copy && !recording.backup && rows.find(({ channels, startS, endS }) => channels[0] === copy.of && sameSpan([startS, endS], [recording.startS, recording.endS]));
    if (main && !main.setupId && recording.setupId) await tables.recordings.update({ id: main.id }, { setupId: recording.setupId });
    await tables.recordings.update({ id: recording.id }, { ...measured, figures, shown: shownFigures(figures), backup, ...(main ? { setupId: null } : {}) });
  }
}

/** What is kept of a recording: its report, of a stereo one that of each channel, and its figures. Null where the file has no such channel. */
function recordingReport({ report, series, pairs, stereo }: MeasuredFile, channels: readonly number[], programmes: readonly (readonly [number, number])[]): Measured | null {
  const { durationS } = report.format;
  const [first, other] = channels.map((index) => report.channels.find((each) => each.index === index));
  if (!first) return null;
  const single = { report: first, series: series[first.index] ?? null, second: null, stereo: null, figures: figuresOf(first, durationS) };
  const otherSeries = other && series[other.index];
  const programme = stereo[programmes.findIndex((pair) => String(pair) === String(channels))];
  if (!other || !otherSeries || !programme) return single;
  const together = pairs.find(({ a, b }) => a === first.index && b === other.index);
  const figures = stereoFigures(figuresOf(first, durationS), figuresOf(other, durationS), programme);
  return { ...single, figures, second: { report: other, series: otherSeries }, stereo: together ? { correlation: together.correlation, monoLossDb: together.monoLossDb } : null };
}
