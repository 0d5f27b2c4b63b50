import { type Moment, momentName } from '@marvet/core/domain/moment';
import { Flag, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useAddMomentMutation, useChangeMomentMutation, useMomentsQuery } from '../../data/judging.ts';
import { KeptText } from '../../parts/fields.tsx';
import { Loaded, Trouble } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';

interface MomentsProps {
  trialId: string;
  /** The recording that is heard, as it is called here, and its letter. */
  recordingId: string;
  letter: string;
  /** Where it is heard now, and the clip within it, in seconds of the recording. */
  atS: number;
  window: readonly [fromS: number, toS: number];
  onSeek(atS: number): void;
}

const within = ({ atS }: Moment, [fromS, toS]: MomentsProps['window']) => atS >= fromS && atS <= toS;

/** Marks and notes at a moment of the clip that is heard: set where it is, heard again by a press, changed, taken away. */
export function Moments({ trialId, recordingId, letter, atS, window, onSeek }: MomentsProps) {
  const query = useMomentsQuery(trialId);
  const [add, { error, isLoading }] = useAddMomentMutation();
  const [change, { error: notChanged }] = useChangeMomentMutation();
  const bin = useBin(trialId, 'moment');
  const [note, setNote] = useState('');
  const mark = () => void add({ trialId, draft: { recordingId, atS: Math.max(0, atS), note: note.trim() } }).then(({ data }) => data && setNote(''));
  return (
    <section aria-label={`Notes on ${letter}`} className="stack gap-2 mt-2">
      <Form
        className="row-line"
        onSubmit={(event) => {
          event.preventDefault();
          mark();
        }}
      >
        <Form.Control
          className="grow w-auto"
          size="sm"
          aria-label={`What is heard in ${letter} here`}
          placeholder={`what is heard in ${letter} here`}
          maxLength={4000}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        <Button size="sm" variant="outline" type="submit" disabled={isLoading}>
          <Flag size={14} aria-hidden /> Mark {(atS - window[0]).toFixed(1)} s
        </Button>
      </Form>
      <Trouble error={error ?? notChanged} />
      <Loaded of={[query]}>
        {() => {
          const here = query.data!.filter((moment) => moment.recordingId === recordingId && within(moment, window));
          if (here.length === 0) return <p className="small soft mb-0">No note on {letter} yet. Notes stay with the recording.</p>;
          return here.map((moment) => (
            <div key={moment.id} className="row-line">
              <Button size="sm" variant="plain" className="mono" onClick={() => onSeek(moment.atS)} aria-label={`Hear ${momentName(moment)}`}>
                {(moment.atS - window[0]).toFixed(1)} s
              </Button>
              <div className="grow">
                <KeptText
                  label={`Note at ${(moment.atS - window[0]).toFixed(1)} s`}
                  hideLabel
                  maxLength={4000}
                  placeholder="marked, without a note"
                  value={moment.note}
                  onKeep={(next) => void change({ trialId, id: moment.id, note: next })}
                />
              </div>
              <Button size="sm" variant="plain" aria-label={`Delete ${momentName(moment)}`} onClick={() => bin(moment.id, momentName(moment))}>
                <Trash2 size={14} aria-hidden />
              </Button>
            </div>
          ));
        }}
      </Loaded>
    </section>
  );
}
