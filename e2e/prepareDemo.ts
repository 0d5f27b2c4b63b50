import { buildPage, renderDemo } from '../scripts/ready.mjs';
import { DEMO_FOLDER } from './demoFolder.ts';

/** Before the first test: the page is built and the demo's audio is rendered, once. */
export default function prepare(): void {
  buildPage();
  renderDemo(DEMO_FOLDER);
}
