import { type PlannedTake, takeKey } from '@marvet/core/plan/gather';
import { conditionWords } from '@marvet/core/plan/levelWords';
import { durationText } from '../../parts/durationText.ts';
import { Sheet } from '../../parts/states.tsx';
import type { PlanPartProps } from './planPart.ts';

const SHOWN = 6;

/** What to drop first when it gets late, by what it costs the conclusions. */
export function DropFirst({ plan, worked }: PlanPartProps) {
  if (!worked || worked.dropFirst.length === 0) return null;
  const isRepeat = (takeIndex: number) => {
    const key = takeKey(worked.built.takes[takeIndex] as PlannedTake);
    return worked.built.takes.some((take, index) => index !== takeIndex && takeKey(take) === key);
  };
  return (
    <Sheet title="If it gets late, drop in this order">
      <ol className="drop-list">
        {worked.dropFirst.slice(0, SHOWN).map(({ takeIndex, lossComparisons, lostForGood, savedS }) => {
          const take = worked.built.takes[takeIndex];
          return (
            take && (
              <li key={takeIndex}>
                Take {takeIndex + 1}, {conditionWords(plan, take.condition).join(', ')}
                <span className="small soft">
                  {' '}
                  saves {durationText(savedS)};{' '}
                  {lostForGood > 0
                    ? `${lostForGood} ${lostForGood === 1 ? 'comparison is' : 'comparisons are'} lost for good`
                    : lossComparisons === 0
                      ? isRepeat(takeIndex)
                        ? 'a repeat: nothing is lost'
                        : 'no fair pair is lost, averages rest on less'
                      : 'others give what it gives, with less certainty'}
                </span>
              </li>
            )
          );
        })}
      </ol>
      <p className="small soft mb-0">
        Ranked by the comparisons that only this take gives, for each minute that leaving it out saves, its changes included; each as if those above it were dropped already.
      </p>
    </Sheet>
  );
}
