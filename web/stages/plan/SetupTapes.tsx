import type { Chain } from '@marvet/core/domain/chain';
import type { PlanDraft } from '@marvet/core/domain/plan';
import type { TakeSetup } from '@marvet/core/domain/take';
import { conditionWords } from '@marvet/core/plan/levelWords';
import { TapeMark } from '../../parts/TapeMark.tsx';

interface SetupTapesProps {
  setups: readonly Omit<TakeSetup, 'id'>[];
  chains: readonly Chain[];
  plan: PlanDraft;
  width: number;
}

/** The tapes of what is recorded at one moment, each with the level it has on what differs within the take. */
export function SetupTapes({ setups, chains, plan, width }: SetupTapesProps) {
  return setups.map(({ candidateId, levels }) => {
    const chain = chains.find((each) => each.id === candidateId);
    const words = conditionWords(plan, levels);
    return (
      chain && (
        <span key={[candidateId, ...words].join(' ')} className="text-nowrap">
          <TapeMark tape={chain.tape} name="" width={width} />
          {words.length > 0 && <span className="small soft"> {words.join(', ')} </span>}
        </span>
      )
    );
  });
}
