import type { RecordingRow } from '@marvet/core/contract/recordings';
import { LONGEST_WHOLE_S } from '@marvet/core/listen/clipForm';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useReelQuery } from '../../data/judging.ts';
import { durationText } from '../../parts/durationText.ts';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { Trouble } from '../../parts/states.tsx';

interface ReelToSendProps {
  trialId: string;
  recordings: readonly RecordingRow[];
  targetLufs: number;
  ceilingDbtp: number;
}

/** The clips of the tray as one file to send to others, with chapters, and the untouched files beside it. */
export function ReelToSend({ trialId, recordings, targetLufs, ceilingDbtp }: ReelToSendProps) {
  const [order, setOrder] = useState<'clip' | 'phrase'>('clip');
  const [gapS, setGapS] = useState(0.7);
  const [gaps, setGaps] = useState<'silent' | 'spoken'>('silent');
  const oneTake = new Set(recordings.map(({ takeId }) => takeId)).size === 1;
  const byPhrase = order === 'phrase' && oneTake;
  const [shown, setShown] = useState(false);
  const query = new URLSearchParams({
    recordingIds: recordings.map(({ id }) => id).join(','),
    order: byPhrase ? 'phrase' : 'clip',
    gapS: String(gapS),
    gaps,
    targetLufs: String(targetLufs),
    ceilingDbtp: String(ceilingDbtp),
  }).toString();
  const { data, error, isFetching } = useReelQuery({ trialId, query }, { skip: !shown });
  return (
    <details className="mt-3" onToggle={(event) => setShown(event.currentTarget.open)}>
      <summary>A reel to send to others</summary>
      <div className="row-line mt-2 align-items-end">
        <Field label="Order">
          {(id) => (
            <Form.Select id={id} value={byPhrase ? 'phrase' : 'clip'} onChange={(event) => setOrder(event.target.value === 'phrase' ? 'phrase' : 'clip')}>
              <option value="clip">each clip whole, one after the other</option>
              <option value="phrase" disabled={!oneTake}>
                phrase by phrase: the same words of each
              </option>
            </Form.Select>
          )}
        </Field>
        <Field label="Between them">
          {(id) => (
            <Form.Select id={id} value={gaps} onChange={(event) => setGaps(event.target.value === 'spoken' ? 'spoken' : 'silent')}>
              <option value="silent">silence</option>
              <option value="spoken">the letter of the next, spoken</option>
            </Form.Select>
          )}
        </Field>
        <KeptNumber label="Silence between, s" min={0} max={5} value={gapS} onKeep={(value) => setGapS(value ?? 0.7)} />
        {data && !error && (
          <a className="btn btn-outline" href={`/api/trials/${trialId}/reel.zip?${query}`} download>
            Fetch the reel
          </a>
        )}
        <span className="small soft" role="status">
          {isFetching
            ? 'The reel is laid out'
            : data && !error && `${data.parts} parts, ${durationText(data.lengthS)}${data.leftOutS > 0 ? `; of each clip the first ${durationText(LONGEST_WHOLE_S)}` : ''}`}
        </span>
      </div>
      <Trouble error={error} />
      <p className="small soft mb-0">
        A ZIP with the reel as WAV, its chapters as markers in it, as WebVTT and as a list; a page on which the clips are switched at once, which opens from any folder without
        Marvet; and the files that the clips are cut from, untouched. Names are in sight: for blind listening elsewhere make a round, and a page for whoever is not here.
        {oneTake ? '' : ' Phrase by phrase needs recordings of one take.'}
      </p>
    </details>
  );
}
