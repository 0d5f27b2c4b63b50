import { type Placement, placementDraftSchema } from '@marvet/core/domain/placement';
import type { BodyPlace } from '@marvet/core/domain/spot';
import { TAPE_KINDS, type Tape } from '@marvet/core/domain/tape';
import { placementNumbers, placeOnBody } from '@marvet/core/place/nearMouth';
import { useCallback } from 'react';
import { useSavePlacementMutation } from '../../data/records.ts';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { useMovedDraft } from '../../parts/useMovedDraft.ts';
import { BODY_VIEWS, sidesOf } from './bodyViews.ts';
import { MovedSpot } from './MovedSpot.tsx';

interface BodySpotProps {
  trialId: string;
  placement: Placement;
  fetching: boolean;
  letters: string;
  /** Of the candidate that sits there. */
  tape: Tape | null;
  chosen: boolean;
  onChoose: () => void;
  /** Where it is while it is being moved. */
  onShown: (at: BodyPlace) => void;
}

/** One spot of the body in every view in which it is seen, moved by pointer or by key. */
export function BodySpot({ trialId, placement, fetching, letters, tape, chosen, onChoose, onShown }: BodySpotProps) {
  const [save, { error }] = useSavePlacementMutation();
  const { id } = placement;
  const { shown, move, rest, conflict } = useMovedDraft(
    placement,
    fetching,
    useCallback(
      (draft: Placement, _patch: Partial<Placement>, version: number) => save({ trialId, from: { id, version }, draft: placementDraftSchema.parse(draft) }),
      [save, trialId, id],
    ),
  );
  const at = placeOnBody(shown);
  if (!at) return null;
  return (
    <>
      {(conflict || error) && <SaveTrouble what={placement.name} conflict={conflict} error={error} />}
      {sidesOf(at).map((side) => {
        const view = BODY_VIEWS[side];
        const { x, y } = view.of(at);
        return (
          <MovedSpot
            key={side}
            className={`worn-spot ${chosen ? 'chosen' : ''}`}
            label={`${placement.name} (${letters}), seen ${side === 'side' ? 'from the left' : `from the ${side}`}: arrow keys move`}
            at={view}
            x={x}
            y={y}
            {...(tape ? { fill: TAPE_KINDS[tape.kind]?.colour } : {})}
            stepM={0.01}
            onChoose={onChoose}
            onMove={(by, byKey) => {
              const to = view.moved(at, by);
              move({ at: to, ...placementNumbers(to) }, byKey);
              onShown(to);
            }}
            onRest={rest}
          >
            {letters}
          </MovedSpot>
        );
      })}
    </>
  );
}
