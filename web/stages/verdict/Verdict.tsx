import type { VerdictView } from '@marvet/core/contract/verdict';
import type { Trial } from '@marvet/core/domain/trial';
import { Download, Printer } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useVerdictQuery } from '../../data/judging.ts';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { useOpenVerdictMutation, useTrialQuery } from '../../data/trials.ts';
import { Empty, Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { ExpectationBeside } from './ExpectationBeside.tsx';
import { FigureTable } from './FigureTable.tsx';
import { HowSure } from './HowSure.tsx';
import { MadeDifference } from './MadeDifference.tsx';
import { PriceChart } from './PriceChart.tsx';
import { Ranking } from './Ranking.tsx';
import { ToKnow } from './ToKnow.tsx';
import { WhoGetsWhat } from './WhoGetsWhat.tsx';

/** The verdict: before it is opened, what is missing; then ranking, figures, price, expectation. */
export default function Verdict() {
  const trialId = useTrialId();
  const verdict = useVerdictQuery(trialId);
  const trial = useTrialQuery(trialId);
  return (
    <Loaded of={[verdict, trial]}>
      {() => {
        const view = verdict.data!;
        if (view.criteria.length === 0 || view.missing.length === 0) return <Empty>A verdict needs criteria and candidates. Enter them in Question and Kit.</Empty>;
        if (!view.rows) return <Opening trial={trial.data!} view={view} />;
        return (
          <>
            <ToKnow trial={trial.data!} view={view} />
            <Sheet
              title="Ranking, score of 100"
              aside={
                <span className="row-line">
                  <a className="btn btn-sm btn-outline" href={`/api/trials/${trialId}/verdict/verdict.csv`} download>
                    <Download size={14} aria-hidden /> CSV
                  </a>
                  <Link className="btn btn-sm btn-outline" to="report">
                    <Printer size={14} aria-hidden /> Report
                  </Link>
                </span>
              }
            >
              <Ranking rows={view.rows} criteria={view.criteria} notes={view.notes} />
            </Sheet>
            <HowSure view={view} />
            <MadeDifference view={view} />
            <div className="columns">
              <Sheet title="Price against score">
                <PriceChart rows={view.rows} />
              </Sheet>
              <ExpectationBeside trial={trial.data!} rows={view.rows} />
            </div>
            <WhoGetsWhat trial={trial.data!} view={view} />
            <Sheet title="What the scores are made of" aside={<span className="small soft">value, and under it how desirable that is between worst and best</span>}>
              <FigureTable rows={view.rows} criteria={view.criteria} />
            </Sheet>
          </>
        );
      }}
    </Loaded>
  );
}

function Opening({ trial, view }: { trial: Trial; view: VerdictView }) {
  const trialId = trial.id;
  const words = useTrialWords(trialId);
  const [open, { error, isLoading }] = useOpenVerdictMutation();
  const gaps = view.missing.filter((each) => each.criterionIds.length > 0 || each.untested.length > 0);
  const nameOf = (id: string) => view.criteria.find((criterion) => criterion.id === id)?.name;
  return (
    <Sheet title="The verdict is closed">
      <div className="stack">
        <p className="mb-0">
          Opening it shows the ranking and breaks the seal of the expectation. Look first whether everything is there: what is missing is named, and never counted as zero.
        </p>
        {gaps.length === 0 ? (
          <p className="mb-0 fw-bold">Every candidate has a value on every criterion.</p>
        ) : (
          <table className="plain">
            <thead>
              <tr>
                <th>Candidate</th>
                <th>Still missing</th>
                <th>Limits not tested everywhere</th>
              </tr>
            </thead>
            <tbody>
              {gaps.map((gap) => {
                const chain = words.chains.get(gap.candidateId);
                return (
                  <tr key={gap.candidateId}>
                    <td>
                      {chain && <TapeMark tape={chain.tape} name="" />} {gap.name}
                    </td>
                    <td>{gap.criterionIds.map(nameOf).join(', ')}</td>
                    <td>{gap.untested.map(nameOf).join(', ')}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
        <ToKnow trial={trial} view={view} />
        <Trouble error={error} />
        <div>
          <Button disabled={isLoading} onClick={() => void open(trialId)}>
            Open the verdict
          </Button>
        </div>
      </div>
    </Sheet>
  );
}
