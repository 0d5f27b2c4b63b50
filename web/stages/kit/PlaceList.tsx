import { BookMarked, CornerDownRight, Pencil, Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { Empty, Sheet } from '../../parts/states.tsx';

interface PlaceListProps<Row> {
  title: string;
  add: string;
  empty: ReactNode;
  rows: Row[];
  /** Those that the library keeps for all trials. */
  kept: Row[];
  says(row: Row): string;
  onAdd(): void;
  onEdit(row: Row): void;
  onBin(row: Row): void;
  onKeep(row: Row): void;
  onUse(row: Row): void;
  onForget(row: Row): void;
}

/** Placements or rigs: those of the trial, and below them those of the library to take from. */
export function PlaceList<Row extends { id: string; name: string }>(props: PlaceListProps<Row>) {
  const { title, add, empty, rows, kept, says, onAdd, onEdit, onBin, onKeep, onUse, onForget } = props;
  const named = (list: Row[], name: string) => list.some((row) => row.name.toLowerCase() === name.toLowerCase());
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
        <Rows rows={rows} says={says}>
          {(row) => (
            <>
              {!named(kept, row.name) && (
                <Button size="sm" variant="plain" aria-label={`Keep ${row.name} in the library`} title="Keep in the library" onClick={() => onKeep(row)}>
                  <BookMarked size={15} aria-hidden />
                </Button>
              )}
              <Button size="sm" variant="plain" aria-label={`Change ${row.name}`} onClick={() => onEdit(row)}>
                <Pencil size={15} aria-hidden />
              </Button>
              <Button size="sm" variant="plain" aria-label={`Delete ${row.name}`} onClick={() => onBin(row)}>
                <Trash2 size={15} aria-hidden />
              </Button>
            </>
          )}
        </Rows>
      )}
      {kept.length > 0 && (
        <section aria-label={`${title} in the library`} className="mt-3">
          <h3 className="small soft mb-1">In the library, for all trials</h3>
          <Rows rows={kept} says={says}>
            {(row) => (
              <>
                {!named(rows, row.name) && (
                  <Button size="sm" variant="plain" aria-label={`Use ${row.name} in this trial`} onClick={() => onUse(row)}>
                    <CornerDownRight size={15} aria-hidden /> Use here
                  </Button>
                )}
                <Button size="sm" variant="plain" aria-label={`Remove ${row.name} from the library`} onClick={() => onForget(row)}>
                  <Trash2 size={15} aria-hidden />
                </Button>
              </>
            )}
          </Rows>
        </section>
      )}
    </Sheet>
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
