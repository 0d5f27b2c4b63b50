import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

export const RATE_HZ = 48_000;

/**
 * A recording of any format as one channel at 48 kHz. What was decoded is kept beside the recordings: thousands of
 * short clips take a decoder longer to start than to decode.
 * @param folder with the recordings
 * @param file its path within the folder
 * @throws where it cannot be decoded
 */
export function decoded(folder: string, file: string): Float64Array {
  const kept = join(folder, 'decoded', `${createHash('sha1').update(file).digest('hex')}.f64`);
  const bytes = existsSync(kept) ? readFileSync(kept) : decodedBytes(join(folder, file));
  if (!existsSync(kept)) keep(kept, bytes);
  return new Float64Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + 8 * Math.floor(bytes.byteLength / 8)));
}

function decodedBytes(path: string): Buffer {
  const { stdout, status, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-i', path, '-ac', '1', '-ar', String(RATE_HZ), '-f', 'f64le', '-'], { maxBuffer: 1 << 28 });
  if (status !== 0) throw new Error(`${path} could not be decoded: ${stderr}`);
  return stdout;
}

/** Written under a name of its own first: another thread may read or write the same one. */
function keep(path: string, bytes: Buffer): void {
  mkdirSync(dirname(path), { recursive: true });
  const own = `${path}.${process.pid}.${performance.now()}`;
  writeFileSync(own, bytes);
  renameSync(own, path);
}
