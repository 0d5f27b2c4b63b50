import { BUILDS, type StoredWearer, wearerDraftSchema } from '@marvet/core/domain/wearer';
import { useCallback } from 'react';
import Form from 'react-bootstrap/Form';
import { useSaveWearerMutation } from '../../data/records.ts';
import { Field, KeptNumber, KeptText } from '../../parts/fields.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { RadioShadow } from './RadioShadow.tsx';

/** Who wears it: build, hair, what is on the head, the transmitter, and consent. */
export function WearerFields({ saved, fetching }: { saved: StoredWearer; fetching: boolean }) {
  const { id, trialId } = saved;
  const [save, { error }] = useSaveWearerMutation();
  const { draft, change, conflict } = useDraft(
    saved,
    fetching,
    useCallback(
      (wearer: StoredWearer, _patch: Partial<StoredWearer>, version: number) => save({ trialId, from: { id, version }, draft: wearerDraftSchema.parse(wearer) }),
      [save, trialId, id],
    ),
  );
  const choice = <Key extends 'build' | 'hair' | 'head'>(key: Key, label: string, options: readonly StoredWearer[Key][]) => (
    <Field label={label}>
      {(field) => (
        <Form.Select id={field} size="sm" value={draft[key]} onChange={(event) => change({ [key]: event.target.value } as Partial<StoredWearer>)}>
          {options.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </Form.Select>
      )}
    </Field>
  );
  return (
    <div className="stack">
      <SaveTrouble what="This wearer" conflict={conflict} error={error} />
      <KeptText label="Wearer" value={draft.name} maxLength={120} onKeep={(name) => name && change({ name })} />
      <div className="number-row">
        {choice('build', 'Build', BUILDS)}
        {choice('hair', 'Hair', ['none', 'short', 'long'])}
        {choice('head', 'On the head', ['bare', 'hat', 'helmet'])}
      </div>
      <Form.Check id={`${id}-glasses`} label="glasses" checked={draft.glasses} onChange={(event) => change({ glasses: event.target.checked })} />
      <KeptText label="Consent: who agreed to what, and when" value={draft.consent} maxLength={300} placeholder="not asked yet" onKeep={(consent) => change({ consent })} />
      <details>
        <summary>The transmitter, and what the body takes of its radio</summary>
        <div className="stack mt-2">
          <div className="number-row">
            <KeptNumber
              size="sm"
              label="Worn at °"
              min={-180}
              max={180}
              value={draft.transmitterDeg}
              onKeep={(transmitterDeg) => transmitterDeg !== null && change({ transmitterDeg })}
            />
            <KeptNumber size="sm" label="MHz" min={30} max={6000} value={draft.radioMhz} onKeep={(radioMhz) => radioMhz !== null && change({ radioMhz })} />
          </div>
          <p className="small soft mb-0">0° is in front, 90° at the left hip, 180° in the small of the back.</p>
          <RadioShadow wearer={draft} />
        </div>
      </details>
    </div>
  );
}
