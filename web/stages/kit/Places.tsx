import type { Placement } from '@marvet/core/domain/placement';
import type { RigRecord } from '@marvet/core/domain/rigRecord';
import { Pencil, Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { usePlacementsQuery, useRigsQuery } from '../../data/records.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';
import { PlacementDialog } from './PlacementDialog.tsx';
import { RigDialog } from './RigDialog.tsx';

/** Where microphones sit and how they are fixed in this trial, in numbers rather than in words. */
export function Places({ trialId }: { trialId: string }) {
  const placements = usePlacementsQuery(trialId);
  const rigs = useRigsQuery(trialId);
  const [placement, setPlacement] = useState<Placement | 'new' | null>(null);
  const [rig, setRig] = useState<RigRecord | 'new' | null>(null);
  const binPlacement = useBin(trialId, 'placement');
  const binRig = useBin(trialId, 'rig');
  return (
    <Loaded of={[placements, rigs]}>
      {() => (
        <div className="columns">
          <RecordList
            title="Placements"
            add="Placement"
            empty="Where does a microphone sit? Distance, angle and height in numbers make takes comparable, and rooms and voices can be worked out for them."
            rows={placements.data!}
            says={placementText}
            onAdd={() => setPlacement('new')}
            onEdit={(row) => setPlacement(row)}
            onBin={(row) => binPlacement(row.id, row.name)}
          />
          <RecordList
            title="Rigs"
            add="Rig"
            empty="How is it fixed and covered? Layers and what one takes away say more than “hidden”."
            rows={rigs.data!}
            says={rigText}
            onAdd={() => setRig('new')}
            onEdit={(row) => setRig(row)}
            onBin={(row) => binRig(row.id, row.name)}
          />
          {placement && <PlacementDialog trialId={trialId} placement={placement === 'new' ? null : placement} onClose={() => setPlacement(null)} />}
          {rig && <RigDialog trialId={trialId} rig={rig === 'new' ? null : rig} onClose={() => setRig(null)} />}
        </div>
      )}
    </Loaded>
  );
}

interface RecordListProps<Row> {
  title: string;
  add: string;
  empty: ReactNode;
  rows: Row[];
  says(row: Row): string;
  onAdd(): void;
  onEdit(row: Row): void;
  onBin(row: Row): void;
}

function RecordList<Row extends { id: string; name: string }>({ title, add, empty, rows, says, onAdd, onEdit, onBin }: RecordListProps<Row>) {
  return (
    <Sheet
      title={title}
      aside={
        <Button size="sm" variant="outline" onClick={onAdd}>
          <Plus size={15} aria-hidden /> {add}
        </Button>
      }
    >
      {rows.length === 0 ? (
        <Empty>{empty}</Empty>
      ) : (
        <table className="plain">
          <tbody>
            {rows.map((row) => (
              <tr key={row.id}>
                <td>
                  <b>{row.name}</b>
                  <div className="small soft">{says(row) || 'no numbers yet'}</div>
                </td>
                <td className="text-end text-nowrap">
                  <Button size="sm" variant="plain" aria-label={`Change ${row.name}`} onClick={() => onEdit(row)}>
                    <Pencil size={15} aria-hidden />
                  </Button>
                  <Button size="sm" variant="plain" aria-label={`Delete ${row.name}`} onClick={() => onBin(row)}>
                    <Trash2 size={15} aria-hidden />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Sheet>
  );
}

function placementText({ on, distanceM, offAxisDeg, belowChinM, heightM, remark }: Placement): string {
  const height = on === 'body' ? belowChinM !== null && `${belowChinM} m under the chin` : heightM !== null && `${heightM} m over the ground`;
  return [`on ${on}`, distanceM !== null && `${distanceM} m from the mouth`, offAxisDeg !== null && `${offAxisDeg}° off its axis`, height, remark].filter(Boolean).join(', ');
}

function rigText({ fixing, clothLayers, clothLossDb, cloth, capLiftDb, onSkin, remark }: RigRecord): string {
  const layers = clothLayers > 0 && `${clothLayers} ${clothLayers === 1 ? 'layer' : 'layers'}${cloth && ` of ${cloth}`}${clothLossDb === null ? '' : `, ${clothLossDb} dB each`}`;
  return [fixing, layers, capLiftDb !== null && `cap lifts ${capLiftDb} dB`, onSkin && 'on skin', remark].filter(Boolean).join(', ');
}
