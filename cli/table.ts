import { MEASURE_IDS } from '@marvet/core/domain/measureId';
import { MEASURES, measureText, measureValue, signed } from '@marvet/core/measure/catalogue';
import type { ChannelReport, PairGroup } from '@marvet/core/measure/report.types';
import type { Measured } from './measurePath.ts';

/** A measured file for the eye: a column a channel, a row a figure, then events and remarks. */
export function tableOf(measured: Measured): string {
  if ('error' in measured) return `${measured.file}\n  not measured (${measured.error.code}): ${measured.error.message}\n`;
  const { format, programme, channels, warnings } = measured;
  const names = channels.map((channel) => channel.name ?? `channel ${channel.index + 1}`);
  const rows: [string, ...string[]][] = [
    ['', ...names],
    ...MEASURE_IDS.flatMap((id): [string, ...string[]][] => {
      const values = channels.map((channel) => measureValue(channel, id, format.durationS));
      // A kind of event that nowhere happened needs no three rows of noughts.
      if (id.startsWith('events.') && values.every((value) => !value)) return [];
      return [[MEASURES[id].label, ...values.map((value) => measureText(id, value))]];
    }),
    ['Events', ...channels.map(eventText)],
    ...pairRows(channels),
  ];
  const widths = rows[0]?.map((_, column) => Math.max(...rows.map((row) => row[column]?.length ?? 0))) ?? [];
  const lines = rows.map((row) => `  ${row.map((cell, column) => (column === 0 ? cell.padEnd(widths[column] ?? 0) : cell.padStart(widths[column] ?? 0))).join('  ')}`);
  const happened = channels.flatMap((channel, index) =>
    channel.events.map(
      ({ kind, startS, endS, severityDb }) =>
        `  ${names[index]}: ${kind} at ${startS.toFixed(2)} s, ${Math.max(1, Math.round((endS - startS) * 1000))} ms, ${severityDb.toFixed(0)} dB`,
    ),
  );
  return [
    `${measured.file}`,
    `  ${format.durationS.toFixed(2)} s, ${format.sampleRateHz} Hz, ${format.bitDepth} bit ${format.encoding}, ${format.channels} channels, ${format.container}`,
    `  programme: ${programme.integratedLufs === null ? 'no loudness' : `${signed(programme.integratedLufs, 1)} LUFS`}, true peak ${programme.truePeakDbtp === null ? 'none' : `${signed(programme.truePeakDbtp, 1)} dBTP`}`,
    ...lines,
    ...happened,
    ...warnings.map((warning) => `  remark: ${warning}`),
    '',
  ].join('\n');
}

function eventText({ events }: ChannelReport): string {
  const counts = new Map<string, number>();
  for (const { kind } of events) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return [...counts].map(([kind, count]) => `${count} ${kind}`).join(', ') || 'none';
}

function pairRows(channels: readonly ChannelReport[]): [string, ...string[]][] {
  if (!channels.some((channel) => channel.pair)) return [];
  const row = (label: string, text: (pair: PairGroup) => string | null): [string, ...string[]] => [
    label,
    ...channels.map((channel) => (channel.pair && text(channel.pair)) ?? 'not measured'),
  ];
  const number = (value: number | null, digits: number, unit: string) => (value === null ? null : `${signed(value, digits)} ${unit}`);
  return [
    row('Later than the reference', (pair) => number(pair.latencyMs, 2, 'ms')),
    row('Drift', (pair) => number(pair.driftPpm, 1, 'ppm')),
    row('Polarity', (pair) => (pair.polarity === null ? null : pair.polarity > 0 ? 'same' : 'turned')),
    row('Level over the reference', (pair) => number(pair.levelDiffDb, 1, 'dB')),
    row('Spectral distance', (pair) => number(pair.spectralDistanceDb, 1, 'dB')),
    row('  after equalisation', (pair) => number(pair.matchedDistanceDb, 1, 'dB')),
    row('Coherent signal to noise', (pair) => number(pair.coherentSnrDb, 0, 'dB')),
    ...(channels.some((channel) => channel.pair?.denoise)
      ? [
          row('Noise taken off, against the voice', (pair) => number(pair.denoise?.noiseReductionDb ?? null, 1, 'dB')),
          row('Gone of faint ends of words', (pair) => number(pair.denoise?.wordEdgeLossDb ?? null, 1, 'dB')),
          row('Warble of the noise left', (pair) => number(pair.denoise?.musicalNoise ?? null, 2, '')),
        ]
      : []),
  ];
}
