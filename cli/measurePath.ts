import { statSync } from 'node:fs';
import type { ByteSource } from '@marvet/core/audio/byteSource';
import type { SoundFormat } from '@marvet/core/audio/decode/decodedSound';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { WavError } from '@marvet/core/audio/wavFormat';
import { formatRemarks } from '@marvet/core/domain/formatRemarks';
import { measurePair } from '@marvet/core/measure/pair/pair';
import { fileTrack, type PairTrack } from '@marvet/core/measure/pair/track';
import { measureFile } from '@marvet/core/measure/report';
import { type FileReport, METHOD_VERSION, type MeasureOptions } from '@marvet/core/measure/report.types';
import { withFileSource } from './fileSource.ts';
import { openSoundFile, type SoundFile } from './soundFile.ts';

export interface MeasureJob {
  path: string;
  options: MeasureOptions;
  reference: { file: string; channel: number } | null;
}

/** One element of the output: the report of a file, or why there is none. */
export type Measured = ({ file: string; methodVersion: number } & FileReport) | { file: string; error: { code: string; message: string } };

/** Measures a file at a path, and compares its channels with the reference where there is one. */
export async function measurePath({ path, options, reference }: MeasureJob, onProgress: (share: number) => void): Promise<Measured> {
  const opened: SoundFile[] = [];
  const open = async (file: string) => {
    const sound = await openSoundFile(file);
    opened.push(sound);
    return sound;
  };
  try {
    if (statSync(path).isDirectory()) return failed(path, 'not-wav', 'It is a directory; name the files in it');
    const { wavPath, sound } = await open(path);
    const other = reference && (await open(reference.file)).wavPath;
    return withFileSource(wavPath, (source) => {
      const { report } = measureFile(source, options, (share) => onProgress(share));
      if (reference && other) withFileSource(other, (bytes) => addPairs(report, source, trackOf(bytes, reference.channel)));
      return { file: path, methodVersion: METHOD_VERSION, ...report, ...(sound ? asItCame(report, sound) : {}) };
    });
  } catch (error) {
    if (error instanceof WavError) return failed(path, error.code, error.message);
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'ENOENT' || code === 'ENOTDIR') return failed(path, 'not-found', 'There is no such file');
    if (code === 'EACCES' || code === 'EPERM') return failed(path, 'not-found', 'It may not be read; check its permissions');
    throw error;
  } finally {
    for (const { tidy } of opened) tidy();
  }
}

/** What a file was before its sound was taken out of it. */
function asItCame(report: FileReport, { container, codec, lossy, trackNames, warnings }: SoundFormat): Pick<FileReport, 'format' | 'warnings'> {
  const format = { ...report.format, container, codec, lossy, trackNames, remarks: warnings };
  return { format, warnings: [...formatRemarks(format), ...report.warnings] };
}

const PROGRESS_EVERY_MS = 150;

/** The same, telling now and then how far it is, and at the end that it is done. */
export async function measureTold(job: MeasureJob, tell: (share: number) => void): Promise<Measured> {
  let told = 0;
  const measured = await measurePath(job, (share) => {
    const now = Date.now();
    if (now - told < PROGRESS_EVERY_MS) return;
    told = now;
    tell(share);
  });
  tell(1);
  return measured;
}

/** A channel of an opened file. @throws WavError, RangeError when there is no such channel */
export function trackOf(source: ByteSource, channel: number): PairTrack {
  const layout = readWavHeader(source);
  if (channel >= layout.format.channels) throw new RangeError(`it has ${layout.format.channels} channels, counted from 0; there is no channel ${channel}`);
  return fileTrack(source, layout, channel);
}

function addPairs(report: FileReport, source: ByteSource, reference: PairTrack): void {
  const layout = readWavHeader(source);
  for (const channel of report.channels) {
    channel.pair = measurePair(fileTrack(source, layout, channel.index), reference, (message) => report.warnings.push(`channel ${channel.index + 1}: ${message}`));
  }
}

const failed = (file: string, code: string, message: string): Measured => ({ file, error: { code, message } });
