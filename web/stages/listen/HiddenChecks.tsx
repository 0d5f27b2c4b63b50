import type { HiddenCheck } from '@marvet/core/domain/round';
import Form from 'react-bootstrap/Form';

const OFFERED: { check: HiddenCheck; label: string }[] = [
  { check: 'again', label: 'one clip twice, under two letters' },
  { check: 'worse', label: 'one clip made worse on purpose' },
];

interface HiddenChecksProps {
  checks: readonly HiddenCheck[];
  onChecks(checks: HiddenCheck[]): void;
  /** Whether who judges the clip that is there twice alike weighs more in the verdict. */
  steadyWeighs: boolean;
  onSteadyWeighs(weighs: boolean): void;
}

/** What is hidden among the clips to see how steady a listener is. */
export function HiddenChecks({ checks, onChecks, steadyWeighs, onSteadyWeighs }: HiddenChecksProps) {
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
      {checks.includes('again') && (
        <Form.Check id="steady-weighs" label="who judges it alike both times weighs more in the verdict" checked={steadyWeighs} onChange={() => onSteadyWeighs(!steadyWeighs)} />
      )}
      <div className="small soft">Tells how steady a listener is. Neither counts in the verdict, and no listener learns of it before the end.</div>
    </fieldset>
  );
}
