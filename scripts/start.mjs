// npm start: installs what is missing, builds what is stale, makes the demo once, and serves.
import { spawn } from 'node:child_process';
import { accessSync, constants, existsSync, mkdirSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { buildPage, buildServer, checkNode, giveUp, install, ROOT, renderDemo } from './ready.mjs';

checkNode();
const port = Number(process.env.PORT || 4810);
if (!Number.isInteger(port) || port < 0 || port > 65535) giveUp(`PORT must be a whole number from 0 to 65535; it is "${process.env.PORT}".`);
const data = resolve(process.env.MARVET_DATA || join(ROOT, 'data'));
try {
  mkdirSync(data, { recursive: true });
  accessSync(data, constants.W_OK);
} catch (error) {
  giveUp(`The data folder ${data} cannot be written (${error.code}). Choose another with MARVET_DATA.`);
}
// Asked before minutes of work, and again by the server itself.
await new Promise((free) => {
  const probe = createServer();
  probe.once('error', (error) =>
    giveUp(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Stop what uses it, or choose another with PORT.` : `Port ${port} cannot be used: ${error.message}`),
  );
  probe.listen(port, '127.0.0.1', () => probe.close(free));
});
install();
buildPage();
buildServer();
const demo = join(data, 'demo');
// A data folder that was used before keeps its trials; the demo is made once, at the first start, and gone on with if that was cut off.
const cutOff = existsSync(demo) && !existsSync(join(demo, 'bundle.json'));
if (!existsSync(join(data, 'marvet.sqlite')) || cutOff) renderDemo(demo);
const server = spawn(process.execPath, [join(ROOT, 'dist', 'main.mjs'), demo], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, MARVET_DATA: data, PORT: String(port) },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code, signal) => process.exit(code ?? (signal ? 1 : 0)));
