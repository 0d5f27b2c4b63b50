// Worker threads do not inherit the TypeScript loader of the main thread, so each takes it up itself.
import { register } from 'tsx/esm/api';

register();
const { judgeReal } = await import('./judgeReal.ts');
export default ({ seed, group, half, folder }) => judgeReal(seed, group, half, folder);
