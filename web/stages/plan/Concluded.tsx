import type { FactorKind } from '@marvet/core/domain/factor';
import type { FactorConclusion } from '@marvet/core/plan/design/conclusions';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { Check, Minus, X } from 'lucide-react';
import { Link } from 'react-router';
import { Sheet } from '../../parts/states.tsx';
import { factorName, type PlanPartProps } from './planPart.ts';

const HOW: Record<FactorConclusion['how'], string> = {
  fair: 'by fair pairs',
  average: 'on average over the other factors only',
  none: 'not at all',
};

/** What the plan lets one conclude: each factor, and each two of them together. */
export function Concluded({ plan, worked }: PlanPartProps) {
  if (!worked) return <Sheet title="What can be concluded">{null}</Sheet>;
  const { factors, interactions } = worked.conclusions;
  const lost = interactions.filter((each) => !each.told);
  const aliased = interactions.filter((each) => each.aliasedWith.length > 0);
  const effectName = (effect: readonly FactorKind[]) => effect.map((kind) => factorName(plan, kind)).join(' with ');
  return (
    <Sheet title="What can be concluded">
      {factors.length === 0 && <p className="soft mb-0">Nothing is varied yet: tick a second level of something.</p>}
      <ul className="plain-list">
        {factors.map(({ kind, how, fairPairs, unpaired }) => (
          <li key={kind}>
            {how === 'fair' ? <Check size={16} aria-hidden /> : how === 'average' ? <Minus size={16} aria-hidden /> : <X size={16} aria-hidden />}
            <span>
              What the <b>{factorName(plan, kind)}</b> does: {HOW[how]}
              {fairPairs > 0 && `, ${fairPairs} of them`}.
              {unpaired.length > 0 && how !== 'none' && (
                <span className="d-block small soft">
                  No fair pair of{' '}
                  {unpaired
                    .slice(0, 3)
                    .map(([a, b]) => `${levelLabel(plan, kind, a)} and ${levelLabel(plan, kind, b)}`)
                    .join('; ')}
                  {unpaired.length > 3 && ` and ${unpaired.length - 3} more`}.
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
      {interactions.length > 0 && (
        <p className="small mb-2">
          {lost.length === 0
            ? 'For every two factors it can be told whether one matters more at some levels of the other.'
            : `It cannot be told whether one matters more at some levels of the other: ${lost.map(({ kinds: [a, b] }) => `${factorName(plan, a)} and ${factorName(plan, b)}`).join('; ')}.`}
        </p>
      )}
      {aliased.length > 0 && (
        <details className="small mb-2">
          <summary>Effects that cannot be kept apart</summary>
          <ul className="mb-0 ps-3">
            {aliased.map(({ kinds, aliasedWith }) => (
              <li key={kinds.join(' ')}>
                {effectName(kinds)} can be taken for {aliasedWith.map(effectName).join(', or ')}
              </li>
            ))}
          </ul>
        </details>
      )}
      {factors.length > 0 && (
        <Link to="/methods#plan" className="small">
          How this is worked out
        </Link>
      )}
    </Sheet>
  );
}
