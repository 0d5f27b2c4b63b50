import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';

/** From slate to slate, with what stands between the two buttons. */
export function SlateSteps({ onStep, children }: { onStep: (step: 1 | -1) => void; children: ReactNode }) {
  return (
    <div className="row-line apart flex-nowrap">
      <Button variant="plain" className="step" aria-label="Slate before" onClick={() => onStep(-1)}>
        <ChevronLeft aria-hidden />
      </Button>
      {children}
      <Button variant="plain" className="step" aria-label="Slate after" onClick={() => onStep(1)}>
        <ChevronRight aria-hidden />
      </Button>
    </div>
  );
}
