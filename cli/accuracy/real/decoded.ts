import { spawnSync } from 'node:child_process';

export const RATE_HZ = 48_000;

/**
 * A recording of any format as one channel at 48 kHz.
 * @throws where it cannot be decoded
 */
export function decoded(path: string): Float64Array {
  const { stdout, status, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-i', path, '-ac', '1', '-ar', String(RATE_HZ), '-f', 'f64le', '-'], { maxBuffer: 1 << 28 });
  if (status !== 0) throw new Error(`${path} could not be decoded: ${stderr}`);
  return new Float64Array(stdout.buffer.slice(stdout.byteOffset, stdout.byteOffset + 8 * Math.floor(stdout.byteLength / 8)));
}
