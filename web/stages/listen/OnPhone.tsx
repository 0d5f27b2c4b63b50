import type { Listener } from '@marvet/core/domain/round';
import { Smartphone } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { DoorPanel } from '../../parts/door/DoorPanel.tsx';

/** Lets a listener listen on a device of their own; it hears the clips and gives scores, and learns no more than a page here would. */
export function OnPhone({ trialId, listener }: { trialId: string; listener: Listener }) {
  const [shown, setShown] = useState(false);
  return (
    <>
      <Button size="sm" variant="plain" onClick={() => setShown(true)} aria-label={`${listener.name}: on a device of their own`}>
        <Smartphone size={15} aria-hidden /> On a phone
      </Button>
      <Modal show={shown} onHide={() => setShown(false)} size="lg" aria-labelledby="on-phone">
        <Modal.Header closeButton>
          <Modal.Title as="h2" id="on-phone">
            {listener.name} listens on a device of their own
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <DoorPanel grant={{ trialId, role: 'listen', listenerId: listener.id }} whatFor={`for ${listener.name}`} />
        </Modal.Body>
      </Modal>
    </>
  );
}
