import type { Entered } from '@marvet/core/contract/door';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type ApiTrouble, api, troubleText } from '../../data/api.ts';
import { useWhoAmIQuery } from '../../data/door.ts';
import { keep, kept } from '../../data/keep.ts';
import { Field } from '../../parts/fields.tsx';
import { RailFoot } from '../../parts/RailFoot.tsx';
import { Sheet } from '../../parts/states.tsx';
import { Trust } from './Trust.tsx';

const { useEnterMutation } = api.injectEndpoints({
  endpoints: (build) => ({ enter: build.mutation<Entered, { code: string; name: string }>({ query: (body) => ({ url: 'door/enter', method: 'POST', body }) }) }),
});

/** The page at which a code is typed on a phone. */
export function Enter() {
  const me = useWhoAmIQuery();
  const [name, setName] = useState(() => kept('device', { name: '' }).name);
  // The code of a picture stands behind the sign of the address, which no server ever sees.
  const [code, setCode] = useState(() => /^#(\d{6})$/.exec(window.location.hash)?.[1] ?? '');
  const [enter, { error, isLoading }] = useEnterMutation();
  useEffect(() => {
    if (window.location.hash) window.history.replaceState(null, '', window.location.pathname);
  }, []);
  const guest = me.data?.guest;
  useEffect(() => {
    if (guest) window.location.replace(guest.role === 'log' ? `/trials/${guest.trialId}/field` : `/listen/${guest.listenerId}`);
  }, [guest]);
  const fields = (error as Partial<ApiTrouble> | undefined)?.fields ?? {};
  return (
    <main className="front enter">
      <div className="row-line apart">
        <h1>Come in</h1>
        <RailFoot />
      </div>
      <Sheet title="With the code that the laptop shows">
        <Form
          noValidate
          className="stack"
          onSubmit={(event) => {
            event.preventDefault();
            keep('device', { name });
            void enter({ code, name }).then(({ data }) => data && window.location.assign(data.goTo));
          }}
        >
          <Field label="Code, six digits" error={fields.code}>
            {(id) => (
              <Form.Control
                id={id}
                className="door-digits mono"
                inputMode="numeric"
                autoComplete="one-time-code"
                maxLength={7}
                value={code}
                onChange={(event) => setCode(event.target.value)}
              />
            )}
          </Field>
          <Field label="What this device is called" error={fields.name} help="It stands beside every line that is logged here.">
            {(id) => <Form.Control id={id} maxLength={120} value={name} placeholder="assistant's phone" onChange={(event) => setName(event.target.value)} />}
          </Field>
          {error && Object.keys(fields).length === 0 && (
            <div className="trouble" role="alert">
              {troubleText(error)}
            </div>
          )}
          <Button type="submit" size="lg" disabled={isLoading || code.replace(/\s/g, '').length !== 6 || name.trim() === ''}>
            {isLoading ? 'Asking the laptop' : 'Come in'}
          </Button>
          <p className="small soft mb-0">A code is good once, for two minutes. After a wrong one the next try takes longer.</p>
        </Form>
      </Sheet>
      <Trust />
    </main>
  );
}
