import type { Factor } from '@marvet/core/domain/factor';
import type { Placement } from '@marvet/core/domain/placement';
import type { RigRecord } from '@marvet/core/domain/rigRecord';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { usePlacementsQuery, useRigsQuery } from '../../data/records.ts';
import { placementText, rigText } from '../../parts/placeTexts.ts';
import { Trouble } from '../../parts/states.tsx';

/** Where a record is drawn in Placing. */
function drawnAt(record: Placement | RigRecord): string {
  if ('fixing' in record) return `../placing?part=body&rig=${record.id}`;
  return record.frameId ? `../placing?frame=${record.frameId}` : `../placing?part=body&placement=${record.id}`;
}

interface LevelsOfKitProps {
  trialId: string;
  /** Of placements or of rigs. */
  factor: Factor;
  onAdd(factor: Factor): void;
}

/**
 * Placements or rigs of Kit as levels: the numbers that they have are said below the levels, and those
 * that are not varied yet are offered.
 */
export function LevelsOfKit({ trialId, factor, onAdd }: LevelsOfKitProps) {
  const isRig = factor.kind === 'rig';
  const placements = usePlacementsQuery(trialId, { skip: isRig });
  const rigs = useRigsQuery(trialId, { skip: !isRig });
  const { data, error } = isRig ? rigs : placements;
  if (error) return <Trouble error={error} />;
  if (!data) return null;
  const records: (Placement | RigRecord)[] = data;
  const says = (record: Placement | RigRecord) => ('fixing' in record ? rigText(record) : placementText(record));
  const used = records.filter((record) => factor.levels.some((level) => level.id === record.id));
  const free = records.filter((record) => !used.includes(record));
  const what = isRig ? 'rig' : 'placement';
  return (
    <>
      {used.map((record) => (
        <div key={record.id} className="small soft">
          <b>{record.name}</b>: {says(record) || 'no numbers yet'}, <Link to={drawnAt(record)}>drawn</Link>
        </div>
      ))}
      {free.length > 0 && (
        <Form.Select
          size="sm"
          aria-label={`Vary a ${what} of Kit`}
          value=""
          onChange={(event) => {
            const chosen = free.find((record) => record.id === event.target.value);
            if (chosen) onAdd({ ...factor, levels: [...factor.levels, { id: chosen.id, label: chosen.name, value: null, ticked: true }] });
          }}
        >
          <option value="">A {what} of Kit</option>
          {free.map((record) => (
            <option key={record.id} value={record.id}>
              {record.name}
            </option>
          ))}
        </Form.Select>
      )}
      {records.length === 0 && (
        <div className="small soft">
          With numbers in <Link to="../kit">Kit</Link>, a {what} says more than its name.
        </div>
      )}
    </>
  );
}
