import { type Caution, cautionTitle, distinctCautions } from '@marvet/core/domain/caution';
import { TriangleAlert } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { cautionDismissed } from '../data/look.ts';
import { useAppDispatch, useAppSelector } from '../data/store.ts';

const NARROW = '(max-width: 600px)';

/** Cautions that this person has not put away. They never stand in the way of the work. */
export function Cautions({ cautions, foldable = false }: { cautions: readonly Caution[]; foldable?: boolean | 'always' }) {
  const dispatch = useAppDispatch();
  const dismissed = useAppSelector((state) => state.look.dismissedCautions);
  const shown = distinctCautions(cautions).filter((caution) => !dismissed.includes(cautionTitle(caution)));
  if (shown.length === 0) return null;
  // Where something is held in the hand the keys must stay within reach: the dangers are named in a line, and open on a tap.
  if (foldable === 'always' || (foldable && window.matchMedia(NARROW).matches)) {
    return (
      <details className="caution cautions-folded">
        <summary>
          <TriangleAlert size={18} aria-hidden className="flex-shrink-0" /> {shown.map(cautionTitle).join(', ')}
        </summary>
        <Cautions cautions={cautions} />
      </details>
    );
  }
  return (
    <div className="caution-list">
      {shown.map((caution) => (
        <div key={caution.id} className="caution" role="note">
          <TriangleAlert size={18} aria-hidden className="flex-shrink-0 mt-1" />
          <span className="grow">
            <strong>{cautionTitle(caution)}.</strong> {caution.text}
          </span>
          <Button
            size="sm"
            variant="plain"
            className="no-print"
            aria-label={`Put away: ${cautionTitle(caution)}`}
            onClick={() => dispatch(cautionDismissed(cautionTitle(caution)))}
          >
            Put away
          </Button>
        </div>
      ))}
    </div>
  );
}
