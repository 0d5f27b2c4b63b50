import { readNumber } from '@marvet/core/domain/readNumber';
import type { MARK_WAYS, WalkNow } from '@marvet/core/domain/walk';
import { metresOfPaces } from '@marvet/core/place/boomFigures';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';

interface WalkMarkPadProps {
  now: WalkNow;
  nextM: number | null;
  onNext: () => void;
  onMark: (distanceM: number, by: (typeof MARK_WAYS)[number]) => void;
}

const FARTHEST_M = 5000;

/** Where the talker is: the next peg with one press, or any distance in metres or paces. */
export function WalkMarkPad({ now, nextM, onNext, onMark }: WalkMarkPadProps) {
  const [text, setText] = useState('');
  const [unit, setUnit] = useState<'m' | 'paces'>('m');
  const read = readNumber(text, { min: 0, max: FARTHEST_M });
  const value = read.kind === 'number' && read.value >= 0 && read.value <= FARTHEST_M ? read.value : null;
  const keep = () => {
    if (value === null) return;
    onMark(unit === 'm' ? value : metresOfPaces(value), unit === 'm' ? 'peg' : 'paces');
    setText('');
  };
  return (
    <div className="walk-marks">
      <p className="walk-where mono mb-0" role="status">
        <span className="visually-hidden">The talker is at </span>
        {now.distanceM === null ? '–' : `${Number(now.distanceM.toFixed(1))} m`}
      </p>
      <Button variant="primary" className="walk-next" disabled={nextM === null} onClick={onNext}>
        {nextM === null ? 'No mark ahead' : `Passed ${nextM} m`}
        <kbd>M</kbd>
      </Button>
      <form
        className="walk-other"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Form.Control
          aria-label="Another distance"
          className="mono"
          inputMode="decimal"
          placeholder="other"
          value={text}
          isInvalid={text !== '' && value === null}
          onChange={(event) => setText(event.target.value)}
        />
        <Form.Select aria-label="Unit of the distance" value={unit} onChange={(event) => setUnit(event.target.value as 'm' | 'paces')}>
          <option value="m">m</option>
          <option value="paces">paces</option>
        </Form.Select>
        <Button type="submit" variant="outline" disabled={value === null}>
          Mark
        </Button>
      </form>
    </div>
  );
}
