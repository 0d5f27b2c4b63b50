import { fieldWords } from '@marvet/core/domain/plainErrors';
import { useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import type { Conflict } from './useVersioned.ts';

const SHOWN = 8;

/** Two pages changed one record: what each made of it, side by side, and which shall stay. */
export function ConflictChoice({ conflict, what }: { conflict: Conflict; what: string }) {
  const { changes, touching, theirs, mine, both } = conflict;
  const panel = useRef<HTMLElement>(null);
  // What was typed may stand far down the page; the question must not go unseen.
  useEffect(() => panel.current?.scrollIntoView({ block: 'center' }), []);
  return (
    <section ref={panel} className="caution conflict" role="alert" aria-label={`${what} was changed on another page`}>
      <b>{what} was changed on another page in the meantime. Nothing was overwritten.</b>
      <table className="plain small">
        <thead>
          <tr>
            <th>Changed</th>
            <th>There</th>
            <th>Here</th>
          </tr>
        </thead>
        <tbody>
          {changes.slice(0, SHOWN).map((change) => (
            <tr key={change.path.join('/')}>
              <td>
                {pathText(change.path)} {change.by === 'both' && <b>on both</b>}
              </td>
              <td>{change.by === 'mine' ? 'as before' : valueText(change.theirs)}</td>
              <td>{change.by === 'theirs' ? 'as before' : valueText(change.mine)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {changes.length > SHOWN && <span className="small soft">and {changes.length - SHOWN} more</span>}
      <div className="row-line">
        {both && <Button onClick={both}>Keep both</Button>}
        <Button variant="outline" onClick={theirs}>
          Keep what is there
        </Button>
        <Button variant="outline" onClick={mine}>
          Keep what is here
        </Button>
        {touching && <span className="small soft">Both changed the same thing, so one has to give way.</span>}
      </div>
    </section>
  );
}

function pathText(path: readonly string[]): string {
  return path.map((part) => (/^[a-z][A-Za-z]*$/.test(part) ? fieldWords(part) : part)).join(', ') || 'All of it';
}

function valueText(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.every((each) => typeof each !== 'object') ? value.join(', ').slice(0, 80) : `${value.length} entries`;
  if (typeof value === 'object') {
    const { label, name } = value as { label?: string; name?: string };
    return label ?? name ?? 'changed';
  }
  return String(value).slice(0, 80);
}
