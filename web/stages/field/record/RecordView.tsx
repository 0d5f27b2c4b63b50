import type { Chain } from '@marvet/core/domain/chain';
import { slateLabel } from '@marvet/core/domain/take';
import { Mic } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type AudioInput, knownInputs } from '../../../audio/inputs.ts';
import { Empty, Sheet } from '../../../parts/states.tsx';
import { ActButton } from '../ActButton.tsx';
import { type Acting, stateText } from '../takeAct.ts';
import { ChannelRows } from './ChannelRows.tsx';
import { LeftRecordings } from './LeftRecordings.tsx';
import { Recorded } from './Recorded.tsx';
import { takeRecorder } from './takeRecorder.ts';
import { useRecorderState } from './useTakeRecorder.ts';
import { WhatBrowserDoes } from './WhatBrowserDoes.tsx';

/** Takes recorded straight in: which inputs, which channel is which candidate, how loud, and whether every take is recorded. */
export function RecordView({ chains, acting }: { chains: Chain[]; acting: Acting }) {
  const { open, armed, recording, trouble } = useRecorderState();
  const { take } = acting;
  return (
    <Sheet
      title="Record straight in"
      aside={
        open && (
          <Button size="sm" variant="outline" disabled={recording !== null} onClick={() => takeRecorder().close()}>
            Let the inputs go
          </Button>
        )
      }
    >
      <div className="stack">
        {trouble && (
          <div className="trouble" role="alert">
            {trouble}
          </div>
        )}
        <LeftRecordings trialId={take.trialId} takes={acting.log.takes} />
        {open === null ? (
          <ChooseInputs />
        ) : (
          <>
            <WhatBrowserDoes settings={open.settings} sampleRateHz={open.sampleRateHz} />
            <ChannelRows trialId={take.trialId} take={take} chains={chains} />
            <div className="record-act">
              <Form.Check
                type="switch"
                id="record-armed"
                label="Record every take as it is started and stopped"
                checked={armed}
                disabled={recording !== null}
                onChange={(event) => takeRecorder().arm(event.target.checked)}
              />
              <span className="row-line">
                <b className="mono">{slateLabel(take)}</b> {stateText(take)}
                <ActButton {...acting} />
              </span>
            </div>
            <Recorded />
          </>
        )}
      </div>
    </Sheet>
  );
}

function ChooseInputs() {
  const [inputs, setInputs] = useState<AudioInput[] | null>(null);
  const [chosen, setChosen] = useState<string[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  const ask = () =>
    knownInputs().then(
      (found) => {
        setInputs(found);
        setChosen(found.slice(0, 1).map(({ deviceId }) => deviceId));
      },
      (error: unknown) =>
        setRefused(
          (error as Error).name === 'NotAllowedError'
            ? 'The browser may not listen. Allow the microphone for this page, then try again.'
            : `No input can be opened: ${(error as Error).message}`,
        ),
    );
  if (inputs === null)
    return (
      <Empty>
        <p>An audio interface of this computer can be recorded as the takes run: uncompressed, slated, each channel at its candidate, and measured when the take stops.</p>
        <Button onClick={() => void ask()}>
          <Mic size={17} aria-hidden /> Look for inputs
        </Button>
        {refused && (
          <p className="alarm mt-2 mb-0" role="alert">
            {refused}
          </p>
        )}
      </Empty>
    );
  return (
    <fieldset className="stack">
      <legend className="fs-6 fw-bold">Inputs of this computer</legend>
      {inputs.map(({ deviceId, label }) => (
        <Form.Check
          key={deviceId}
          id={`input-${deviceId}`}
          label={label}
          checked={chosen.includes(deviceId)}
          onChange={(event) => setChosen((all) => (event.target.checked ? [...all, deviceId] : all.filter((each) => each !== deviceId)))}
        />
      ))}
      <Button
        className="align-self-start"
        disabled={chosen.length === 0}
        onClick={() => void takeRecorder().listen(inputs.map(({ deviceId }) => deviceId).filter((id) => chosen.includes(id)))}
      >
        Listen to {chosen.length === 1 ? 'it' : 'them'}
      </Button>
    </fieldset>
  );
}
