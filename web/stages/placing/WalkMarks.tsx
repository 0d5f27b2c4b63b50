import type { Plan } from '@marvet/core/domain/plan';
import { walkMarks } from '@marvet/core/place/pegs';
import { Sheet } from '../../parts/states.tsx';

/** Marks for a walk at the distances of the plan, to be read out while somebody lays them; at each the talker turns. */
export function WalkMarks({ plan }: { plan: Plan }) {
  const levels = plan.factors.find(({ kind }) => kind === 'distance')?.levels ?? [];
  const marks = walkMarks(levels.flatMap(({ ticked, value }) => (ticked && value !== null ? [value] : [])));
  if (marks.length === 0) return null;
  return (
    <Sheet title="Marks for the walk, from receiver or camera">
      <table className="plain">
        <thead>
          <tr>
            <th className="num">Mark at</th>
            <th className="num">by paces</th>
            <th className="num">on from the last</th>
          </tr>
        </thead>
        <tbody>
          {marks.map(({ awayM, byHand, onM }) => (
            <tr key={awayM}>
              <td className="num">{awayM} m</td>
              <td className="num">{byHand}</td>
              <td className="num">{Number(onM.toFixed(2))} m</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small soft mb-0 mt-2">At each mark: face the receiver, count to ten aloud, turn round at five. Somebody else watches the way.</p>
    </Sheet>
  );
}
