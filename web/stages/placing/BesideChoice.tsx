import type { StoredFrame } from '@marvet/core/domain/frame';
import { boomFigures } from '@marvet/core/place/boomFigures';
import Form from 'react-bootstrap/Form';
import { boomNames } from './boomWords.ts';
import type { BesideBoom } from './wornRows.ts';

const USUAL: BesideBoom[] = [0.3, 0.6, 1, 1.5].map((distanceM) => ({ name: `a boom at ${distanceM} m`, distanceM, offAxisDeg: 30 }));

/** The boom that a worn microphone is held against: one of a frame, or one at a usual distance. */
export function BesideChoice({ boom, frames, onChoose }: { boom: BesideBoom; frames: readonly StoredFrame[]; onChoose: (boom: BesideBoom) => void }) {
  const drawn = frames.flatMap((frame) => {
    const names = boomNames(frame.booms);
    return frame.booms.map((each, index): BesideBoom => {
      const heard = boomFigures(frame, each).talkers[each.aimsAt];
      return { name: `${frame.name}, ${names[index]}`, distanceM: heard?.distanceM ?? 1, offAxisDeg: heard?.mouthOffDeg ?? 0 };
    });
  });
  const all = [...drawn, ...USUAL];
  const index = all.findIndex((each) => each.distanceM === boom.distanceM && each.offAxisDeg === boom.offAxisDeg);
  return (
    <Form.Select size="sm" className="w-auto" aria-label="Against which boom" value={index} onChange={(event) => onChoose(all[Number(event.target.value)] as BesideBoom)}>
      {all.map((each, place) => (
        <option key={each.name} value={place}>
          against {each.name}
          {place < drawn.length && `, ${each.distanceM.toFixed(2)} m`}
        </option>
      ))}
    </Form.Select>
  );
}
