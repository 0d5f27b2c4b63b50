import { fileURLToPath } from 'node:url';

const CACHE = '../node_modules/.cache/marvet';
/** Where the tests and the pictures keep the demo's audio; packages' cache, so that it goes with them. */
export const DEMO_FOLDER = fileURLToPath(new URL(`${CACHE}/demo`, import.meta.url));
/** A data folder into which the demo was brought, and in which it was measured, once; each test that looks at it has a copy. */
export const DEMO_DATA = fileURLToPath(new URL(`${CACHE}/demo-data`, import.meta.url));
