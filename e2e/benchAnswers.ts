import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { readConfig } from '../server/config.ts';
import { closeServices, openServices, startServer } from '../server/start.ts';
import { seedTakes } from './seedTakes.ts';
import { ask, smallTrial } from './smallTrial.ts';

const RECORDINGS = 5000;
const TIMES = 7;
/** What the budget allows. */
const MOST_MS = 60;
const MOST_BYTES = 1_000_000;

/** Prints what every view's answers weigh on the wire and how long they take, at 5,000 recordings. */
async function benchAnswers(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'marvet-bench-'));
  let services = await openServices(folder);
  let server = await startServer(services, readConfig({ PORT: '0', MARVET_DATA: folder }));
  try {
    const { trialId, chainIds } = await smallTrial(server.address);
    for (let made = 0; made < 8; made++)
      await ask(server.address, 'POST', `/trials/${trialId}/criteria`, {
        name: `Measured ${made}`,
        kind: 'measured',
        measureId: 'noise.snrDb',
        weight: 1,
        best: 40,
        worst: 0,
        position: made,
      });
    seedTakes(folder, trialId, chainIds, RECORDINGS);
    const [recording] = await ask<{ id: string; fileId: string }[]>(server.address, 'GET', `/trials/${trialId}/recordings`);
    const at = `/trials/${trialId}`;
    const paths = [
      at,
      '/trials',
      `${at}/takes`,
      `${at}/recordings`,
      `${at}/files`,
      `${at}/recordings/figure/intelligibility.sii`,
      `${at}/recordings/${recording?.id}`,
      `${at}/files/${recording?.fileId}`,
      `${at}/plan`,
      `${at}/criteria`,
      `${at}/rounds`,
      `${at}/verdict`,
      `${at}/bin`,
    ];
    console.log(`Answers at ${RECORDINGS} recordings, median of ${TIMES}, and bytes on the wire (at most ${MOST_MS} ms and ${MOST_BYTES / 1e6} MB):`);
    const verdict = `${at}/verdict`;
    const after = (path: string, what: string, before: () => Promise<unknown>) => ({ path, what, before });
    const startAgain = async () => {
      await server.close();
      services = await openServices(folder);
      server = await startServer(services, readConfig({ PORT: '0', MARVET_DATA: folder }));
      // The first answer of all also opens the connection.
      await ask(server.address, 'GET', '/health');
    };
    const asked = [
      ...paths.map((path) => after(path, '', async () => undefined)),
      after(verdict, ', first after a write', () => ask(server.address, 'POST', '/items', { kind: 'microphone', name: 'Written in between' })),
      after(verdict, ', first after a start', startAgain),
    ];
    for (const { path, what, before } of asked) {
      const times: number[] = [];
      let bytes = 0;
      for (let time = 0; time < TIMES; time++) {
        await before();
        const start = process.hrtime.bigint();
        const response = await fetch(`${server.address}/api${path}`, { headers: { 'accept-encoding': 'identity' } });
        const body = Buffer.from(await response.arrayBuffer());
        times.push(Number(process.hrtime.bigint() - start) / 1e6);
        bytes = gzipSync(body).byteLength;
      }
      const median = times.sort((a, b) => a - b)[TIMES >> 1] as number;
      const told = median > MOST_MS || bytes > MOST_BYTES ? '  OVER' : '';
      console.log(
        `  ${path
          .replace(trialId, ':trial')
          .replace(/[0-9a-f-]{36}/, ':id')
          .concat(what)
          .padEnd(52)} ${median.toFixed(1).padStart(7)} ms ${(bytes / 1000).toFixed(0).padStart(6)} kB${told}`,
      );
    }
  } finally {
    await server.close().catch(() => closeServices(services));
    rmSync(folder, { recursive: true, force: true });
  }
}

await benchAnswers();
