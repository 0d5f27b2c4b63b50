import { Printer } from 'lucide-react';
import { useRef } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useRoundsQuery, useVerdictQuery } from '../../data/judging.ts';
import { useTrialId } from '../../data/trialData.ts';
import { useTrialQuery } from '../../data/trials.ts';
import { usePlanQuery, useTakesQuery } from '../../data/work.ts';
import { dateText } from '../../parts/dateText.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { EventsOfAll } from './EventsOf.tsx';
import { ExpectationBeside } from './ExpectationBeside.tsx';
import { FigureTable } from './FigureTable.tsx';
import { HowJudged } from './HowJudged.tsx';
import { HowSure } from './HowSure.tsx';
import { LimitsOfAll } from './LimitsOfUse.tsx';
import { LinkRanges } from './LinkRanges.tsx';
import { DifferencesTold } from './MadeDifference.tsx';
import { Pictures } from './Pictures.tsx';
import { Ranking } from './Ranking.tsx';
import { RawFigures } from './RawFigures.tsx';
import { SavePage } from './SavePage.tsx';
import { ToKnow } from './ToKnow.tsx';
import { WhoGetsWhat } from './WhoGetsWhat.tsx';

/** The verdict as a page to print or to send. */
export default function Report() {
  const trialId = useTrialId();
  const part = useRef<HTMLDivElement>(null);
  const verdict = useVerdictQuery(trialId);
  const trial = useTrialQuery(trialId);
  const takes = useTakesQuery(trialId);
  const plan = usePlanQuery(trialId);
  const rounds = useRoundsQuery(trialId);
  return (
    <Loaded of={[verdict, trial, takes, plan, rounds]}>
      {() => {
        const { rows, criteria, notes } = verdict.data!;
        if (!rows)
          return (
            <Empty>
              The verdict is closed. <Link to="..">Open it first.</Link>
            </Empty>
          );
        const { name, question, use, place, sample } = trial.data!;
        const done = takes.data!.filter((take) => take.status === 'done');
        const heardBy = rounds.data!.flatMap((round) =>
          round.listeners.filter((listener) => listener.finishedAtMs !== null).map(({ name: who, listenedOn }) => `${who}, ${listenedOn}`),
        );
        const started = done.flatMap((take) => take.startedAtMs ?? []);
        return (
          <div ref={part} className="report">
            <div className="row-line apart no-print">
              <Link to="..">Back to the verdict</Link>
              <span className="row-line">
                <SavePage part={part} title={`${name} report`} />
                <Button onClick={() => window.print()}>
                  <Printer size={16} aria-hidden /> Print
                </Button>
              </span>
            </div>
            <Sheet title={`${name}: report`}>
              <p className="fs-5 fw-bold mb-1">{question}</p>
              <dl className="facts small">
                <dt>Use</dt>
                <dd>{use || 'not stated'}</dd>
                <dt>Place</dt>
                <dd>{place || 'not stated'}</dd>
                <dt>Recorded</dt>
                <dd>
                  {done.length} takes{started.length > 0 && `, ${dateText(Math.min(...started))}`}
                </dd>
                <dt>Held</dt>
                <dd>{plan.data!.controls.map((control) => `${control.name}: ${control.value}`).join('; ') || 'nothing noted'}</dd>
                <dt>Heard by</dt>
                <dd>{[...new Set(heardBy)].join('; ') || 'nobody'}</dd>
              </dl>
              {sample && <p className="small mb-0">Sample data: makers, models, people and audio are invented.</p>}
            </Sheet>
            <ToKnow trial={trial.data!} view={verdict.data!} />
            <Sheet title="Ranking, score of 100">
              <Ranking rows={rows} criteria={criteria} notes={notes} />
            </Sheet>
            <HowSure view={verdict.data!} />
            <DifferencesTold view={verdict.data!} />
            {trial.data!.roles.length > 0 && <WhoGetsWhat trial={trial.data!} view={verdict.data!} unfolded />}
            <Sheet title="Figures">
              <FigureTable rows={rows} criteria={criteria} />
            </Sheet>
            <EventsOfAll candidateIds={rows.map(({ candidate }) => candidate.id)} />
            <LimitsOfAll candidateIds={rows.map(({ candidate }) => candidate.id)} />
            <LinkRanges trialId={trialId} />
            <Pictures rows={rows} />
            <ExpectationBeside trial={trial.data!} rows={rows} />
            <HowJudged view={verdict.data!} takes={takes.data!} rounds={rounds.data!} />
            <RawFigures view={verdict.data!} />
          </div>
        );
      }}
    </Loaded>
  );
}
