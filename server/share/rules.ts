import type { GuestRole } from '@marvet/core/domain/guest';
import type { GuestRow } from '../store/records.ts';

type Path = (guest: Pick<GuestRow, 'trialId' | 'listenerId'>) => string;
type Rule = readonly [method: string, path: Path];

const ID = '[0-9a-f-]{36}';
const trial =
  (rest: string): Path =>
  ({ trialId }) =>
    `/api/trials/${trialId}${rest}`;
const listener =
  (rest: string): Path =>
  ({ listenerId }) =>
    `/api/listen/${listenerId}${rest}`;

/** Lists of a trial that Field and the run sheet read. */
const READ = [
  '',
  '/takes',
  '/plan',
  '/stations',
  '/scripts',
  '/chains',
  '/placements',
  '/rigs',
  '/devices',
  '/devices/live',
  '/preflight',
  '/voice-notes',
  '/events',
  '/log/written',
];

/**
 * All that a role may ask, and nothing else: an address that is not here is refused, so that one that is
 * added later is closed until somebody opens it. Each is of the device's own trial, or of its own listener.
 */
const RULES: Record<GuestRole, readonly Rule[]> = {
  log: [
    ...READ.map((path): Rule => ['GET', trial(path)]),
    ['GET', trial(`/voice-notes/${ID}`)],
    ['GET', trial(`/readings/${ID}`)],
    ['GET', trial('/plan/run-sheet.csv')],
    ['GET', trial('/plan/day.ics')],
    ['GET', () => '/api/items'],
    ['GET', () => '/api/door/me'],
    ['POST', trial('/log')],
    ['POST', trial('/voice-notes')],
    ['DELETE', trial(`/voice-notes/${ID}`)],
    ['POST', trial(`/voice-notes/${ID}/restore`)],
    ['POST', trial(`/devices/${ID}/lines`)],
    ['GET', () => '/api/photos'],
    ['POST', () => '/api/photos'],
    ['GET', () => `/api/photos/${ID}`],
    ['DELETE', () => `/api/photos/${ID}`],
    ['POST', () => `/api/photos/${ID}/restore`],
  ],
  listen: [
    ['GET', () => '/api/door/me'],
    ['GET', listener('')],
    ['GET', listener('/pieces/\\d+')],
    ['PUT', listener('/ratings')],
    ['GET', listener('/comparisons/\\d+/pieces/\\d+')],
    ['PUT', listener('/comparisons/\\d+')],
    ['PUT', listener('/orders')],
    ['POST', listener('/close')],
    ['PUT', listener('/guess')],
    ['POST', listener('/finish')],
  ],
};

/** Pages that a role may open. */
const PAGES: Record<GuestRole, readonly Path[]> = {
  log: [({ trialId }) => `/trials/${trialId}/field`, ({ trialId }) => `/trials/${trialId}/plan/run-sheet`, ({ trialId }) => `/trials/${trialId}/plan/slates`],
  listen: [({ listenerId }) => `/listen/${listenerId}`],
};

const matches = (pattern: string, path: string) => new RegExp(`^${pattern}$`).test(path);

/** Whether a device may ask this of the API. */
export function mayAsk(guest: Pick<GuestRow, 'role' | 'trialId' | 'listenerId'>, method: string, path: string): boolean {
  return RULES[guest.role].some(([verb, of]) => verb === method && matches(of(guest), path));
}

/** Whether a device may open this page. */
export function mayOpen(guest: Pick<GuestRow, 'role' | 'trialId' | 'listenerId'>, path: string): boolean {
  return PAGES[guest.role].some((of) => of(guest) === path);
}

/** The page of a device. */
export const homeOf = (guest: Pick<GuestRow, 'role' | 'trialId' | 'listenerId'>): string => (PAGES[guest.role][0] as Path)(guest);
