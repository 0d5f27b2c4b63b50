import type { StoredFrame } from '@marvet/core/domain/frame';
import type { Acoustics } from '@marvet/core/domain/station';
import type { SetupToHear } from '@marvet/core/place/hearSetups';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { boomNames } from './boomWords.ts';
import { HearSetups } from './HearSetups.tsx';
import type { CandidateMicrophone } from './roomLines.ts';

interface HearFrameProps {
  frame: StoredFrame;
  place: Acoustics;
  candidates: readonly CandidateMicrophone[];
}

/** So many are heard side by side; more nobody keeps apart. */
const MOST = 6;

/** Hears the booms of a frame as they are drawn, or every candidate's own microphone where one of them is. */
export function HearFrame({ frame, place, candidates }: HearFrameProps) {
  const [boomId, setBoomId] = useState('');
  const names = boomNames(frame.booms);
  const boom = frame.booms.find(({ id }) => id === boomId);
  const setups: { name: string; setup: SetupToHear }[] = boom
    ? candidates.slice(0, MOST).map(({ id, name, pattern, selfNoiseDba }) => ({
        name,
        setup: { kind: 'boom', id, boom: { ...boom, ...pattern }, ...(selfNoiseDba === null ? {} : { selfNoiseDba }) },
      }))
    : frame.booms.map((each, index) => ({ name: names[index] as string, setup: { kind: 'boom', id: each.id, boom: each } }));
  return (
    <HearSetups
      setups={setups}
      talkers={frame.talkers}
      place={place}
      what="The frame"
      seed={frame.name}
      more={
        candidates.length > 0 && (
          <Form.Select size="sm" className="mt-2" aria-label="Which microphones" value={boom ? boomId : ''} onChange={(event) => setBoomId(event.target.value)}>
            <option value="">the booms as they are drawn</option>
            {frame.booms.map(({ id }, index) => (
              <option key={id} value={id}>
                {candidates.length === 1 ? 'the candidate' : `the ${candidates.length} candidates`} {names[index]}
              </option>
            ))}
          </Form.Select>
        )
      }
    />
  );
}
