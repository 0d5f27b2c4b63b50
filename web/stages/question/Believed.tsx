import { believedOf } from '@marvet/core/decide/foundBefore';
import { useChainsQuery, useFoundBeforeQuery, useItemsQuery } from '../../data/records.ts';
import { FoundOnce } from '../../parts/FoundBefore.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** Of each candidate no more than so many, those that share most with it first. */
const MOST = 3;

/** What earlier trials found of what is in this one's candidates: believed until it is measured here. */
export function Believed({ trialId }: { trialId: string }) {
  const found = useFoundBeforeQuery();
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  return (
    <Sheet title="Believed from earlier trials">
      <Loaded of={[found, chains, items]}>
        {() => {
          const byId = new Map(items.data!.map((item) => [item.id, item]));
          const believed = chains
            .data!.filter(({ candidate }) => candidate)
            .map((chain) => ({ chain, of: believedOf(chain, found.data!, byId).slice(0, MOST) }))
            .filter(({ of }) => of.length > 0);
          if (believed.length === 0) return <p className="soft mb-0">No earlier trial with an open verdict recorded what is in these candidates.</p>;
          return (
            <>
              <p className="small soft">Found under other conditions. None of it counts in this verdict.</p>
              {believed.map(({ chain, of }) => (
                <section key={chain.id} aria-label={`Believed of ${chain.name}`}>
                  <TapeMark tape={chain.tape} name={chain.name} />
                  {of.map(({ found: each, shared }) => (
                    <FoundOnce key={each.candidateId} found={each} shared={shared} />
                  ))}
                </section>
              ))}
            </>
          );
        }}
      </Loaded>
    </Sheet>
  );
}
