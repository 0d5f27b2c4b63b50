import { buildServer } from '../../scripts/ready.mjs';

/** Before the first test of the server: what its worker threads run is built, if it is not as its sources are. */
export default function prepare(): void {
  buildServer();
}
