// What must be true before anything of Marvet can run: the right Node, the packages, the page.
// Nothing here may import a package, since there may be none yet.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const CACHE = join(ROOT, 'node_modules', '.cache', 'marvet');

/** Ends with one line when something cannot go on. */
export function giveUp(message) {
  console.error(message);
  process.exit(1);
}

/** Checks the version of Node against `engines` in package.json. */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  const right = (major === 20 && minor >= 19) || (major === 22 && minor >= 12) || major > 22;
  if (!right) giveUp(`Marvet needs Node 20.19 or later in line 20, or 22.12 or later; this is ${process.versions.node}.`);
}

/** Runs a command in the project and ends with its trouble when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
  if (error) giveUp(`${command} cannot be run: ${error.message}`);
  if (status !== 0) giveUp(`${command} ${args.join(' ')} failed.`);
}

const hashOf = (text) => createHash('sha256').update(text).digest('hex');

function kept(name) {
  const path = join(CACHE, name);
  return existsSync(path) ? readFileSync(path, 'utf8') : '';
}

function keep(name, value) {
  mkdirSync(CACHE, { recursive: true });
  writeFileSync(join(CACHE, name), value);
}

/** Installs the packages when the lock file changed since they were installed. */
export function install() {
  const lock = hashOf(readFileSync(join(ROOT, 'package-lock.json')) + process.versions.modules);
  if (kept('lock') === lock) return;
  console.error('Installing packages (npm ci); the database driver may take two minutes to compile.');
  run('npm', ['ci', '--no-fund', '--no-audit'], { stdio: ['ignore', process.stderr, 'inherit'], shell: process.platform === 'win32' });
  keep('lock', lock);
}

/** Names, sizes and times of all sources below a folder; cheap enough for every start. */
function stampOf(folders) {
  const rows = [];
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      if (entry.name === 'node_modules' || entry.name === 'dist') continue;
      const path = join(folder, entry.name);
      if (entry.isDirectory()) visit(path);
      else if (!/\.test\.tsx?$/.test(entry.name)) {
        const { size, mtimeMs } = statSync(path);
        rows.push(`${path} ${size} ${mtimeMs}`);
      }
    }
  };
  for (const folder of folders) visit(join(ROOT, folder));
  return hashOf(rows.sort().join('\n') + kept('lock'));
}

/** Builds the page when its sources changed. */
export function buildPage() {
  const stamp = stampOf(['web', 'core', 'docs']);
  if (kept('page') === stamp && existsSync(join(ROOT, 'web', 'dist', 'index.html'))) return;
  console.error('Building the page.');
  run(process.execPath, [join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js'), 'build', '--logLevel', 'warn', 'web']);
  keep('page', stamp);
}

/** Builds the server when its sources changed. */
export function buildServer() {
  const stamp = stampOf(['server', 'core']);
  if (kept('server') === stamp && existsSync(join(ROOT, 'dist', 'main.mjs'))) return;
  console.error('Building the server.');
  run(process.execPath, [join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js'), 'build', '--config', join('server', 'vite.config.ts')]);
  keep('server', stamp);
}

/**
 * Something made from sources into a folder, which stays until they change.
 * @param make makes it; the folder is gone when it is asked to
 */
export async function madeOnce(name, folders, folder, make) {
  const stamp = stampOf(folders);
  const mark = `${name}-${hashOf(folder).slice(0, 12)}`;
  if (kept(mark) === stamp && existsSync(folder)) return;
  rmSync(folder, { recursive: true, force: true });
  await make();
  keep(mark, stamp);
}

/** Builds the command that measures when its sources changed. */
export function buildCommand() {
  const stamp = stampOf(['cli', 'core']);
  if (kept('command') === stamp && existsSync(join(ROOT, 'dist', 'cli', 'measure.mjs'))) return;
  // What is printed on standard output are the figures.
  run(process.execPath, [join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js'), 'build', '--config', join('cli', 'vite.config.ts')], {
    stdio: ['ignore', process.stderr, 'inherit'],
  });
  keep('command', stamp);
}

/** Renders the demo into a folder, unless what it was made from is as it was. */
export function renderDemo(folder) {
  const stamp = stampOf(['demo', join('core', 'simulate'), join('core', 'domain')]);
  const name = `demo-${hashOf(folder).slice(0, 12)}`;
  if (kept(name) === stamp && existsSync(join(folder, 'bundle.json'))) return;
  console.error('Rendering the demo, once.');
  // What was rendered from other sources is of no use; what an interrupted run left is gone on with.
  if (kept(name) !== stamp) rmSync(folder, { recursive: true, force: true });
  keep(name, stamp);
  run(process.execPath, ['--import', 'tsx', join(ROOT, 'demo', 'make.ts'), folder]);
}
