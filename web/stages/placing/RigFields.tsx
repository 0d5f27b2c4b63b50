import { CLOTHS, type ClothLayer } from '@marvet/core/domain/clothLayer';
import { type RigRecord, rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { clothLossDb } from '@marvet/core/place/clothLoss';
import { Trash2 } from 'lucide-react';
import { useCallback } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useSaveRigMutation } from '../../data/records.ts';
import { Field, KeptNumber, KeptText } from '../../parts/fields.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { useDraft } from '../../parts/useDraft.ts';

const TOLD_HZ = [1000, 4000, 10_000] as const;
const FACES = ['up', 'down', 'out', 'in'] as const;
const MOST_LAYERS = 6;

/** How a microphone is fixed and covered: the cloths over it, its fixing, and where it looks. */
export function RigFields({ saved, fetching }: { saved: RigRecord; fetching: boolean }) {
  const { id, trialId } = saved;
  const [save, { error }] = useSaveRigMutation();
  const { draft, change, conflict } = useDraft(
    saved,
    fetching,
    useCallback(
      (rig: RigRecord, _patch: Partial<RigRecord>, version: number) => save({ trialId: trialId as string, from: { id, version }, draft: rigRecordDraftSchema.parse(rig) }),
      [save, trialId, id],
    ),
  );
  const setLayers = (layers: ClothLayer[]) =>
    change({
      layers,
      clothLayers: layers.length,
      cloth: layers
        .map(({ name }) => name)
        .join(' over ')
        .slice(0, 80),
    });
  return (
    <div className="stack">
      <SaveTrouble what="This rig" conflict={conflict} error={error} />
      {draft.layers.map((layer, index) => (
        <ClothRow
          // Layers have no identity but their place.
          key={`${index}/${layer.name}`}
          layer={layer}
          onChange={(next) => setLayers(draft.layers.map((each, place) => (place === index ? next : each)))}
          onDelete={() => setLayers(draft.layers.filter((_, place) => place !== index))}
        />
      ))}
      {draft.layers.length < MOST_LAYERS && (
        <Form.Select
          size="sm"
          aria-label="Add a layer of cloth"
          value=""
          onChange={(event) => {
            const chosen = CLOTHS.find(({ name }) => name === event.target.value);
            if (chosen) setLayers([...draft.layers, chosen]);
          }}
        >
          <option value="">{draft.layers.length === 0 ? 'Nothing over it: add a cloth…' : 'Add another layer under it…'}</option>
          {CLOTHS.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </Form.Select>
      )}
      {draft.layers.length > 0 && (
        <p className="small mb-0">
          Takes away {TOLD_HZ.map((hz) => `${clothLossDb(draft.layers, hz).toFixed(1)} dB at ${hz / 1000} kHz`).join(', ')} <span className="soft">(computed)</span>
        </p>
      )}
      <div className="row-line align-items-end">
        <Field label="Fixed with">
          {(field) => (
            <Form.Select id={field} size="sm" value={draft.fixing} onChange={(event) => change({ fixing: event.target.value as RigRecord['fixing'] })}>
              {rigRecordDraftSchema.shape.fixing.unwrap().options.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          )}
        </Field>
        <Field label="Over the capsule">
          {(field) => (
            <Form.Select id={field} size="sm" value={draft.cover} onChange={(event) => change({ cover: event.target.value as RigRecord['cover'] })}>
              {rigRecordDraftSchema.shape.cover.unwrap().options.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          )}
        </Field>
        <Field label="Looks">
          {(field) => (
            <Form.Select id={field} size="sm" value={draft.faces ?? ''} onChange={(event) => change({ faces: (event.target.value || null) as RigRecord['faces'] })}>
              <option value="">not noted</option>
              {FACES.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Form.Select>
          )}
        </Field>
      </div>
      <details>
        <summary>Cap, cable and skin</summary>
        <div className="stack mt-2">
          <div className="row-line align-items-end">
            <KeptNumber size="sm" label="Cap lifts dB" min={-12} max={20} value={draft.capLiftDb} placeholder="none" onKeep={(capLiftDb) => change({ capLiftDb })} />
            <Field label="Opening">
              {(field) => (
                <Form.Select id={field} size="sm" value={draft.address ?? ''} onChange={(event) => change({ address: (event.target.value || null) as RigRecord['address'] })}>
                  <option value="">not noted</option>
                  <option value="end">at its end</option>
                  <option value="side">at its side</option>
                </Form.Select>
              )}
            </Field>
            <Field label="Loop in the cable">
              {(field) => (
                <Form.Select
                  id={field}
                  size="sm"
                  value={draft.strainRelief === null ? '' : String(draft.strainRelief)}
                  onChange={(event) => change({ strainRelief: event.target.value === '' ? null : event.target.value === 'true' })}
                >
                  <option value="">not noted</option>
                  <option value="true">yes</option>
                  <option value="false">no</option>
                </Form.Select>
              )}
            </Field>
          </div>
          <Form.Check id={`${id}-skin`} label="on skin" checked={draft.onSkin} onChange={(event) => change({ onSkin: event.target.checked })} />
          <KeptText label="Name of this rig" value={draft.name} maxLength={120} onKeep={(name) => name && change({ name })} />
        </div>
      </details>
    </div>
  );
}

function ClothRow({ layer, onChange, onDelete }: { layer: ClothLayer; onChange: (layer: ClothLayer) => void; onDelete: () => void }) {
  return (
    <fieldset className="cloth-row" aria-label={layer.name}>
      <b>{layer.name}</b>
      <KeptNumber size="sm" label="g/m²" min={5} max={5000} value={layer.gsm} onKeep={(gsm) => gsm !== null && onChange({ ...layer, gsm })} />
      <KeptNumber size="sm" label="Pa·s/m" min={0} max={100_000} value={layer.flowPaSM} placeholder="airtight" onKeep={(flowPaSM) => onChange({ ...layer, flowPaSM })} />
      <Button size="sm" variant="plain" aria-label={`Take the ${layer.name} away`} onClick={onDelete}>
        <Trash2 size={15} aria-hidden />
      </Button>
    </fieldset>
  );
}
