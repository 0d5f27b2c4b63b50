// Worker threads do not inherit the TypeScript loader of the main thread, so each takes it up itself.
import { register } from 'tsx/esm/api';

register();
const { default: work } = await import('./measureWorker.ts');
export default work;
