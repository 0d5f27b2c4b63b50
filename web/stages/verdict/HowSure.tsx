import type { VerdictView } from '@marvet/core/contract/verdict';
import type { PlaceDoubt, RankDoubt, WeightDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import { closeText, closeToFirst, settleText } from '@marvet/core/decide/doubt/sayDoubt';
import { slateLabel } from '@marvet/core/domain/take';
import { percentText } from '@marvet/core/listen/paired/sayDoubt';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useDoubtQuery } from '../../data/judging.ts';
import { useTakesById, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { WorkUnderWay } from '../../parts/WorkUnderWay.tsx';
import { RecordNext } from './RecordNext.tsx';
import { TurnedOver } from './TurnedOver.tsx';

const WEIGHTS: { weights: WeightDoubt; label: string }[] = [
  { weights: 'given', label: 'weights as they are given' },
  { weights: 'tenth', label: 'weights right within a tenth' },
  { weights: 'unknown', label: 'weights unknown: any are as likely' },
];

/** How sure the ranking is: who is best how often when takes and listeners are drawn anew, and what would turn it over. */
export function HowSure({ view }: { view: VerdictView }) {
  const trialId = useTrialId();
  const [weights, setWeights] = useState<WeightDoubt>('given');
  const asked = useDoubtQuery({ trialId, weights });
  // Of other weights than those that are chosen nothing is shown, and of a trouble nothing once it is tried again.
  const query = { ...asked, data: asked.currentData, isLoading: asked.isFetching && !asked.currentData, error: asked.isFetching ? undefined : asked.error };
  const nameOf = (id: string) => view.rows?.find((row) => row.candidate.id === id)?.candidate.name ?? 'gone';
  return (
    <Sheet
      title="How sure that is"
      aside={
        <Form.Select
          size="sm"
          className="w-auto no-print"
          aria-label="Weights"
          value={weights}
          onChange={(event) => setWeights(WEIGHTS[event.target.selectedIndex]?.weights ?? 'given')}
        >
          {WEIGHTS.map(({ weights: each, label }) => (
            <option key={each} value={each}>
              {label}
            </option>
          ))}
        </Form.Select>
      }
    >
      <Loaded of={[query]} waiting={<WorkUnderWay kind="doubt" label="Takes and listeners are drawn anew" />}>
        {() => (
          <>
            <p className="fw-bold mb-2">{closeText(query.data!, nameOf)}</p>
            <Places doubt={query.data!} view={view} />
            <ToTell doubt={query.data!} view={view} nameOf={nameOf} />
            <Remarks doubt={query.data!} view={view} />
          </>
        )}
      </Loaded>
      <TurnedOver view={view} nameOf={nameOf} />
    </Sheet>
  );
}

function Places({ doubt: { places }, view }: { doubt: RankDoubt; view: VerdictView }) {
  const words = useTrialWords(useTrialId());
  const rows = (view.rows ?? []).flatMap(({ candidate }) => places.filter(({ candidateId }) => candidateId === candidate.id).map((place) => ({ candidate, place })));
  const ofCriterion = (id: string) => view.criteria.find((criterion) => criterion.id === id)?.name ?? 'a criterion';
  return (
    <section className="sheet-scroll" tabIndex={0} aria-label="Places and their doubt">
      <table className="plain">
        <thead>
          <tr>
            <th>Candidate</th>
            <th>Score, 95 of 100 draws</th>
            <th className="num">Best</th>
            <th className="num">First two</th>
            <th>Above the others</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ candidate, place }) => {
            const chain = words.chains.get(candidate.id);
            return (
              <tr key={candidate.id}>
                <td className="who">
                  {chain && <TapeMark tape={chain.tape} name="" />} {candidate.name}
                  {place.breaks.map(({ criterionId, share }) => (
                    <div key={criterionId} className="small soft">
                      breaks the limit of {ofCriterion(criterionId)} in {percentText(share)} of draws
                    </div>
                  ))}
                </td>
                <td>
                  <ScoreBand score={place.score} />
                </td>
                <td className="num">{percentText(place.best)}</td>
                <td className="num">{percentText(place.firstTwo)}</td>
                <td className="small above-others">
                  {rows
                    .filter((other) => other.candidate.id !== candidate.id)
                    .map((other) => (
                      <span key={other.candidate.id} className="one-other">
                        {words.chains.get(other.candidate.id)?.tape.letters ?? other.candidate.name} {percentText(place.beats[places.indexOf(other.place)] ?? 0)}
                      </span>
                    ))}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function ScoreBand({ score }: { score: PlaceDoubt['score'] }) {
  if (!score) return <span className="soft">none</span>;
  const { low, middle, high } = score;
  return (
    <div className="row-line flex-nowrap">
      <div className="band sure-band" aria-hidden>
        <span className="doubt" style={{ left: `${low}%`, width: `${Math.max(1, high - low)}%` }} />
        <span className="tick" style={{ left: `${middle}%` }} />
      </div>
      <span className="mono small text-nowrap">
        {Math.round(low)} to {Math.round(high)}
      </span>
    </div>
  );
}

/** What to record or to listen to, so that who is too close can be told from the first. */
function ToTell({ doubt, view, nameOf }: { doubt: RankDoubt; view: VerdictView; nameOf(id: string): string }) {
  const told = (closeToFirst(doubt)?.close ?? []).flatMap((place) => settleText(place, view.criteria, nameOf) || []);
  if (told.length === 0) return null;
  return (
    <section className="mt-3" aria-label="What would tell them apart">
      <h3 className="h6 mb-1">What would tell them apart</h3>
      <ul className="mb-1">
        {told.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
      <RecordNext doubt={doubt} nameOf={nameOf} />
      <Link to="../plan" relative="path" className="small no-print">
        Look at the plan
      </Link>
    </section>
  );
}

function Remarks({ doubt, view }: { doubt: RankDoubt; view: VerdictView }) {
  const byId = useTakesById(useTrialId());
  const fixed = doubt.fixed.map((id) => view.criteria.find((criterion) => criterion.id === id)?.name ?? '').filter(Boolean);
  const deciding = doubt.deciding.flatMap((id) => byId.get(id) ?? []).map(slateLabel);
  return (
    <p className="small soft mt-2 mb-0">
      Takes and listeners are drawn anew {doubt.draws.toLocaleString('en')} times, all candidates of a take together; few of them spread the more.
      {fixed.length > 0 &&
        ` Of ${fixed.join(', ')} there is one take, one listener or one mark: how sure that is cannot be told, and it stays in every draw as it is. It may well be less sure than the rest.`}
      {deciding.length > 0 && ` Without take ${deciding.join(', or ')} another one would be first.`}
    </p>
  );
}
