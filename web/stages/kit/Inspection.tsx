import type { Chain } from '@marvet/core/domain/chain';
import type { Criterion, Mark } from '@marvet/core/domain/criterion';
import { useSaveMarkMutation } from '../../data/records.ts';
import { KeptNumber, KeptText } from '../../parts/fields.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** Marks for what is not heard: build, connectors, what shows. Shown when the trial has such criteria. */
export function Inspection({ trialId, chains, criteria, marks }: { trialId: string; chains: Chain[]; criteria: Criterion[]; marks: Mark[] }) {
  const [save, { error }] = useSaveMarkMutation();
  const inspected = criteria.filter((criterion) => criterion.kind === 'inspected');
  const candidates = chains.filter((chain) => chain.candidate);
  if (inspected.length === 0 || candidates.length === 0) return null;
  return (
    <Sheet title="Inspection, 0 to 10">
      <Trouble error={error} />
      <div className="sheet-scroll">
        <table className="plain">
          <thead>
            <tr>
              <th>Candidate</th>
              {inspected.map((criterion) => (
                <th key={criterion.id}>{criterion.name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {candidates.map((chain) => (
              <tr key={chain.id}>
                <td className="text-nowrap">
                  <TapeMark tape={chain.tape} name="" /> {chain.name}
                </td>
                {inspected.map((criterion) => {
                  const mark = marks.find((each) => each.chainId === chain.id && each.criterionId === criterion.id);
                  const keep = (change: Partial<Mark>) =>
                    void save({ trialId, mark: { chainId: chain.id, criterionId: criterion.id, points: mark?.points ?? null, remark: mark?.remark ?? '', ...change } });
                  return (
                    <td key={criterion.id}>
                      <div className="mark-cell">
                        <KeptNumber
                          label={`${criterion.name}, ${chain.name}, points`}
                          hideLabel
                          size="sm"
                          min={0}
                          max={10}
                          value={mark?.points ?? null}
                          onKeep={(points) => keep({ points })}
                        />
                        <KeptText
                          label={`${criterion.name}, ${chain.name}, why`}
                          hideLabel
                          maxLength={300}
                          placeholder="why"
                          value={mark?.remark ?? ''}
                          onKeep={(remark) => keep({ remark })}
                        />
                      </div>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Sheet>
  );
}
