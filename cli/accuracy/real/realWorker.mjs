// Worker threads do not inherit the TypeScript loader of the main thread, so each takes it up itself.
import { register } from 'tsx/esm/api';

register();
const [{ judgeReal }, { judgeCause }] = await Promise.all([import('./judgeReal.ts'), import('./causes.ts')]);
export const take = ({ seed, group, half, folder }) => judgeReal(seed, group, half, folder);
export const cause = ({ seed, cause, half, folder }) => judgeCause(seed, cause, half, folder);
