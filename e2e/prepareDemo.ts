import { buildPage, buildServer, madeOnce, renderDemo } from '../scripts/ready.mjs';
import { DEMO_DATA, DEMO_FOLDER } from './demoFolder.ts';
import { runMarvet } from './marvet.ts';

/** Before the first test: page and server are built, and the demo is rendered, brought in and measured, once. */
export default async function prepare(): Promise<void> {
  buildPage();
  buildServer();
  renderDemo(DEMO_FOLDER);
  await madeOnce('demo-data', ['server', 'core', 'demo'], DEMO_DATA, async () => {
    const marvet = await runMarvet({ dataFolder: DEMO_DATA, demo: DEMO_FOLDER });
    await marvet.stop();
  });
}
