import type { VerdictRow } from '@marvet/core/decide/verdict';
import { usePhotosQuery } from '../../data/records.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';

/** Photographs of the candidates, for a page that is printed or sent; nothing where there are none. */
export function Pictures({ rows }: { rows: readonly VerdictRow[] }) {
  const query = usePhotosQuery('chain');
  return (
    <Loaded of={[query]}>
      {() => {
        const told = rows.flatMap(({ candidate }) =>
          query.data!.filter((photo) => photo.ownerId === candidate.id && photo.binnedAtMs === null).map((photo) => ({ photo, name: candidate.name })),
        );
        if (told.length === 0) return null;
        return (
          <Sheet title="Photographs">
            <div className="photos">
              {told.map(({ photo, name }) => (
                <figure key={photo.id}>
                  <img src={`/api/photos/${photo.id}`} alt={`${name}: ${photo.caption}`} />
                  <figcaption className="small">{name}</figcaption>
                </figure>
              ))}
            </div>
          </Sheet>
        );
      }}
    </Loaded>
  );
}
