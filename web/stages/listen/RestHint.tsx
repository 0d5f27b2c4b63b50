import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';

/** Ears tire: after so long without a break one is asked for. */
const REST_AFTER_MS = 20 * 60_000;

/** Asks for a rest after twenty minutes at this page, and says no more until it was one. */
export function RestHint() {
  const [due, setDue] = useState(false);
  useEffect(() => {
    if (due) return;
    const timer = setTimeout(() => setDue(true), REST_AFTER_MS);
    return () => clearTimeout(timer);
  }, [due]);
  if (!due) return null;
  return (
    <div className="caution" role="status">
      <span>You have listened for twenty minutes: rest your ears for five. What is answered is kept.</span>
      <Button size="sm" variant="outline" onClick={() => setDue(false)}>
        I have rested
      </Button>
    </div>
  );
}
