// Worker threads do not inherit the TypeScript loader of the main thread, so each takes it up itself.
import { register } from 'tsx/esm/api';

register();
const [{ trainingTake }, { grow }] = await Promise.all([import('./trainingTake.ts'), import('./grow.ts')]);
export const take = trainingTake;
export { grow };
