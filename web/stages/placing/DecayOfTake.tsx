import { absorptionOfDecay } from '@marvet/core/place/roomFigures';
import Form from 'react-bootstrap/Form';
import { useFigureQuery } from '../../data/work.ts';
import { KeptNumber } from '../../parts/fields.tsx';
import { useStationRecordings } from './useStationRecordings.ts';

interface DecayOfTakeProps {
  trialId: string;
  stationId: string;
  sizeM: [number, number, number];
  onUse: (absorption: number[]) => void;
}

/** What a room takes up by how it was heard to ring: in a take, or from a clap that somebody timed. */
export function DecayOfTake({ trialId, stationId, sizeM, onUse }: DecayOfTakeProps) {
  const { data: decays } = useFigureQuery({ trialId, measureId: 'character.reverberationS' });
  const heard = useStationRecordings(trialId, stationId).flatMap(({ id, name }) => (decays?.[id] ? [{ id, name, decayS: decays[id] as number }] : []));
  return (
    <details>
      <summary>Or by a decay that was measured</summary>
      <div className="stack mt-2">
        <KeptNumber
          size="sm"
          label="Decay for 60 dB, s"
          min={0.05}
          max={20}
          value={null}
          placeholder="of a clap"
          onKeep={(decayS) => decayS !== null && onUse(absorptionOfDecay(sizeM, decayS))}
        />
        {heard.length > 0 && (
          <Form.Select
            size="sm"
            aria-label="Decay of a take"
            value=""
            onChange={(event) => {
              const chosen = heard.find(({ id }) => id === event.target.value);
              if (chosen) onUse(absorptionOfDecay(sizeM, chosen.decayS));
            }}
          >
            <option value="">of speech in a take…</option>
            {heard.map(({ id, name, decayS }) => (
              <option key={id} value={id}>
                {name}: {decayS.toFixed(2)} s
              </option>
            ))}
          </Form.Select>
        )}
        <p className="small soft mb-0">All octaves then take up alike, by Eyring’s formula turned round: one decay says no more.</p>
      </div>
    </details>
  );
}
