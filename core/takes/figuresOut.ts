import type { Chain } from '../domain/chain.ts';
import { CONDITION_KINDS, type ConditionKind } from '../domain/factor.ts';
import { type MeasureId, RECORDING_MEASURE_IDS } from '../domain/measureId.ts';
import type { AudioFile, Recording } from '../domain/recording.ts';
import { isSpoiled, setupCondition, type Take } from '../domain/take.ts';
import { toCsv } from '../formats/csv.ts';
import { MEASURES } from '../measure/catalogue.ts';
import { type LevelNames, levelLabel } from '../plan/levelWords.ts';

/** What a trial has measured, with all that tells what it is of. */
export interface Measured {
  names: LevelNames;
  takes: readonly Take[];
  chains: readonly Pick<Chain, 'id' | 'name' | 'tape'>[];
  files: readonly Pick<AudioFile, 'id' | 'name' | 'sha256' | 'state' | 'methodVersion' | 'warnings' | 'format'>[];
  recordings: readonly Pick<Recording, 'id' | 'fileId' | 'channels' | 'trackName' | 'startS' | 'endS' | 'takeId' | 'setupId' | 'figures' | 'stereo' | 'backup'>[];
}

/** One recording with its place in the plan and all of its figures, by measure id; what could not be measured is null. */
export interface FiguresOfRecording {
  slate: number | null;
  pass: number | null;
  spoiled: boolean | null;
  candidate: string | null;
  tape: string | null;
  condition: Partial<Record<ConditionKind, string>>;
  startedAtMs: number | null;
  windMs: number | null;
  noiseDba: number | null;
  note: string;
  file: string;
  sha256: string;
  /** Counted from 1, as people do. */
  channels: number[];
  trackName: string | null;
  startS: number | null;
  endS: number | null;
  state: AudioFile['state'];
  methodVersion: number | null;
  warnings: string[];
  /** Of two channels that are one recording: how they go together. */
  stereo: Recording['stereo'];
  /** It is the backup of another channel, counted from 1, and no candidate. */
  backup: Recording['backup'];
  figures: Record<string, number | null>;
}

/** Every recording of a trial, in the order of takes, files and channels; those without a take come last. */
export function figuresOf({ names, takes, chains, files, recordings }: Measured): FiguresOfRecording[] {
  const takeById = new Map(takes.map((take) => [take.id, take]));
  const chainById = new Map(chains.map((chain) => [chain.id, chain]));
  const fileById = new Map(files.map((file) => [file.id, file]));
  const rows = recordings.flatMap(({ fileId, takeId, setupId, channels, figures, stereo, backup, trackName, startS, endS }): FiguresOfRecording[] => {
    const file = fileById.get(fileId);
    if (!file) return [];
    const take = takeById.get(takeId ?? '');
    const setup = take?.setups.find(({ id }) => id === setupId);
    const chain = chainById.get(setup?.candidateId ?? '');
    return [
      {
        slate: take?.slate ?? null,
        pass: take?.pass ?? null,
        spoiled: take ? isSpoiled(take) : null,
        candidate: chain?.name ?? null,
        tape: chain?.tape.letters ?? null,
        condition: take ? conditionOf(names, take, setup) : {},
        startedAtMs: take?.startedAtMs ?? null,
        windMs: take?.windMs ?? null,
        noiseDba: take?.noiseDba ?? null,
        note: take?.note ?? '',
        file: file.name,
        sha256: file.sha256,
        channels: channels.map((channel) => channel + 1),
        trackName,
        startS,
        endS,
        state: file.state,
        methodVersion: file.methodVersion,
        warnings: file.warnings,
        stereo,
        backup: backup && { ...backup, ofChannel: backup.ofChannel + 1 },
        figures: Object.fromEntries(RECORDING_MEASURE_IDS.map((id) => [id, figures?.[id] ?? null])),
      },
    ];
  });
  const placeOf = ({ slate, pass }: FiguresOfRecording) => (slate === null ? Number.POSITIVE_INFINITY : slate + (pass ?? 0) / 1000);
  return rows.sort((a, b) => compared(placeOf(a), placeOf(b)) || a.file.localeCompare(b.file) || (a.channels[0] ?? 0) - (b.channels[0] ?? 0) || (a.startS ?? 0) - (b.startS ?? 0));
}

const compared = (a: number, b: number) => (a === b ? 0 : a - b);

function conditionOf(names: LevelNames, take: Take, setup: Take['setups'][number] | undefined): FiguresOfRecording['condition'] {
  const condition = setupCondition(take, setup ?? { levels: {} });
  return Object.fromEntries(CONDITION_KINDS.flatMap((kind) => (condition[kind] === undefined ? [] : [[kind, levelLabel(names, kind, condition[kind])]])));
}

/** Heading of a figure in a table: its name, its unit and its id, by which it is found in docs/methods.md and in JSON. */
const heading = (id: MeasureId) => `${MEASURES[id].label}${MEASURES[id].unit ? `, ${MEASURES[id].unit}` : ''} (${id})`;

/** All figures of all recordings as CSV, a row each; kinds of condition and figures that no recording has are left out. */
export function figuresCsv(rows: readonly FiguresOfRecording[]): string {
  const kinds = CONDITION_KINDS.filter((kind) => rows.some(({ condition }) => condition[kind] !== undefined));
  const ids = RECORDING_MEASURE_IDS.filter((id) => rows.some(({ figures }) => figures[id] !== null));
  const [anyStereo, anyBackup] = [rows.some(({ stereo }) => stereo !== null), rows.some(({ backup }) => backup !== null)];
  const cells = rows.map((row) => ({
    Slate: row.slate,
    Pass: row.pass,
    Spoiled: row.spoiled === null ? null : row.spoiled ? 'yes' : 'no',
    Candidate: row.candidate,
    Tape: row.tape,
    ...Object.fromEntries(kinds.map((kind) => [kind, row.condition[kind] ?? null])),
    Started: row.startedAtMs === null ? null : new Date(row.startedAtMs).toISOString(),
    'Wind, m/s': row.windMs,
    'Noise, dB A': row.noiseDba,
    File: row.file,
    Channel: row.channels.join(' and '),
    Track: row.trackName,
    ...(anyStereo ? { 'Correlation of channels': row.stereo?.correlation ?? null, 'Lost in mono, dB': row.stereo?.monoLossDb ?? null } : {}),
    ...(anyBackup
      ? { 'Backup of channel': row.backup?.ofChannel ?? null, 'Backup of file': row.backup && (row.backup.ofFile?.name ?? row.file), 'Lower by, dB': row.backup?.lowerByDb ?? null }
      : {}),
    'From, s': row.startS,
    'To, s': row.endS,
    'Method version': row.methodVersion,
    ...Object.fromEntries(ids.map((id) => [heading(id), row.figures[id] ?? null])),
    Remarks: [row.note, ...row.warnings].filter((each) => each !== '').join('; '),
  }));
  const columns = [
    'Slate',
    'Pass',
    'Spoiled',
    'Candidate',
    'Tape',
    ...kinds,
    'Started',
    'Wind, m/s',
    'Noise, dB A',
    'File',
    'Channel',
    'Track',
    ...(anyStereo ? ['Correlation of channels', 'Lost in mono, dB'] : []),
    ...(anyBackup ? ['Backup of channel', 'Backup of file', 'Lower by, dB'] : []),
    'From, s',
    'To, s',
    'Method version',
  ];
  return toCsv([...columns, ...ids.map(heading), 'Remarks'], cells);
}

/** The same as a document that explains itself: each figure with its name, unit, which way is better and where it is defined. */
export function figuresJson(trial: string, rows: readonly FiguresOfRecording[]): object {
  const measures = Object.fromEntries(
    RECORDING_MEASURE_IDS.map((id) => [id, { label: MEASURES[id].label, unit: MEASURES[id].unit, better: MEASURES[id].better, method: MEASURES[id].method }]),
  );
  return { trial, measures, recordings: rows };
}
