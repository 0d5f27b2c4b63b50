import { octavesOfThirds } from '@marvet/core/place/noiseKinds';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useRecordingQuery } from '../../data/work.ts';
import { useStationRecordings } from './useStationRecordings.ts';

/** Takes a spectrum of noise from a recording that was made at a station. */
export function SpectrumOfTake({ trialId, stationId, known, onUse }: { trialId: string; stationId: string; known: boolean; onUse: (octavesDb: number[]) => void }) {
  const recordings = useStationRecordings(trialId, stationId);
  const [id, setId] = useState<string | null>(null);
  const { data } = useRecordingQuery({ trialId, id: id ?? '' }, { skip: id === null });
  const octaves = data?.id === id && data.report ? octavesOfThirds(data.report.spectrum.noiseDb) : null;
  if (recordings.length === 0) return <p className="small soft mb-0">No recording was measured here yet: until then it sounds alike in all octaves.</p>;
  return (
    <div className="stack">
      <Form.Select size="sm" aria-label="Whose noise" value={id ?? ''} onChange={(event) => setId(event.target.value || null)}>
        <option value="">{known ? 'has a spectrum of its own; another…' : 'noise of a recording…'}</option>
        {recordings.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </Form.Select>
      {octaves && (
        <button type="button" className="btn btn-sm btn-outline" onClick={() => onUse(octaves)}>
          Use its noise
        </button>
      )}
      {data?.id === id && data.report && !octaves && <p className="small soft mb-0">Nothing but words in it: no noise to take.</p>}
    </div>
  );
}
