// Worker threads do not inherit the TypeScript loader of the main thread, so each takes it up itself.
import { register } from 'tsx/esm/api';

register();
const [{ judge }, { dryVoices }] = await Promise.all([import('./judge.ts'), import('./voices.ts')]);
const voices = dryVoices();
export default ({ seed, group }) => judge(seed, group, voices);
