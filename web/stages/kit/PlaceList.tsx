import type { PlacementDraft } from '@marvet/core/domain/placement';
import type { RigRecordDraft } from '@marvet/core/domain/rigRecord';
import { BookMarked, CornerDownRight, Pencil, Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { LibraryKind } from '../../data/library.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';
import { useLibrary } from './useLibrary.ts';

/** A list that is asked for. */
interface Asked<Row> {
  data?: Row[] | undefined;
  isLoading: boolean;
  error?: unknown;
  refetch(): void;
}

interface PlaceListProps<Row, Draft> {
  trialId: string;
  kind: LibraryKind;
  title: string;
  add: string;
  empty: string;
  own: Asked<Row>;
  /** Those that the library keeps for all trials. */
  kept: Asked<Row>;
  says(row: Row): string;
  draftOf(row: Row): Draft;
  /** Makes a new one in this trial. */
  make(draft: Draft): Promise<{ error?: unknown }>;
  dialog(row: Row | null, onClose: () => void): ReactNode;
}

/** Placements or rigs: those of the trial, and below them those of the library to take from. */
export function PlaceList<Row extends { id: string; name: string }, Draft extends PlacementDraft | RigRecordDraft>(props: PlaceListProps<Row, Draft>) {
  const { trialId, kind, title, add, empty, own, kept, says, draftOf, make, dialog } = props;
  const [edited, setEdited] = useState<Row | 'new' | null>(null);
  const bin = useBin(trialId, kind === 'placements' ? 'placement' : 'rig');
  const library = useLibrary(kind);
  const told = useTold();
  const named = (list: Row[], name: string) => list.some((row) => row.name.toLowerCase() === name.toLowerCase());
  return (
    <Loaded of={[own, kept]}>
      {() => (
        <Sheet
          title={title}
          aside={
            <Button size="sm" variant="outline" onClick={() => setEdited('new')}>
              <Plus size={15} aria-hidden /> {add}
            </Button>
          }
        >
          {own.data!.length === 0 ? (
            <Empty>{empty}</Empty>
          ) : (
            <Rows rows={own.data!} says={says}>
              {(row) => (
                <>
                  {!named(kept.data!, row.name) && (
                    <Button size="sm" variant="plain" aria-label={`Keep ${row.name} in the library`} title="Keep in the library" onClick={() => library.keep(draftOf(row))}>
                      <BookMarked size={15} aria-hidden />
                    </Button>
                  )}
                  <Button size="sm" variant="plain" aria-label={`Change ${row.name}`} onClick={() => setEdited(row)}>
                    <Pencil size={15} aria-hidden />
                  </Button>
                  <Button size="sm" variant="plain" aria-label={`Delete ${row.name}`} onClick={() => bin(row.id, row.name)}>
                    <Trash2 size={15} aria-hidden />
                  </Button>
                </>
              )}
            </Rows>
          )}
          {kept.data!.length > 0 && (
            <section aria-label={`${title} in the library`} className="mt-3">
              <h3 className="small soft mb-1">In the library, for all trials</h3>
              <Rows rows={kept.data!} says={says}>
                {(row) => (
                  <>
                    {!named(own.data!, row.name) && (
                      <Button size="sm" variant="plain" aria-label={`Use ${row.name} in this trial`} onClick={() => void told(make(draftOf(row)))}>
                        <CornerDownRight size={15} aria-hidden /> Use here
                      </Button>
                    )}
                    <Button size="sm" variant="plain" aria-label={`Remove ${row.name} from the library`} onClick={() => library.remove(row.id, row.name)}>
                      <Trash2 size={15} aria-hidden />
                    </Button>
                  </>
                )}
              </Rows>
            </section>
          )}
          {edited && dialog(edited === 'new' ? null : edited, () => setEdited(null))}
        </Sheet>
      )}
    </Loaded>
  );
}

function Rows<Row extends { id: string; name: string }>({ rows, says, children }: { rows: Row[]; says(row: Row): string; children(row: Row): ReactNode }) {
  return (
    <table className="plain">
      <tbody>
        {rows.map((row) => (
          <tr key={row.id}>
            <td>
              <b>{row.name}</b>
              <div className="small soft">{says(row) || 'no numbers yet'}</div>
            </td>
            <td className="text-end text-nowrap">{children(row)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
