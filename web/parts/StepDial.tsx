import { Minus, Plus } from 'lucide-react';
import { useRef } from 'react';
import Button from 'react-bootstrap/Button';

interface StepDialProps {
  label: string;
  /** Whose and what, for who does not see what stands around it. */
  name: string;
  unit: string;
  value: number | null;
  min: number;
  max: number;
  step: number;
  /** From where the first step goes. */
  from: number;
  onKeep: (value: number | null) => void;
}

/** So many pixels of a drag are one step. */
const PX_A_STEP = 12;

/** A number that is turned in steps: by its buttons, by dragging across it, or by arrow keys. It begins at a usual value; Delete makes it not seen. */
export function StepDial({ label, name, unit, value, min, max, step, from, onKeep }: StepDialProps) {
  const drag = useRef<{ x: number; start: number } | null>(null);
  const turned = (steps: number) => Math.max(min, Math.min(max, value === null ? from : value + steps * step));
  const turn = (steps: number) => onKeep(turned(steps));
  return (
    <div className="step-dial">
      <span className="small" aria-hidden>
        {label}
      </span>
      <Button variant="outline" aria-label={`${name}: less`} onClick={() => turn(-1)}>
        <Minus size={16} aria-hidden />
      </Button>
      <span
        role="spinbutton"
        tabIndex={0}
        className="mono step-dial-value"
        aria-label={name}
        aria-valuemin={min}
        aria-valuemax={max}
        aria-valuenow={value ?? from}
        aria-valuetext={value === null ? 'not seen' : `${value} ${unit}`}
        onKeyDown={(event) => {
          const steps = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 5, PageDown: -5 }[event.key];
          if (steps === undefined && event.key !== 'Delete' && event.key !== 'Backspace') return;
          // The arrows of the page go from slate to slate.
          event.preventDefault();
          event.stopPropagation();
          if (steps === undefined) onKeep(null);
          else turn(steps);
        }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { x: event.clientX, start: value ?? from };
        }}
        onPointerMove={(event) => {
          if (!drag.current) return;
          const next = Math.max(min, Math.min(max, drag.current.start + Math.round((event.clientX - drag.current.x) / PX_A_STEP) * step));
          if (next !== value) onKeep(next);
        }}
        onPointerUp={() => {
          drag.current = null;
        }}
        onPointerCancel={() => {
          drag.current = null;
        }}
      >
        {value === null ? '–' : `${String(value).replace('-', '−')} ${unit}`}
      </span>
      <Button variant="outline" aria-label={`${name}: more`} onClick={() => turn(1)}>
        <Plus size={16} aria-hidden />
      </Button>
    </div>
  );
}
