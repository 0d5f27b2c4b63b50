// Runs a TypeScript program of the project after installing what is missing: with-install.mjs [--build] tsx FILE ARG...
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildPage, buildServer, checkNode, install, ROOT } from './ready.mjs';

checkNode();
install();
const args = process.argv.slice(2);
if (args[0] === '--build') {
  args.shift();
  buildPage();
  buildServer();
}
const [, file, ...rest] = args;
const { status } = spawnSync(process.execPath, ['--import', import.meta.resolve('tsx'), join(ROOT, file), ...rest], { cwd: process.env.INIT_CWD ?? ROOT, stdio: 'inherit' });
process.exit(status ?? 1);
