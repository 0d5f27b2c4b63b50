import type { WithinKind } from './factor.ts';

/** Something at the gear that is on or off, and may be thrown while a take runs. */
export const SWITCHES = [
  { id: 'nr', off: 'noise reduction off', on: 'noise reduction on' },
  { id: 'lim', off: 'limiter out', on: 'limiter in' },
  { id: 'lc', off: 'low-cut out', on: 'low-cut in' },
  { id: 'agc', off: 'automatic level off', on: 'automatic level on' },
  { id: 'pad', off: 'pad out', on: 'pad in' },
] as const;
export type SwitchId = (typeof SWITCHES)[number]['id'];

/** The kind of level under which switches of the gear stand. */
export const SWITCHED_KIND = 'processing' as const satisfies WithinKind;
const PREFIX = 'sw:';

/** How known switches stand, as the id of a level: the same states give the same id, so that takes with them can be compared. */
function levelOf(states: Partial<Record<SwitchId, boolean>>): string {
  const told = SWITCHES.flatMap(({ id }) => (states[id] === undefined ? [] : [`${id}${states[id] ? 1 : 0}`]));
  return `${PREFIX}${told.join(',')}`;
}

/** How switches stand by the id of a level; empty where it is another level. */
export function switchStates(levelId: string | undefined): Partial<Record<SwitchId, boolean>> {
  if (!levelId?.startsWith(PREFIX)) return {};
  return Object.fromEntries(
    levelId
      .slice(PREFIX.length)
      .split(',')
      .flatMap((part) => {
        const known = SWITCHES.find(({ id }) => part === `${id}1` || part === `${id}0`);
        return known ? [[known.id, part.endsWith('1')]] : [];
      }),
  );
}

/** Whether a level was made by throwing a switch, and not by the plan. */
export const isSwitched = (levelId: string | undefined): boolean => levelId?.startsWith(PREFIX) ?? false;

/** The words of such a level; null where it is another. @example switchWords('sw:nr1,lim0') // "noise reduction on, limiter out" */
export function switchWords(levelId: string): string | null {
  const states = switchStates(levelId);
  const words = SWITCHES.flatMap(({ id, on, off }) => (states[id] === undefined ? [] : [states[id] ? on : off]));
  return words.length > 0 ? words.join(', ') : null;
}

/**
 * The levels before and after a switch was thrown. Whoever throws it to on says by that that it was off before.
 * @param levelId of the processing so far
 */
export function thrown(levelId: string | undefined, id: SwitchId, on: boolean): { before: string; after: string } {
  const states = switchStates(levelId);
  return { before: levelOf({ ...states, [id]: states[id] ?? !on }), after: levelOf({ ...states, [id]: on }) };
}
