import type { Check } from '@marvet/core/chain/preflight';
import { ListChecks } from 'lucide-react';
import { Link } from 'react-router';

/** What of the pre-flight nobody ticked, for the chains of this take. It never stands in the way of rolling. */
export function NotChecked({ checks }: { checks: Check[] }) {
  if (checks.length === 0) return null;
  const byUnit = new Map<string, string[]>();
  for (const check of checks) byUnit.set(check.unit, [...(byUnit.get(check.unit) ?? []), check.text]);
  return (
    <details className="caution not-checked">
      <summary>
        <ListChecks size={18} aria-hidden /> {checks.length} {checks.length === 1 ? 'check is' : 'checks are'} open: {shortList([...byUnit.keys()])}
      </summary>
      <ul>
        {[...byUnit].map(([unit, texts]) => (
          <li key={unit}>
            <b>{unit}</b>: {texts.join('; ')}
          </li>
        ))}
      </ul>
      <Link to="../kit?part=preflight" relative="path">
        Tick them in Kit
      </Link>
    </details>
  );
}

const SHOWN = 2;

const shortList = (names: readonly string[]) => (names.length > SHOWN + 1 ? `${names.slice(0, SHOWN).join(', ')} and ${names.length - SHOWN} more` : names.join(', '));
