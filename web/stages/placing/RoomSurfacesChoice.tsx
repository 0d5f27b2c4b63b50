import { meanAbsorption, type RoomSurfaces, SURFACES } from '@marvet/core/place/surfaces';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field, KeptNumber } from '../../parts/fields.tsx';

const USUAL_SURFACES: RoomSurfaces = { floor: 'wood floor', ceiling: 'plaster', walls: 'gypsum', onWalls: 'window', onWallsShare: 0.1, people: 0, upholsteryM2: 0 };

const KINDS: [keyof Omit<RoomSurfaces, 'onWallsShare' | 'people' | 'upholsteryM2'>, string][] = [
  ['floor', 'Floor'],
  ['ceiling', 'Ceiling'],
  ['walls', 'Walls'],
  ['onWalls', 'On part of the walls'],
];

/** What the surfaces are made of, and what they take up by that. */
export function RoomSurfacesChoice({ sizeM, known, onUse }: { sizeM: [number, number, number]; known: readonly number[] | null; onUse: (absorption: number[]) => void }) {
  const [surfaces, setSurfaces] = useState(USUAL_SURFACES);
  const shares = meanAbsorption(sizeM, surfaces).map((share) => Math.round(share * 100) / 100);
  return (
    <details open={known === null}>
      <summary>{known ? `Surfaces take up ${known.map((share) => Math.round(100 * share)).join(', ')} %` : 'What are its surfaces?'}</summary>
      <div className="stack mt-2">
        {KINDS.map(([kind, label]) => (
          <Field key={kind} label={label}>
            {(id) => (
              <Form.Select id={id} size="sm" value={surfaces[kind]} onChange={(event) => setSurfaces({ ...surfaces, [kind]: event.target.value })}>
                {SURFACES.map((surface) => (
                  <option key={surface.id} value={surface.id}>
                    {surface.name}
                  </option>
                ))}
              </Form.Select>
            )}
          </Field>
        ))}
        <KeptNumber
          size="sm"
          label="Part of the walls, %"
          min={0}
          max={100}
          value={Math.round(100 * surfaces.onWallsShare)}
          onKeep={(percent) => percent !== null && setSurfaces({ ...surfaces, onWallsShare: percent / 100 })}
        />
        <KeptNumber
          size="sm"
          label="Soft furniture m²"
          min={0}
          max={2000}
          value={surfaces.upholsteryM2}
          onKeep={(upholsteryM2) => upholsteryM2 !== null && setSurfaces({ ...surfaces, upholsteryM2 })}
        />
        <KeptNumber size="sm" label="People in it" min={0} max={500} whole value={surfaces.people} onKeep={(people) => people !== null && setSurfaces({ ...surfaces, people })} />
        <p className="small soft mb-0">By octaves from 125 Hz to 4 kHz: {shares.map((share) => `${Math.round(100 * share)} %`).join(', ')}.</p>
        <div>
          <Button size="sm" variant="primary" onClick={() => onUse(shares.map((share) => Math.min(0.99, Math.max(0.01, share))))}>
            Use these surfaces
          </Button>
        </div>
      </div>
    </details>
  );
}
