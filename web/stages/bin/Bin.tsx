import { RotateCcw } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { useBinQuery, useRestoreRecordMutation } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { dateTimeText } from '../../parts/dateText.ts';
import { Empty, Loaded, Sheet, Trouble } from '../../parts/states.tsx';

/** What was deleted from this trial. Nothing leaves the bin by itself. */
export default function Bin() {
  const trialId = useTrialId();
  const query = useBinQuery(trialId);
  const [restore, { error }] = useRestoreRecordMutation();
  return (
    <Sheet title="Bin of this trial">
      <Trouble error={error} />
      <Loaded of={[query]}>
        {() =>
          query.data!.length === 0 ? (
            <Empty>Nothing was deleted from this trial.</Empty>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>What</th>
                  <th>Kind</th>
                  <th>Deleted</th>
                  <th>
                    <span className="visually-hidden">Actions</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {query.data!.map(({ kind, id, name, binnedAtMs }) => (
                  <tr key={id}>
                    <td className="fw-bold">{name}</td>
                    <td>{kind}</td>
                    <td>{dateTimeText(binnedAtMs)}</td>
                    <td className="text-end">
                      <Button size="sm" variant="outline" onClick={() => void restore({ trialId, kind, id })}>
                        <RotateCcw size={14} aria-hidden /> Bring back
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )
        }
      </Loaded>
    </Sheet>
  );
}
