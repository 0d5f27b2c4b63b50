import { WALK_HEADINGS, WALK_SIDES, type WalkNow } from '@marvet/core/domain/walk';
import Button from 'react-bootstrap/Button';

/** Facing or turned, out or back: what holds from this moment on. */
export function WalkLegs({ now, onLeg }: { now: WalkNow; onLeg: (leg: Partial<Pick<WalkNow, 'side' | 'heading'>>) => void }) {
  return (
    <div className="walk-legs">
      <fieldset aria-label="Towards the receiver">
        {WALK_SIDES.map((side) => (
          <Button key={side} variant={now.side === side ? 'dark-ink' : 'outline'} aria-pressed={now.side === side} onClick={() => now.side !== side && onLeg({ side })}>
            {side}
            {side === 'turned' && <kbd>F</kbd>}
          </Button>
        ))}
      </fieldset>
      <fieldset aria-label="The way">
        {WALK_HEADINGS.map((heading) => (
          <Button
            key={heading}
            variant={now.heading === heading ? 'dark-ink' : 'outline'}
            aria-pressed={now.heading === heading}
            onClick={() => now.heading !== heading && onLeg({ heading })}
          >
            {heading}
            {heading === 'back' && <kbd>O</kbd>}
          </Button>
        ))}
      </fieldset>
    </div>
  );
}
