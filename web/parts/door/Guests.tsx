import type { GuestView } from '@marvet/core/contract/door';
import Button from 'react-bootstrap/Button';
import { usePutOutMutation } from '../../data/door.ts';
import { clockText } from '../dateText.ts';
import { durationText } from '../durationText.ts';
import { Empty } from '../states.tsx';
import { useTold } from '../useTold.ts';

/** Devices that are in, or were in today. */
export function Guests({ guests }: { guests: readonly GuestView[] }) {
  const [putOut] = usePutOutMutation();
  const told = useTold();
  if (guests.length === 0) return <Empty>No device was let in yet.</Empty>;
  return (
    <div className="sheet-scroll">
      <table className="plain" aria-label="Devices that were let in">
        <thead>
          <tr>
            <th>Device</th>
            <th>May</th>
            <th>In since</th>
            <th>Last heard</th>
            <th>Its clock</th>
            <th>
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {guests.map((guest) => {
            const out = guest.putOutAtMs !== null || guest.expiresAtMs < Date.now();
            return (
              <tr key={guest.id} className={out ? 'soft' : undefined}>
                <td>
                  {guest.name}
                  {guest.refused && <div className="small alarm">{guest.refused}</div>}
                </td>
                <td>{guest.role === 'log' ? 'log' : 'listen'}</td>
                <td>{clockText(guest.enteredAtMs)}</td>
                <td>{clockText(guest.seenAtMs)}</td>
                <td>{clockWords(guest.clockBehindMs)}</td>
                <td className="text-end">
                  {out ? (
                    guest.putOutAtMs !== null ? (
                      'put out'
                    ) : (
                      'its day is over'
                    )
                  ) : (
                    <Button size="sm" variant="outline" aria-label={`Put ${guest.name} out`} onClick={() => void told(putOut(guest.id))}>
                      Put out
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** A clock against the laptop's, in words. @example clockWords(-190000) // "3 min ahead: put right" */
export function clockWords(behindMs: number | null): string {
  if (behindMs === null) return 'not known yet';
  if (behindMs === 0) return 'right';
  return `${durationText(Math.abs(behindMs) / 1000)} ${behindMs > 0 ? 'behind' : 'ahead'}: put right`;
}
