import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { readConfig } from './config.ts';
import { importBundle } from './exchange/importBundle.ts';
import { openServices, StartError, startServer } from './start.ts';

/** Serves until it is told to stop; the folder of the demo's bundle may be given as the first argument. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const services = await openServices(config.dataFolder);
  if (services.store.copiedTo) console.log(`The database was brought up to date; as it was before it is kept at ${services.store.copiedTo}`);
  if (services.troubles.length > 0) console.warn(`Something is wrong with the data folder. ${services.troubles.join(' ')}`);
  const demo = process.argv[2];
  if (demo && existsSync(join(demo, 'bundle.json'))) {
    let said = '';
    await importBundle(services, demo, (step, done, of) => {
      const line = `Demo: ${step === 'files' ? 'storing' : 'measuring'} ${done} of ${of} files`;
      if (line !== said && (done % 5 === 0 || done === of)) console.log(line);
      said = line;
    });
  }
  const server = await startServer(services, config);
  console.log(`Marvet is ready: ${server.address}`);
  const stop = () => {
    server.close().then(
      () => process.exit(0),
      (error: unknown) => {
        console.error('Could not be stopped cleanly:', error);
        process.exit(1);
      },
    );
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

// A mistake in one piece of work is told, and takes nobody else's work down with it.
process.on('unhandledRejection', (error) => console.error('Unexpected:', error));

main().catch((error: unknown) => {
  // What a person can mend is one line; anything else keeps its stack for whoever mends the program.
  console.error(error instanceof StartError ? error.message : error instanceof Error && error.message.startsWith('PORT') ? error.message : error);
  process.exit(1);
});
