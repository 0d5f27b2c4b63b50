import { EXTRA_KINDS } from '@marvet/core/domain/factor';
import { slateLabel } from '@marvet/core/domain/take';
import { Printer } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { useTrialQuery } from '../../data/trials.ts';
import { usePlanQuery, useTakesQuery } from '../../data/work.ts';
import { Empty, Loaded } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** Slates to print and hold into the frame: a card for each take that is still to be done, four on a page. */
export default function SlateCards() {
  const trialId = useTrialId();
  const trial = useTrialQuery(trialId);
  const takes = useTakesQuery(trialId);
  const plan = usePlanQuery(trialId);
  const words = useTrialWords(trialId);
  return (
    <Loaded of={[trial, takes, plan]}>
      {() => {
        const todo = takes.data!.filter((take) => take.status === 'planned');
        const shown = todo.length > 0 ? todo : takes.data!;
        if (shown.length === 0) return <Empty>There are no slates yet. Make them in Plan.</Empty>;
        return (
          <>
            <div className="row-line apart no-print">
              <span className="soft">
                {shown.length} slates{todo.length > 0 && todo.length < takes.data!.length ? ', those that are still to be done' : ''}. Print, cut, and hold each into the frame and
                up to the microphones.
              </span>
              <Button onClick={() => window.print()}>
                <Printer size={16} aria-hidden /> Print
              </Button>
            </div>
            <section className="slate-cards" aria-label="Slates">
              {shown.map((take) => (
                <article key={take.id} className="slate-card" aria-label={`Slate ${slateLabel(take)}`}>
                  <div className="small">{trial.data!.name}</div>
                  <div className="slate-number mono">{slateLabel(take)}</div>
                  <div className="slate-words">
                    <b>{words.label('station', take.condition.station)}</b>
                    <span>
                      {[
                        words.label('distance', take.condition.distance),
                        words.label('windscreen', take.condition.windscreen),
                        ...EXTRA_KINDS.map((kind) => words.label(kind, take.condition[kind])),
                      ]
                        .filter(Boolean)
                        .join(', ')}
                    </span>
                    <span>{words.label('script', take.condition.script)}</span>
                  </div>
                  <div className="slate-tapes">
                    {take.setups.map((setup) => {
                      const chain = words.chains.get(setup.candidateId);
                      return (
                        chain && (
                          <span key={setup.id}>
                            <TapeMark tape={chain.tape} name="" width={52} /> {words.setup(setup)}
                          </span>
                        )
                      );
                    })}
                  </div>
                </article>
              ))}
            </section>
          </>
        );
      }}
    </Loaded>
  );
}
