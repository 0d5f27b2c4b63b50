import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Debian's packages of recorded speech and recorded things. They are fetched when the command runs, and never shipped. */
const PACKAGES = ['ktuberling-data', 'klettres-data', 'asterisk-core-sounds-ru-g722', 'sonic-pi-samples', 'hedgewars-data'];

const CACHE = fileURLToPath(new URL('../../../node_modules/.cache/marvet/recordings', import.meta.url));

/**
 * Folder with the contents of the packages, fetched on the first run.
 * @returns null, with a line on standard error, where the system has no packages to fetch or no decoder
 */
export function recordingsFolder(): string | null {
  const done = join(CACHE, 'done');
  if (existsSync(done)) return CACHE;
  if (spawnSync('ffmpeg', ['-version']).status !== 0) return without('there is no ffmpeg to decode them');
  mkdirSync(CACHE, { recursive: true });
  process.stderr.write(`Fetching ${PACKAGES.length} packages of recorded sounds, once.\n`);
  if (spawnSync('apt-get', ['download', ...PACKAGES], { cwd: CACHE }).status !== 0) return without('their packages could not be fetched');
  for (const file of readdirSync(CACHE).filter((name) => name.endsWith('.deb'))) {
    if (spawnSync('dpkg-deb', ['-x', file, '.'], { cwd: CACHE }).status !== 0) return without(`${file} could not be unpacked`);
  }
  writeFileSync(done, '');
  return CACHE;
}

function without(why: string): null {
  process.stderr.write(`Without recordings of people and things: ${why}.\n`);
  return null;
}
