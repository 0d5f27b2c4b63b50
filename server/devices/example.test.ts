import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Device } from '@marvet/core/domain/device';
import { expect, it } from 'vitest';
import { readConfig } from '../config.ts';
import { openServices, startServer } from '../start.ts';

it('the script of docs/devices.md brings a meter in as it stands there', async () => {
  const text = await readFile(new URL('../../docs/devices.md', import.meta.url), 'utf8');
  const script = /```js\n([\s\S]*?)```/.exec(text)?.[1];
  const folder = await mkdtemp(join(tmpdir(), 'marvet-example-'));
  const server = await startServer(await openServices(join(folder, 'data')), readConfig({ PORT: '0', MARVET_DATA: join(folder, 'data') }));
  try {
    await writeFile(join(folder, 'meter.mjs'), script ?? '');
    const ask = async <Body>(method: string, path: string, body?: unknown): Promise<Body> => {
      const response = await fetch(`${server.address}/api${path}`, {
        method,
        ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
      });
      return response.json() as Promise<Body>;
    };
    const { id: trialId } = await ask<{ id: string }>('POST', '/trials', { name: 'Reed bank', question: 'How loud?' });
    const device = await ask<Device>('POST', `/trials/${trialId}/devices`, { name: 'Meter', way: { by: 'posted' } });
    const child = spawn(process.execPath, [join(folder, 'meter.mjs'), `${server.address}/api/trials/${trialId}/devices/${device.id}/lines`], {
      stdio: ['pipe', 'inherit', 'inherit'],
    });
    child.stdin.end('41.5\n42.5\n43.5\n');
    expect(await new Promise((resolve) => child.once('exit', resolve))).toBe(0);
    const [live] = await ask<{ link: string; values: object; troubles: unknown[] }[]>('GET', `/trials/${trialId}/devices/live`);
    expect(live).toMatchObject({ link: 'live', values: { la: 43.5 }, troubles: [] });
  } finally {
    await server.close();
    await rm(folder, { recursive: true, force: true });
  }
});
