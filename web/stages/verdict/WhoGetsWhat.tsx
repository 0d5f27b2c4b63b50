import type { VerdictView } from '@marvet/core/contract/verdict';
import type { Allocation, GearProblem, ShareOut } from '@marvet/core/decide/allocate/gear';
import { asksText } from '@marvet/core/decide/allocate/roleAsks';
import { besideTexts, conflictTexts, money, unsureTexts, worthText } from '@marvet/core/decide/allocate/sayAllocation';
import type { Trial } from '@marvet/core/domain/trial';
import { Link } from 'react-router';
import { useAllocationQuery } from '../../data/judging.ts';
import { useTrialWords } from '../../data/trialData.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** The gear shared out over those who work with it: by what their sound counts, what they need, and what may be spent. */
interface WhoGetsWhatProps {
  trial: Trial;
  view: VerdictView;
  /** On a page that is printed nothing is folded away. */
  unfolded?: boolean;
}

export function WhoGetsWhat(props: WhoGetsWhatProps) {
  return <Sheet title="Who gets what">{props.trial.roles.length === 0 ? <Nobody /> : <Shared {...props} />}</Sheet>;
}

function Nobody() {
  return (
    <p className="soft mb-0">
      Name who works with the gear, what they need and what may be spent, and it is shared out here. <Link to="../question">Roles are in Question.</Link>
    </p>
  );
}

function Shared({ trial, view, unfolded = false }: WhoGetsWhatProps) {
  const query = useAllocationQuery(trial.id);
  return (
    <Loaded of={[query]}>
      {() => {
        const allocation = query.data!;
        const { best, problem } = allocation;
        return (
          <>
            {best ? (
              <>
                <p className="mb-2 fw-bold">{worthText(allocation)}</p>
                <Given trial={trial} view={view} best={best} />
                <ToBuy best={best} problem={problem} unfolded={unfolded} />
                <ul className="mb-1">
                  {besideTexts(allocation).map((text) => (
                    <li key={text}>{text}</li>
                  ))}
                </ul>
              </>
            ) : (
              conflictTexts(allocation, view.criteria).map((text, at) => (
                <p key={text} className={at === 0 ? 'mb-1 fw-bold' : 'mb-1'}>
                  {text}
                </p>
              ))
            )}
            <Aside allocation={allocation} />
          </>
        );
      }}
    </Loaded>
  );
}

function Given({ trial, view, best }: { trial: Trial; view: VerdictView; best: ShareOut }) {
  const words = useTrialWords(trial.id);
  return (
    <section className="sheet-scroll mb-2" tabIndex={0} aria-label="Gear of each role">
      <table className="plain">
        <thead>
          <tr>
            <th>Role</th>
            <th>Gets</th>
          </tr>
        </thead>
        <tbody>
          {trial.roles.map((role) => (
            <tr key={role.id}>
              <td>
                {role.name} <span className="soft">({role.count})</span>
                <div className="small soft">{asksText(role, view.criteria)}</div>
              </td>
              <td>
                {(best.given.find(({ roleId }) => roleId === role.id)?.kinds ?? []).map(({ candidateId, count, spares }) => {
                  const chain = words.chains.get(candidateId);
                  return (
                    <div key={candidateId}>
                      <span className="mono">{count} ×</span> {chain && <TapeMark tape={chain.tape} name="" />} {chain?.name}
                      {spares > 0 && <span className="soft"> and {spares} to spare</span>}
                    </div>
                  );
                })}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What has to be bought for it, piece by piece, and what comes from the shelf. */
function ToBuy({ best, problem: { parts, currency }, unfolded }: { best: ShareOut; problem: GearProblem; unfolded: boolean }) {
  const nameOf = (itemId: string) => parts.find((part) => part.itemId === itemId)?.name ?? '';
  return (
    <details className="mb-2" open={unfolded}>
      <summary>
        {best.buy.length === 0 ? 'Nothing has to be bought' : `${best.buy.reduce((sum, { count }) => sum + count, 0)} things to buy`}
        {best.fromHand.length > 0 && `, ${best.fromHand.reduce((sum, { count }) => sum + count, 0)} from the shelf`}
      </summary>
      <ul className="mb-0 small">
        {best.buy.map(({ itemId, count, price }) => (
          <li key={itemId}>
            {count} × {nameOf(itemId)}, {money(price, currency)} each: {money(count * price, currency)}
          </li>
        ))}
        {best.fromHand.map(({ itemId, count }) => (
          <li key={itemId}>
            {count} × {nameOf(itemId)}, at hand
          </li>
        ))}
      </ul>
    </details>
  );
}

function Aside({ allocation }: { allocation: Allocation }) {
  return (
    <p className="small soft mb-0">
      {unsureTexts(allocation).map((text) => `${text} `)}
      The most points that are sure, over all people, found by whole numbers and proven. A receiver or recorder serves as many as it has channels. Units at hand are those counted
      in Kit; what nobody counted is bought.
    </p>
  );
}
