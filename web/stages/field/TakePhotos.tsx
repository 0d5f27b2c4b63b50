import { slateLabel, type Take } from '@marvet/core/domain/take';
import { usePlacementsQuery } from '../../data/records.ts';
import { Photos } from '../../parts/Photos.tsx';

/** Photographs of a take, and of the placements in it: taken with the phone's camera, kept with the records. */
export function TakePhotos({ take }: { take: Take }) {
  const { data: placements } = usePlacementsQuery(take.trialId);
  const ids = new Set([take.condition.placement, ...take.setups.map(({ levels }) => levels.placement)]);
  const placed = (placements ?? []).filter(({ id }) => ids.has(id));
  return (
    <details className="readings">
      <summary>Photographs</summary>
      <div className="stack">
        <Photos ownerKind="take" ownerId={take.id} name={`Take ${slateLabel(take)}`} />
        {placed.map(({ id, name }) => (
          <Photos key={id} ownerKind="placement" ownerId={id} name={name} legend={`Of the placement ${name}`} />
        ))}
      </div>
    </details>
  );
}
