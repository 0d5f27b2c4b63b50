import { DoorOpen } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type GrantAsked, useCloseDoorMutation, useDoorQuery, useGiveCodeMutation, useOpenDoorMutation } from '../../data/door.ts';
import { Empty, Loaded, Trouble } from '../states.tsx';
import { DoorCodeCard } from './DoorCodeCard.tsx';
import { Guests } from './Guests.tsx';

const POLL_MS = 2000;

/** The door for other devices: open it, give a code, see who is in, put out, close it. */
export function DoorPanel({ grant, whatFor }: { grant: GrantAsked; whatFor: string }) {
  const door = useDoorQuery(undefined, { pollingInterval: POLL_MS });
  const [open, opening] = useOpenDoorMutation();
  const [close, closing] = useCloseDoorMutation();
  const [give, giving] = useGiveCodeMutation();
  const [address, setAddress] = useState('');
  const [days, setDays] = useState(1);
  return (
    <Loaded of={[door]}>
      {() => {
        const { open: opened, addresses, code, guests, wrongTries } = door.data!;
        // A code for somebody else is none for this one.
        const own = code?.trialId === grant.trialId && code.role === grant.role && code.listenerId === grant.listenerId ? code : null;
        const chosen = addresses.some((each) => each.address === address) ? address : (addresses[0]?.address ?? '');
        return (
          <div className="door">
            {opened === null ? (
              <>
                <p className="mb-2">
                  The door is closed: Marvet answers to this computer only. Open it to let a phone on the same network in. What goes over the air is encrypted; a device sees only
                  what its role needs, and goes out when you say so.
                </p>
                {addresses.length === 0 ? (
                  <Empty>This computer is on no network. Join the phone and the computer to one network, or let the phone share its own, then look here again.</Empty>
                ) : (
                  <Form
                    className="row-line"
                    onSubmit={(event) => {
                      event.preventDefault();
                      void open({ address: chosen, days });
                    }}
                  >
                    <Form.Select className="w-auto" aria-label="Address of this computer" value={chosen} onChange={(event) => setAddress(event.target.value)}>
                      {addresses.map((each) => (
                        <option key={each.address} value={each.address}>
                          {each.address} ({each.name})
                        </option>
                      ))}
                    </Form.Select>
                    <Form.Select className="w-auto" aria-label="For how long" value={days} onChange={(event) => setDays(Number(event.target.value))}>
                      <option value={1}>for a day</option>
                      <option value={7}>for a week</option>
                    </Form.Select>
                    <Button type="submit" disabled={opening.isLoading}>
                      <DoorOpen size={17} aria-hidden /> Open the door
                    </Button>
                  </Form>
                )}
                <Trouble error={opening.error} />
              </>
            ) : (
              <>
                <div className="row-line apart">
                  <span>
                    Open at <b className="mono">{opened.url}</b>
                  </span>
                  <Button size="sm" variant="outline" onClick={() => void close()}>
                    Close the door
                  </Button>
                </div>
                {opened.certificateIsNew && guests.some(({ putOutAtMs }) => putOutAtMs === null) && (
                  <div className="caution" role="status">
                    The certificate is a new one: devices that were in before have to come in again.
                  </div>
                )}
                {wrongTries > 0 && (
                  <div className={wrongTries >= 5 ? 'trouble' : 'caution'} role="status">
                    {wrongTries} wrong {wrongTries === 1 ? 'code was' : 'codes were'} typed. {wrongTries >= 5 && 'If that was none of you, close the door.'}
                  </div>
                )}
                {own === null ? (
                  <Button className="align-self-start" disabled={giving.isLoading} onClick={() => void give(grant)}>
                    Give a code {whatFor}
                  </Button>
                ) : (
                  <DoorCodeCard code={own} fingerprint={opened.fingerprint} />
                )}
                <Trouble error={giving.error ?? closing.error} />
              </>
            )}
            <Guests guests={guests} />
          </div>
        );
      }}
    </Loaded>
  );
}
