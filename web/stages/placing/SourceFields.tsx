import { newId } from '@marvet/core/domain/identity';
import { type Acoustics, NOISE_KINDS, type NoiseKind, type NoiseSource } from '@marvet/core/domain/station';
import { Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field, KeptNumber, KeptText } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { SpectrumOfTake } from './SpectrumOfTake.tsx';

interface SourceFieldsProps {
  trialId: string;
  stationId: string;
  acoustics: Acoustics;
  onChange: (patch: Partial<Acoustics>) => void;
}

/** How loud such a thing often is at 1 m, in dB A, to start from. */
const USUAL_DBA: Record<NoiseKind, number> = { road: 75, engine: 72, ventilation: 45, water: 55, crowd: 62, generator: 74, refrigerator: 42, own: 50 };
const MOST = 12;

/** What is heard at a station: from all around, and from things that stand somewhere. */
export function SourceFields({ trialId, stationId, acoustics, onChange }: SourceFieldsProps) {
  const { sources } = acoustics;
  const tell = useNotice();
  const set = (id: string, patch: Partial<NoiseSource>) => onChange({ sources: sources.map((each) => (each.id === id ? { ...each, ...patch } : each)) });
  const add = (kind: NoiseKind) =>
    onChange({
      sources: [...sources, { id: newId(), name: kind, kind, awayM: 1, acrossM: sources.length - 1, heightM: 1, levelDba: USUAL_DBA[kind], moving: false, octavesDb: null }],
    });
  const takeAway = (source: NoiseSource) => {
    onChange({ sources: sources.filter(({ id }) => id !== source.id) });
    tell(`${source.name} was taken away`, () => onChange({ sources }));
  };
  return (
    <div className="stack">
      <KeptNumber size="sm" label="From all around, dB A" min={0} max={150} value={acoustics.noiseDba} placeholder="not known" onKeep={(noiseDba) => onChange({ noiseDba })} />
      {acoustics.hum && (
        <p className="small soft mb-0">
          With it a hum of {acoustics.hum.levelDba} dB A from {acoustics.hum.fundamentalHz} Hz up, as Plan has it.
        </p>
      )}
      {sources.map((source) => (
        <fieldset key={source.id} className="source-row" aria-label={source.name}>
          <div className="row-line apart">
            <KeptText label={`Name of ${source.name}`} hideLabel value={source.name} maxLength={120} onKeep={(name) => name && set(source.id, { name })} />
            <Button size="sm" variant="plain" aria-label={`Take ${source.name} away`} onClick={() => takeAway(source)}>
              <Trash2 size={15} aria-hidden />
            </Button>
          </div>
          <div className="number-row">
            <KeptNumber size="sm" label="dB A, 1 m" min={0} max={150} value={source.levelDba} onKeep={(levelDba) => levelDba !== null && set(source.id, { levelDba })} />
            <KeptNumber size="sm" label="Height m" min={0} max={100} value={source.heightM} onKeep={(heightM) => heightM !== null && set(source.id, { heightM })} />
            <Field label="Sounds like">
              {(id) => (
                <Form.Select id={id} size="sm" value={source.kind} onChange={(event) => set(source.id, { kind: event.target.value as NoiseKind, octavesDb: null })}>
                  {NOISE_KINDS.map((kind) => (
                    <option key={kind}>{kind}</option>
                  ))}
                </Form.Select>
              )}
            </Field>
          </div>
          <Form.Check id={`${source.id}-moving`} label="moves past" checked={source.moving} onChange={(event) => set(source.id, { moving: event.target.checked })} />
          {source.kind === 'own' && (
            <SpectrumOfTake trialId={trialId} stationId={stationId} known={source.octavesDb !== null} onUse={(octavesDb) => set(source.id, { octavesDb })} />
          )}
        </fieldset>
      ))}
      {sources.length < MOST && (
        <Form.Select size="sm" aria-label="Add what is heard" value="" onChange={(event) => event.target.value && add(event.target.value as NoiseKind)}>
          <option value="">Add what is heard…</option>
          {NOISE_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {kind === 'own' ? 'something, by its spectrum in a take' : kind}
            </option>
          ))}
        </Form.Select>
      )}
    </div>
  );
}
