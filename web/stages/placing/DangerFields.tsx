import { DANGERS, type DangerKind, type FrameDanger, type FrameDraft, frameDangerSchema } from '@marvet/core/domain/frame';
import { newId } from '@marvet/core/domain/identity';
import { Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { KeptNumber } from '../../parts/fields.tsx';

const MOST = 8;

/** What is in the way of poles and stands: overhead lines, water, paths, people. */
export function DangerFields({ frame, onChange }: { frame: FrameDraft; onChange: (patch: Partial<FrameDraft>) => void }) {
  const { dangers } = frame;
  const set = (id: string, patch: Partial<FrameDanger>) => onChange({ dangers: dangers.map((each) => (each.id === id ? { ...each, ...patch } : each)) });
  const add = (kind: DangerKind) => onChange({ dangers: [...dangers, frameDangerSchema.parse({ id: newId(), kind, awayM: (frame.talkers[0]?.awayM ?? 2) + 1, acrossM: 1 })] });
  return (
    <details open={dangers.length > 0}>
      <summary>What is in the way</summary>
      <div className="stack mt-2">
        {dangers.map((danger) => (
          <fieldset key={danger.id} aria-label={danger.kind}>
            <div className="row-line apart">
              <b>{danger.kind}</b>
              <Button size="sm" variant="plain" aria-label={`Take the ${danger.kind} away`} onClick={() => onChange({ dangers: dangers.filter(({ id }) => id !== danger.id) })}>
                <Trash2 size={15} aria-hidden />
              </Button>
            </div>
            <div className="number-row">
              <KeptNumber size="sm" label="Away m" min={-20} max={60} value={danger.awayM} onKeep={(awayM) => awayM !== null && set(danger.id, { awayM })} />
              {danger.kind === 'overhead line' ? (
                <KeptNumber size="sm" label="Up m" min={0} max={60} value={danger.heightM} onKeep={(heightM) => heightM !== null && set(danger.id, { heightM })} />
              ) : (
                <>
                  <KeptNumber size="sm" label="Across m" min={-20} max={20} value={danger.acrossM} onKeep={(acrossM) => acrossM !== null && set(danger.id, { acrossM })} />
                  <KeptNumber size="sm" label="Deep m" min={0.1} max={60} value={danger.deepM} onKeep={(deepM) => deepM !== null && set(danger.id, { deepM })} />
                  <KeptNumber size="sm" label="Wide m" min={0.1} max={60} value={danger.wideM} onKeep={(wideM) => wideM !== null && set(danger.id, { wideM })} />
                </>
              )}
            </div>
          </fieldset>
        ))}
        {dangers.length < MOST && (
          <Form.Select size="sm" aria-label="Add what is in the way" value="" onChange={(event) => event.target.value && add(event.target.value as DangerKind)}>
            <option value="">Add what is in the way…</option>
            {DANGERS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </Form.Select>
        )}
      </div>
    </details>
  );
}
