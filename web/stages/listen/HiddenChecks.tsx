import type { HiddenCheck } from '@marvet/core/domain/round';
import Form from 'react-bootstrap/Form';

const OFFERED: { check: HiddenCheck; label: string }[] = [
  { check: 'again', label: 'one clip twice, under two letters' },
  { check: 'worse', label: 'one clip made worse on purpose' },
];

interface HiddenChecksProps {
  checks: readonly HiddenCheck[];
  onChecks(checks: HiddenCheck[]): void;
}

/** What is hidden among the clips to see how steady a listener is. */
export function HiddenChecks({ checks, onChecks }: HiddenChecksProps) {
  return (
    <fieldset>
      <legend className="form-label">Hidden among them</legend>
      {OFFERED.map(({ check, label }) => (
        <Form.Check
          key={check}
          id={`hide-${check}`}
          label={label}
          checked={checks.includes(check)}
          onChange={() => onChecks(checks.includes(check) ? checks.filter((each) => each !== check) : [...checks, check])}
        />
      ))}
      <div className="small soft">Tells how steady a listener is. Neither counts in the verdict, and no listener learns of it before the end.</div>
    </fieldset>
  );
}
