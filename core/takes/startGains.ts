import type { Gains, Take, TakeSetup } from '../domain/take.ts';

/**
 * Gains with which a take starts: what stood at the same candidate in the take that was started last, since nobody turns a knob between
 * two takes without a reason; where it was not recorded yet, what Kit has set.
 * @param kit Kit's gains by setup
 */
export function startGains(takes: readonly Take[], take: Pick<Take, 'id' | 'setups'>, kit: Record<string, Gains>): Record<string, Gains> {
  const before = takes.filter((each) => each.id !== take.id && each.startedAtMs !== null).sort((a, b) => (b.startedAtMs ?? 0) - (a.startedAtMs ?? 0));
  const lastOf = ({ candidateId }: TakeSetup): Gains => {
    for (const { setups, gains } of before) {
      // Of several setups of one candidate the one that held last.
      const own = setups.findLast((setup) => setup.candidateId === candidateId && gains[setup.id]);
      if (own) return gains[own.id] ?? {};
    }
    return {};
  };
  return Object.fromEntries(
    take.setups.flatMap((setup) => {
      const gains = { ...kit[setup.id], ...lastOf(setup) };
      return Object.keys(gains).length > 0 ? [[setup.id, gains]] : [];
    }),
  );
}
