import type { BodyPlace } from '@marvet/core/domain/spot';
import type { WearerDraft } from '@marvet/core/domain/wearer';
import type { ReactNode } from 'react';
import { BodyFigure } from './BodyFigure.tsx';
import { BODY_BOX, BODY_VIEWS, type BodySide, sidesOf } from './bodyViews.ts';

interface BodyDrawingProps {
  wearer: Pick<WearerDraft, 'build' | 'hair' | 'head' | 'glasses'>;
  /** Where the chosen spot is: a line from the mouth leads to it. */
  chosenAt: BodyPlace | null;
  /** The spots, over the drawing. */
  children: ReactNode;
}

const SIDES: BodySide[] = ['front', 'side', 'back'];
const SIDE_WORDS: Record<BodySide, string> = { front: 'front', side: 'from its left', back: 'back' };
const MOUTH: BodyPlace = { forwardM: 0, leftM: 0, upM: 0 };

/** A body from three sides, to scale. */
export function BodyDrawing({ wearer, chosenAt, children }: BodyDrawingProps) {
  return (
    <figure className="placing" aria-label="The body with its microphones">
      <svg viewBox={`0 0 ${BODY_BOX.width} ${BODY_BOX.height}`} aria-hidden>
        {SIDES.map((side) => (
          <g key={side}>
            <BodyFigure wearer={wearer} view={BODY_VIEWS[side]} />
            <text className="name" x={BODY_VIEWS[side].x(side === 'side' ? 0.05 : -0.29)} y={16}>
              {SIDE_WORDS[side]}
            </text>
          </g>
        ))}
        {chosenAt &&
          sidesOf(chosenAt).map((side) => {
            const [mouth, spot] = [BODY_VIEWS[side].of(MOUTH), BODY_VIEWS[side].of(chosenAt)];
            return <line key={side} className="sight" x1={mouth.x} y1={mouth.y} x2={spot.x} y2={spot.y} />;
          })}
      </svg>
      {children}
    </figure>
  );
}
