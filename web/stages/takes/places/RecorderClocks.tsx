import type { RecorderOfTrial } from '@marvet/core/contract/places';
import Button from 'react-bootstrap/Button';
import { useSetRecorderClockMutation } from '../../../data/places.ts';
import { KeptNumber } from '../../../parts/fields.tsx';
import { useNotice } from '../../../parts/notices.tsx';
import { useTold } from '../../../parts/useTold.ts';
import { clockSays } from './placeWords.ts';

const FORTY_YEARS_S = 1.3e9;

/** The recorders of a trial and their clocks: found from all of their files, or set by hand; then all of them move together. */
export function RecorderClocks({ trialId, recorders }: { trialId: string; recorders: RecorderOfTrial[] }) {
  const [save] = useSetRecorderClockMutation();
  const told = useTold();
  const tell = useNotice();
  const set = async (own: RecorderOfTrial, aheadS: number | null) => {
    const { error } = await told(save({ trialId, recorder: own.recorder, aheadS }));
    if (!error)
      tell(`The clock of ${own.recorder} ${aheadS === null ? 'is found again' : 'is set'}`, () => void told(save({ trialId, recorder: own.recorder, aheadS: own.aheadByHandS })));
  };
  return (
    <table className="plain recorder-clocks" aria-label="Recorders and their clocks">
      <thead>
        <tr>
          <th>Recorder</th>
          <th className="num">Files</th>
          <th>Its clock against the log's</th>
          <th>Set by hand, s ahead</th>
        </tr>
      </thead>
      <tbody>
        {recorders.map((own) => (
          <tr key={own.recorder}>
            <th scope="row">{own.recorder}</th>
            <td className="num">{own.files}</td>
            <td>{clockSays(own)}</td>
            <td>
              <div className="row-line">
                <KeptNumber
                  label={`Seconds by which ${own.recorder} is ahead`}
                  hideLabel
                  size="sm"
                  min={-FORTY_YEARS_S}
                  max={FORTY_YEARS_S}
                  placeholder={own.clock ? own.clock.aheadS.toFixed(0) : ''}
                  value={own.aheadByHandS}
                  onKeep={(aheadS) => void set(own, aheadS)}
                />
                {own.aheadByHandS !== null && (
                  <Button size="sm" variant="plain" onClick={() => void set(own, null)}>
                    Find it
                  </Button>
                )}
              </div>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
