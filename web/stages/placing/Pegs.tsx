import type { FrameDraft } from '@marvet/core/domain/frame';
import { signed } from '@marvet/core/measure/catalogue';
import { pegsOf } from '@marvet/core/place/pegs';
import { Sheet } from '../../parts/states.tsx';
import { boomNames } from './boomWords.ts';

/** Marks for the ground, to be read out while somebody lays them. */
export function Pegs({ frame }: { frame: FrameDraft }) {
  return (
    <Sheet title="Pegs, from under the lens" aside={<span className="small soft">right of the camera is +</span>}>
      <table className="plain">
        <thead>
          <tr>
            <th>Mark</th>
            <th className="num">away m</th>
            <th className="num">across m</th>
            <th className="num">straight</th>
          </tr>
        </thead>
        <tbody>
          {pegsOf(frame, boomNames(frame.booms)).map((peg) => (
            <tr key={`${peg.what} ${peg.awayM} ${peg.acrossM}`}>
              <td>{peg.what}</td>
              <td className="num">{signed(peg.awayM, 2)}</td>
              <td className="num">{signed(peg.acrossM, 2)}</td>
              <td className="num">
                {peg.straightM.toFixed(2)} m<div className="small soft">{peg.byHand}</div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}
