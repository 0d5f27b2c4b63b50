import type { VerdictView } from '@marvet/core/contract/verdict';
import { batteriesText } from '@marvet/core/decide/batteriesTold';
import { goodAndBad, notTested, type StandsOut } from '@marvet/core/decide/candidateTold';
import type { VerdictRow } from '@marvet/core/decide/verdict';
import { ruledOutText } from '@marvet/core/decide/verdictCsv';
import type { ConditionKind } from '@marvet/core/domain/factor';
import { percentText } from '@marvet/core/listen/paired/sayDoubt';
import { conditionWordsOfKey } from '@marvet/core/plan/levelWords';
import { Link, useParams } from 'react-router';
import { useDoubtQuery, useVerdictQuery } from '../../data/judging.ts';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { usePlanQuery, useTakesQuery } from '../../data/work.ts';
import { Photos } from '../../parts/Photos.tsx';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { EventsOf } from './EventsOf.tsx';
import { FigureTable } from './FigureTable.tsx';
import { HeardOf } from './HeardOf.tsx';
import { LikeConditions } from './LikeConditions.tsx';
import { LimitsOfUse } from './LimitsOfUse.tsx';
import { LinkRanges } from './LinkRanges.tsx';

/** One candidate: where it stands, what speaks for it and against it, its figures, what was heard, how far it holds, what nobody tried. */
export default function CandidatePage() {
  const trialId = useTrialId();
  const { candidateId = '' } = useParams();
  const verdict = useVerdictQuery(trialId);
  const takes = useTakesQuery(trialId);
  const plan = usePlanQuery(trialId);
  const words = useTrialWords(trialId);
  return (
    <Loaded of={[verdict, takes, plan]}>
      {() => {
        const view = verdict.data!;
        const row = view.rows?.find(({ candidate }) => candidate.id === candidateId);
        if (!row)
          return (
            <Empty>
              There is nothing to say of this candidate yet. <Link to="../..">Back to the verdict.</Link>
            </Empty>
          );
        const chain = words.chains.get(candidateId);
        const open = Object.entries(notTested(takes.data!, candidateId)) as [ConditionKind, string[]][];
        const untried = [
          ...open.map(([kind, levels]) => `${words.kindName(kind)}: ${levels.map((level) => words.label(kind, level)).join(', ')}, where others were recorded`),
          ...row.missing.map((id) => `${view.criteria.find((criterion) => criterion.id === id)?.name}: no value`),
        ];
        const where = (key: string) => conditionWordsOfKey(plan.data!, key);
        return (
          <>
            <div className="row-line apart">
              <h2 className="fs-4 mb-0">
                {chain && <TapeMark tape={chain.tape} name="" width={56} />} {row.candidate.name}
              </h2>
              <Link to=".." relative="path" className="no-print">
                Back to the verdict
              </Link>
            </div>
            <Sheet title="Where it stands">
              <Stands row={row} view={view} />
              {row.ruledOut.map((out) => (
                <p key={out.criterionId} className="mb-1">
                  Ruled out: {ruledOutText(out, view.criteria, where)}.
                </p>
              ))}
              {row.candidate.price !== null && (
                <p className="mb-0">
                  The whole chain costs {Math.round(row.candidate.price).toLocaleString('en')} {row.candidate.currency}. {batteriesText([row.candidate])}
                </p>
              )}
            </Sheet>
            <Sheet title="For and against it">
              <ForAndAgainst view={view} candidateId={candidateId} />
            </Sheet>
            <Sheet title="Figures" aside={<span className="small soft">value, and under it how desirable that is between worst and best</span>}>
              <FigureTable rows={[row]} criteria={view.criteria} />
            </Sheet>
            <LikeConditions view={view} candidateId={candidateId} />
            <EventsOf candidateId={candidateId} />
            <HeardOf trialId={trialId} candidateId={candidateId} />
            <LimitsOfUse candidateId={candidateId} open={untried} />
            <LinkRanges trialId={trialId} candidateId={candidateId} />
            <Photos ownerKind="chain" ownerId={candidateId} name={row.candidate.name} />
          </>
        );
      }}
    </Loaded>
  );
}

function Stands({ row, view }: { row: VerdictRow; view: VerdictView }) {
  const trialId = useTrialId();
  const query = useDoubtQuery({ trialId, weights: 'given' });
  const place = query.data?.places.find(({ candidateId }) => candidateId === row.candidate.id);
  const of = view.rows?.length ?? 0;
  return (
    <p className="mb-1">
      {row.rank === null ? 'Without a place' : `Place ${row.rank} of ${of}`}
      {row.score !== null && `, ${Math.round(row.score)} points of 100`}
      {place?.score && ` (${Math.round(place.score.low)} to ${Math.round(place.score.high)} in 95 of 100 draws)`}.
      {place && ` Best in ${percentText(place.best)} of draws, among the first two in ${percentText(place.firstTwo)}.`}
    </p>
  );
}

function ForAndAgainst({ view, candidateId }: { view: VerdictView; candidateId: string }) {
  const { good, bad } = goodAndBad(view.rows ?? [], view.criteria, candidateId);
  const text = ({ criterionId, by }: StandsOut, side: string) => `in ${view.criteria.find(({ id }) => id === criterionId)?.name}: ${Math.round(100 * Math.abs(by))} of 100 ${side}`;
  if (good.length + bad.length === 0) return <p className="soft mb-0">On no criterion is it the best or the worst by enough to speak of.</p>;
  return (
    <ul className="mb-0">
      {good.map((each) => (
        <li key={each.criterionId}>
          <b>Best of all</b> {text(each, 'before the next')}.
        </li>
      ))}
      {bad.map((each) => (
        <li key={each.criterionId}>
          <b>Worst of all</b> {text(each, 'behind the next')}.
        </li>
      ))}
    </ul>
  );
}
