import { placementDraftSchema } from '@marvet/core/domain/placement';
import { type RigRecord, rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { SPOTS, type SpotId, spotOf } from '@marvet/core/domain/spot';
import { type StoredWearer, wearerDraftSchema } from '@marvet/core/domain/wearer';
import { placementNumbers } from '@marvet/core/place/nearMouth';
import { ListPlus, Plus, Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useSavePlacementMutation, useSaveRigMutation, useSaveWearerMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';

/** A grown person of this height stands behind the usual spots. */
const USUAL_HEIGHT_M = 1.72;

/** Puts a usual spot on the body, as large as its wearer. */
export function AddSpot({ trialId, heightM, onAdded }: { trialId: string; heightM: number; onAdded: (id: string) => void }) {
  const [save] = useSavePlacementMutation();
  const told = useTold();
  const add = async (id: SpotId) => {
    const { at, name } = spotOf(id);
    const scale = (metres: number) => Math.round((100 * metres * heightM) / USUAL_HEIGHT_M) / 100;
    const place = { forwardM: scale(at.forwardM), leftM: scale(at.leftM), upM: scale(at.upM) };
    const { data } = await told(save({ trialId, from: null, draft: placementDraftSchema.parse({ name, on: 'body', spot: id, at: place, ...placementNumbers(place) }) }));
    if (data) onAdded(data.id);
  };
  return (
    <Form.Select size="sm" className="w-auto no-print" aria-label="Add a spot" value="" onChange={(event) => event.target.value && void add(event.target.value as SpotId)}>
      <option value="">Add a spot…</option>
      {SPOTS.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </Form.Select>
  );
}

interface WearerChoiceProps {
  trialId: string;
  wearers: readonly StoredWearer[];
  chosen: StoredWearer;
  onChoose: (id: string | null) => void;
}

/** Which wearer is drawn, another one, or one less. */
export function WearerChoice({ trialId, wearers, chosen, onChoose }: WearerChoiceProps) {
  const [save] = useSaveWearerMutation();
  const bin = useBin(trialId, 'wearer');
  const told = useTold();
  const add = async () => {
    const { data } = await told(save({ trialId, from: null, draft: wearerDraftSchema.parse({ name: `Wearer ${wearers.length + 1}`, position: wearers.length }) }));
    if (data) onChoose(data.id);
  };
  return (
    <span className="row-line">
      {wearers.length > 1 && (
        <Form.Select size="sm" className="w-auto" aria-label="Which wearer" value={chosen.id} onChange={(event) => onChoose(event.target.value)}>
          {wearers.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Form.Select>
      )}
      <Button size="sm" variant="plain" aria-label="Add a wearer" onClick={() => void add()}>
        <Plus size={15} aria-hidden />
      </Button>
      <Button
        size="sm"
        variant="plain"
        aria-label={`Delete ${chosen.name}`}
        onClick={() => {
          bin(chosen.id, chosen.name);
          onChoose(null);
        }}
      >
        <Trash2 size={15} aria-hidden />
      </Button>
    </span>
  );
}

/** One of the rigs of the trial. */
export function RigChoice({ label, rigs, value, none, onChoose }: { label: string; rigs: readonly RigRecord[]; value: string; none?: string; onChoose: (id: string) => void }) {
  return (
    <Field label={label} className="grow">
      {(id) => (
        <Form.Select id={id} size="sm" value={value} onChange={(event) => onChoose(event.target.value)}>
          {none !== undefined && <option value="">{none}</option>}
          {rigs.map((rig) => (
            <option key={rig.id} value={rig.id}>
              {rig.name}
            </option>
          ))}
        </Form.Select>
      )}
    </Field>
  );
}

/** Makes a rig with nothing over it yet. */
export function NewRig({ trialId, count, onMade }: { trialId: string; count: number; onMade: (id: string) => void }) {
  const [save] = useSaveRigMutation();
  const told = useTold();
  const make = async () => {
    const { data } = await told(save({ trialId, from: null, draft: rigRecordDraftSchema.parse({ name: `Rig ${count + 1}` }) }));
    if (data) onMade(data.id);
  };
  return (
    <Button size="sm" variant="outline" onClick={() => void make()}>
      <Plus size={15} aria-hidden /> Rig
    </Button>
  );
}

/** Makes a rig a level of the plan. */
export function RigLevel({ rig, onLevel }: { rig: RigRecord; onLevel: () => void }) {
  return (
    <Button size="sm" variant="plain" aria-label={`Make ${rig.name} a level of the plan`} title="Make it a level of the plan" onClick={onLevel}>
      <ListPlus size={15} aria-hidden />
    </Button>
  );
}
