// Worker threads do not inherit the TypeScript loader of the main thread, so each takes it up itself.
import { register } from 'tsx/esm/api';

register();
const { default: work } = await import('./worker.ts');
export default work;
