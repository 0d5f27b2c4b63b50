import { limitsOpen, limitsSaid } from '@marvet/core/decide/limits/sayLimits';
import { useLimitsQuery } from '../../data/judging.ts';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** What one candidate can be used for, in sentences with their evidence; and what was not tested. */
export function LimitsOfUse({ candidateId, open }: { candidateId: string; open: readonly string[] }) {
  const limits = useLimitsQuery(useTrialId());
  return (
    <Sheet title="Limits of use">
      <Loaded of={[limits]}>{() => <Told candidateId={candidateId} open={open} />}</Loaded>
    </Sheet>
  );
}

/** The same of every candidate, for a page that is printed. */
export function LimitsOfAll({ candidateIds }: { candidateIds: readonly string[] }) {
  const trialId = useTrialId();
  const limits = useLimitsQuery(trialId);
  const words = useTrialWords(trialId);
  return (
    <Sheet title="Limits of use">
      <Loaded of={[limits]}>
        {() =>
          candidateIds.map((candidateId) => {
            const chain = words.chains.get(candidateId);
            return (
              <section key={candidateId} className="mb-3" aria-label={`Limits of ${chain?.name}`}>
                <h3 className="fs-6">
                  {chain && <TapeMark tape={chain.tape} name="" />} {chain?.name}
                </h3>
                <Told candidateId={candidateId} open={[]} />
              </section>
            );
          })
        }
      </Loaded>
    </Sheet>
  );
}

function Told({ candidateId, open }: { candidateId: string; open: readonly string[] }) {
  const trialId = useTrialId();
  const words = useTrialWords(trialId);
  const own = useLimitsQuery(trialId).data?.find((limits) => limits.candidateId === candidateId);
  if (!own) return <p className="soft mb-0">Nothing was recorded of it.</p>;
  const untried = [...limitsOpen(own), ...open];
  return (
    <>
      <ul className="mb-1">
        {limitsSaid(own, words.label).map(({ text, evidence }) => (
          <li key={text}>
            {text} <span className="small soft">({evidence})</span>
          </li>
        ))}
      </ul>
      {untried.length > 0 && (
        <p className="mb-0">
          <b>Not tested:</b> {untried.join('; ')}.
        </p>
      )}
    </>
  );
}
