import { buildPage, buildServer, renderDemo } from '../scripts/ready.mjs';
import { DEMO_FOLDER } from './demoFolder.ts';

/** Before the first test: page and server are built and the demo's audio is rendered, once. */
export default function prepare(): void {
  buildPage();
  buildServer();
  renderDemo(DEMO_FOLDER);
}
