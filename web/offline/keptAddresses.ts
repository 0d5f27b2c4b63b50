/** What of a trial a phone needs in the field, below the trial's own address. */
const OF_TRIAL = ['', '/takes', '/plan', '/stations', '/scripts', '/chains', '/placements', '/rigs', '/devices', '/preflight', '/voice-notes', '/log/written'] as const;
const OF_ALL = ['/api/items', '/api/door/me'] as const;

/** Answers that are kept on the device for Field and the run sheet of a trial. */
export const keptAddresses = (trialId: string): string[] => [...OF_TRIAL.map((part) => `/api/trials/${trialId}${part}`), ...OF_ALL];

const TRIAL = /^\/api\/trials\/[^/]+(\/[a-z/-]+)?$/;

/** Kept when it was asked for; a phone may not ask. */
const WHERE_ASKED = '/api/trials';

/** Whether an answer of this address is kept. */
export function isKept(path: string): boolean {
  const match = TRIAL.exec(path);
  return match ? OF_TRIAL.some((part) => part === (match[1] ?? '')) : path === WHERE_ASKED || OF_ALL.some((each) => each === path);
}

/** Header that says since when an answer was kept; one that comes from the server has none. */
export const KEPT_SINCE_HEADER = 'x-marvet-kept-since';

/** The page asks for addresses to be kept; the worker answers how many are. */
export interface KeepRequest {
  keep: string[];
}
export interface KeepAnswer {
  kept: number;
}
