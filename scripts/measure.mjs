// npm run measure: installs what is missing, builds the command when it is stale, and measures.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { buildCommand, checkNode, install, ROOT } from './ready.mjs';

checkNode();
install();
buildCommand();
// Files are named from where the command was called.
if (process.env.INIT_CWD) process.chdir(process.env.INIT_CWD);
await import(pathToFileURL(join(ROOT, 'dist', 'cli', 'measure.mjs')).href);
