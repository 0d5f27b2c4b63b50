import Button from 'react-bootstrap/Button';
import { type Acting, actOn, actText } from './takeAct.ts';

/** Start, stop, next: the one button that never moves. */
export function ActButton(acting: Acting) {
  const { take, next } = acting;
  return (
    <Button
      className={`runner-act ${take.status}`}
      variant={take.status === 'rolling' ? 'dark-ink' : 'primary'}
      onClick={() => actOn(acting)}
      disabled={(take.status === 'done' || take.status === 'skipped') && !next}
    >
      {actText(take, next)}
      <kbd>Space</kbd>
    </Button>
  );
}
