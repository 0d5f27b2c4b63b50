import { useFoundBeforeQuery } from '../../data/records.ts';
import { FoundOnce } from '../../parts/FoundBefore.tsx';
import { Loaded } from '../../parts/states.tsx';

/** What trials found of chains with an item. */
export function ItemFound({ itemId }: { itemId: string }) {
  const query = useFoundBeforeQuery();
  return (
    <section aria-label="What trials found" className="mt-3">
      <h3 className="fs-6">What trials found</h3>
      <Loaded of={[query]}>
        {() => {
          const own = query.data!.filter(({ itemIds }) => itemIds.includes(itemId)).sort((a, b) => (b.atMs ?? 0) - (a.atMs ?? 0));
          if (own.length === 0) return <p className="small soft mb-0">No trial with an open verdict has recorded it yet.</p>;
          return (
            <>
              <p className="small soft">Of the whole chain it was in, under the conditions of that trial: scores of two trials do not compare.</p>
              {own.map((found) => (
                <FoundOnce key={found.candidateId} found={found} />
              ))}
            </>
          );
        }}
      </Loaded>
    </section>
  );
}
