import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useAddListenerMutation } from '../../data/judging.ts';
import { Trouble } from '../../parts/states.tsx';

/** A seat for one more listener of a round. */
export function NewListener({ trialId, roundId }: { trialId: string; roundId: string }) {
  const [add, { error, isLoading }] = useAddListenerMutation();
  const [name, setName] = useState('');
  const [listenedOn, setListenedOn] = useState('');
  return (
    <Form
      className="row-line border-top pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void add({ trialId, roundId, draft: { name, listenedOn } }).then(({ data }) => data && window.location.assign(`/listen/${data.id}`));
      }}
    >
      <Form.Control className="grow w-auto" aria-label="Listener" placeholder="who listens" maxLength={120} value={name} onChange={(event) => setName(event.target.value)} />
      <Form.Control
        className="grow w-auto"
        aria-label="Listened on"
        placeholder="on what: closed headphones, buds, loudspeakers"
        maxLength={120}
        value={listenedOn}
        onChange={(event) => setListenedOn(event.target.value)}
      />
      <Button type="submit" disabled={!name.trim() || !listenedOn.trim() || isLoading}>
        Listen blind
      </Button>
      <Trouble error={error} />
    </Form>
  );
}
