import Nav from 'react-bootstrap/Nav';
import { useChainsQuery, useCriteriaQuery, useItemsQuery, useMarksQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { Loaded } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { Chains } from './Chains.tsx';
import { Inspection } from './Inspection.tsx';
import { Items } from './Items.tsx';
import { Levels } from './Levels.tsx';
import { Places } from './Places.tsx';
import { Preflight } from './Preflight.tsx';

const PARTS = [
  ['candidates', 'Candidates'],
  ['places', 'Placements and rigs'],
  ['levels', 'Levels and noise'],
  ['preflight', 'Pre-flight'],
  ['library', 'Library'],
] as const;

/** What takes part: chains with their totals, voices through them, what to check before going, and the library. */
export default function Kit() {
  const trialId = useTrialId();
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const criteria = useCriteriaQuery(trialId);
  const marks = useMarksQuery(trialId);
  const [search, changeAddress] = useAddress();
  const part = PARTS.find(([id]) => id === search.get('part'))?.[0] ?? 'candidates';
  return (
    <Loaded of={[chains, items, criteria, marks]}>
      {() => {
        const byId = new Map(items.data!.map((item) => [item.id, item]));
        return (
          <>
            <Nav
              variant="underline"
              className="parts no-print"
              activeKey={part}
              onSelect={(key) => changeAddress({ part: key === 'candidates' ? null : key })}
              aria-label="Parts of the kit"
            >
              {PARTS.map(([id, name]) => (
                <Nav.Item key={id}>
                  <Nav.Link eventKey={id} as="button" type="button">
                    {name}
                  </Nav.Link>
                </Nav.Item>
              ))}
            </Nav>
            {part === 'candidates' && (
              <>
                <Chains trialId={trialId} chains={chains.data!} items={items.data!} />
                <Inspection trialId={trialId} chains={chains.data!} criteria={criteria.data!} marks={marks.data!} />
              </>
            )}
            {part === 'places' && <Places trialId={trialId} />}
            {part === 'levels' && <Levels trialId={trialId} chains={chains.data!} items={byId} />}
            {part === 'preflight' && <Preflight trialId={trialId} chains={chains.data!.filter((chain) => chain.candidate)} items={byId} />}
            {part === 'library' && <Items items={items.data!} />}
          </>
        );
      }}
    </Loaded>
  );
}
