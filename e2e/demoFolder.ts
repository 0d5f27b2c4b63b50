import { fileURLToPath } from 'node:url';

/** Where the tests and the pictures keep the demo's audio; packages' cache, so that it goes with them. */
export const DEMO_FOLDER = fileURLToPath(new URL('../node_modules/.cache/marvet/demo', import.meta.url));
