import { type Caution, distinctCautions } from '@marvet/core/domain/caution';
import { TriangleAlert } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { cautionDismissed } from '../app/look.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

/** Cautions that this person has not put away. They never stand in the way of the work. */
export function Cautions({ cautions }: { cautions: readonly Caution[] }) {
  const dispatch = useAppDispatch();
  const dismissed = useAppSelector((state) => state.look.dismissedCautions);
  const shown = distinctCautions(cautions).filter((caution) => !dismissed.includes(`${caution.id}|${caution.title}`));
  if (shown.length === 0) return null;
  return (
    <div className="caution-list">
      {shown.map((caution) => (
        <div key={caution.id + caution.title} className="caution" role="note">
          <TriangleAlert size={18} aria-hidden className="flex-shrink-0 mt-1" />
          <span className="grow">
            <strong>{caution.title}.</strong> {caution.text}
          </span>
          <Button
            size="sm"
            variant="plain"
            className="no-print"
            aria-label={`Put away: ${caution.title}`}
            onClick={() => dispatch(cautionDismissed(`${caution.id}|${caution.title}`))}
          >
            Put away
          </Button>
        </div>
      ))}
    </div>
  );
}
