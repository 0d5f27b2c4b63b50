import type { HiddenCheck } from '@marvet/core/domain/round';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { heardAt } from '@marvet/core/listen/hiddenChecks';
import type { ListenerRow, RoundRow } from '../store/records.ts';

/** What a listener heard under which letter: its recording, and whether it was a hidden check. Not for the page before identities are open. */
export function heardUnder(round: RoundRow, { order }: Pick<ListenerRow, 'order'>): { letters: Record<string, string>; checks: Record<string, HiddenCheck> } {
  const heard = order.flatMap((place, index) => {
    const found = heardAt(round, place);
    return found ? [{ letter: BLIND_LETTERS[index] as string, ...found }] : [];
  });
  return {
    letters: Object.fromEntries(heard.map(({ letter, of }) => [letter, round.recordingIds[of] as string])),
    checks: Object.fromEntries(heard.flatMap(({ letter, check }) => (check ? [[letter, check]] : []))),
  };
}
