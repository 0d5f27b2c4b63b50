import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const start = (environment: Record<string, string>) => {
  const { status, stderr, stdout } = spawnSync(process.execPath, [join(ROOT, 'scripts', 'start.mjs')], {
    cwd: ROOT,
    env: { ...process.env, ...environment },
    encoding: 'utf8',
    timeout: 60_000,
  });
  return { status, said: (stderr + stdout).trim() };
};

let folder: string;
test.beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'marvet-start-'));
});
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('a taken port gets one line and a status that is not 0', async () => {
  const taken = createServer();
  await new Promise<void>((resolve) => taken.listen(0, '127.0.0.1', resolve));
  const { port } = taken.address() as { port: number };
  const { status, said } = start({ PORT: String(port), MARVET_DATA: folder });
  taken.close();
  expect(status).toBe(1);
  expect(said).toBe(`Port ${port} is taken. Stop what uses it, or choose another with PORT.`);
});

test('a data folder that cannot be used gets one line', () => {
  const file = join(folder, 'a-file');
  writeFileSync(file, '');
  const { status, said } = start({ PORT: '0', MARVET_DATA: join(file, 'data') });
  expect(status).toBe(1);
  expect(said).toMatch(/^The data folder .* cannot be written \(ENOTDIR\)\. Choose another with MARVET_DATA\.$/);
});

test('a port that is no number gets one line', () => {
  const { status, said } = start({ PORT: 'harbour', MARVET_DATA: folder });
  expect([status, said]).toEqual([1, 'PORT must be a whole number from 0 to 65535; it is "harbour".']);
});
