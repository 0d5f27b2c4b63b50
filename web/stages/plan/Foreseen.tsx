import { TriangleAlert } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Sheet } from '../../parts/states.tsx';
import type { PlanPartProps } from './planPart.ts';

/** What will be unfair, before anyone goes out, each with remedies that can be applied and undone. */
export function Foreseen({ worked, onChange }: PlanPartProps) {
  if (!worked || worked.built.takes.length === 0) return null;
  return (
    <Sheet title="Fairness before the fact">
      {worked.foreseen.length === 0 ? (
        <p className="mb-0">Nothing that is varied always changes together, every two candidates meet, and none is recorded half an hour from another.</p>
      ) : (
        <ul className="plain-list">
          {worked.foreseen.map((finding) => (
            <li key={finding.text}>
              <TriangleAlert size={17} aria-hidden className="care" />
              <span className="grow">{finding.text}</span>
              <span className="row-line">
                {finding.remedies.map(({ label, patch }) => (
                  <Button key={label} size="sm" variant="outline" onClick={() => onChange(patch, label)}>
                    {label}
                  </Button>
                ))}
              </span>
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}
