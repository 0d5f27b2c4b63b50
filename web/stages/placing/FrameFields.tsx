import { type FrameDraft, type FrameTalker, frameLightSchema, SENSOR_FORMATS } from '@marvet/core/domain/frame';
import { newId } from '@marvet/core/domain/identity';
import type { StoredStation } from '@marvet/core/domain/station';
import { Plus, Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field, KeptNumber, KeptText } from '../../parts/fields.tsx';
import { DangerFields } from './DangerFields.tsx';

interface FrameFieldsProps {
  frame: FrameDraft;
  stations: readonly StoredStation[];
  onChange: (patch: Partial<FrameDraft>) => void;
}

const ASPECTS = [1.33, 1.78, 1.85, 2, 2.39];
const MOST_TALKERS = 3;

/** What the drawing is made from, in numbers: the camera, who is in the frame, who holds the pole, and the place. */
export function FrameFields({ frame, stations, onChange }: FrameFieldsProps) {
  return (
    <div className="stack">
      <KeptText label="Frame" value={frame.name} maxLength={120} onKeep={(name) => name && onChange({ name })} />
      <CameraFields frame={frame} onChange={onChange} />
      {frame.talkers.map((talker, index) => (
        <TalkerFields
          key={talker.id}
          talker={talker}
          onChange={(patch) => onChange({ talkers: frame.talkers.map((each, place) => (place === index ? { ...each, ...patch } : each)) })}
          onDelete={
            frame.talkers.length > 1 && !frame.booms.some((boom) => boom.aimsAt >= index && index > 0 && boom.aimsAt === index) ? () => onChange(withoutTalker(frame, index)) : null
          }
        />
      ))}
      {frame.talkers.length < MOST_TALKERS && (
        <div>
          <Button size="sm" variant="outline" onClick={() => onChange({ talkers: [...frame.talkers, another(frame.talkers)] })}>
            <Plus size={15} aria-hidden /> Talker
          </Button>
        </div>
      )}
      <details>
        <summary>The place, the pole and the margin</summary>
        <div className="stack mt-2">
          <Field label="Station" help="Its room and its noise count in the figures, and its cautions stand above.">
            {(id) => (
              <Form.Select id={id} size="sm" value={frame.stationId ?? ''} onChange={(event) => onChange({ stationId: event.target.value || null })}>
                <option value="">none</option>
                {stations.map((station) => (
                  <option key={station.id} value={station.id}>
                    {station.name}
                  </option>
                ))}
              </Form.Select>
            )}
          </Field>
          <div className="number-row">
            <KeptNumber size="sm" label="Ceiling m" min={1.5} max={60} value={frame.ceilingM} placeholder="open" onKeep={(ceilingM) => onChange({ ceilingM })} />
            <KeptNumber size="sm" label="Out of frame by m" min={0} max={1} value={frame.marginM} onKeep={(marginM) => marginM !== null && onChange({ marginM })} />
            <KeptNumber
              size="sm"
              label="Hands at m"
              min={0.5}
              max={2.6}
              value={frame.operator.handsM}
              onKeep={(handsM) => handsM !== null && onChange({ operator: { ...frame.operator, handsM } })}
            />
            <KeptNumber
              size="sm"
              label="Pole m"
              min={0.3}
              max={8}
              value={frame.operator.poleM}
              onKeep={(poleM) => poleM !== null && onChange({ operator: { ...frame.operator, poleM } })}
            />
            <KeptNumber
              size="sm"
              label="Pole kg"
              min={0}
              max={5}
              value={frame.operator.poleKg}
              onKeep={(poleKg) => poleKg !== null && onChange({ operator: { ...frame.operator, poleKg } })}
            />
          </div>
        </div>
      </details>
      <LightFields frame={frame} onChange={onChange} />
      <DangerFields frame={frame} onChange={onChange} />
    </div>
  );
}

function LightFields({ frame: { light }, onChange }: Pick<FrameFieldsProps, 'frame' | 'onChange'>) {
  return (
    <div className="stack">
      <Form.Check
        id="frame-light"
        label="a light throws shadows"
        checked={light !== null}
        onChange={(event) => onChange({ light: event.target.checked ? frameLightSchema.parse({}) : null })}
      />
      {light && (
        <div className="number-row">
          <KeptNumber
            size="sm"
            label="Light from °"
            min={-180}
            max={180}
            value={light.fromDeg}
            onKeep={(fromDeg) => fromDeg !== null && onChange({ light: { ...light, fromDeg } })}
          />
          <KeptNumber size="sm" label="Light up °" min={1} max={90} value={light.upDeg} onKeep={(upDeg) => upDeg !== null && onChange({ light: { ...light, upDeg } })} />
        </div>
      )}
    </div>
  );
}

function withoutTalker({ talkers, booms }: FrameDraft, index: number): Partial<FrameDraft> {
  return {
    talkers: talkers.filter((_, place) => place !== index),
    booms: booms.map((boom) => ({ ...boom, aimsAt: boom.aimsAt > index ? boom.aimsAt - 1 : boom.aimsAt === index ? 0 : boom.aimsAt })),
  };
}

function another(talkers: readonly FrameTalker[]): FrameTalker {
  const last = talkers.at(-1) as FrameTalker;
  return { ...last, id: newId(), name: `Talker ${talkers.length + 1}`, acrossM: Math.round((last.acrossM + 0.9) * 100) / 100 };
}

function CameraFields({ frame: { camera }, onChange }: Pick<FrameFieldsProps, 'frame' | 'onChange'>) {
  const set = (patch: Partial<FrameDraft['camera']>) => onChange({ camera: { ...camera, ...patch } });
  const format = SENSOR_FORMATS.findIndex(({ widthMm, heightMm }) => widthMm === camera.sensorWidthMm && heightMm === camera.sensorHeightMm);
  return (
    <fieldset className="stack">
      <legend className="fs-6 fw-bold mb-0">Camera</legend>
      <Field label="Sensor">
        {(id) => (
          <Form.Select
            id={id}
            size="sm"
            value={format}
            onChange={(event) => {
              const chosen = SENSOR_FORMATS[Number(event.target.value)];
              if (chosen) set({ sensorWidthMm: chosen.widthMm, sensorHeightMm: chosen.heightMm });
            }}
          >
            {format < 0 && <option value={-1}>{`${camera.sensorWidthMm} x ${camera.sensorHeightMm} mm`}</option>}
            {SENSOR_FORMATS.map(({ name }, index) => (
              <option key={name} value={index}>
                {name}
              </option>
            ))}
          </Form.Select>
        )}
      </Field>
      <div className="number-row">
        <KeptNumber size="sm" label="Lens mm" min={2} max={1200} value={camera.focalMm} onKeep={(focalMm) => focalMm !== null && set({ focalMm })} />
        <Field label="Aspect">
          {(id) => (
            <Form.Select id={id} size="sm" className="mono" value={camera.aspect} onChange={(event) => set({ aspect: Number(event.target.value) })}>
              {!ASPECTS.includes(camera.aspect) && <option value={camera.aspect}>{camera.aspect}</option>}
              {ASPECTS.map((aspect) => (
                <option key={aspect} value={aspect}>
                  {aspect}
                </option>
              ))}
            </Form.Select>
          )}
        </Field>
        <KeptNumber size="sm" label="Height m" min={0} max={20} value={camera.heightM} onKeep={(heightM) => heightM !== null && set({ heightM })} />
        <KeptNumber size="sm" label="Tilt °" min={-80} max={80} value={camera.tiltDeg} onKeep={(tiltDeg) => tiltDeg !== null && set({ tiltDeg })} />
        <KeptNumber size="sm" label="Squeeze" min={1} max={2} value={camera.squeeze} onKeep={(squeeze) => squeeze !== null && set({ squeeze })} />
        <KeptNumber size="sm" label="Sensor wide mm" min={2} max={70} value={camera.sensorWidthMm} onKeep={(sensorWidthMm) => sensorWidthMm !== null && set({ sensorWidthMm })} />
        <KeptNumber
          size="sm"
          label="Sensor high mm"
          min={1.5}
          max={55}
          value={camera.sensorHeightMm}
          onKeep={(sensorHeightMm) => sensorHeightMm !== null && set({ sensorHeightMm })}
        />
      </div>
    </fieldset>
  );
}

/** Where a grown mouth is by how somebody holds themselves. */
const POSES = { stands: 1.55, sits: 1.18, kneels: 1.05, lies: 0.3 } as const;

function poseOf({ mouthHeightM }: FrameTalker): keyof typeof POSES {
  if (mouthHeightM < 0.7) return 'lies';
  if (mouthHeightM < 1.1) return 'kneels';
  return mouthHeightM < 1.3 ? 'sits' : 'stands';
}

function TalkerFields({ talker, onChange, onDelete }: { talker: FrameTalker; onChange: (patch: Partial<FrameTalker>) => void; onDelete: (() => void) | null }) {
  const number = (label: string, field: Exclude<keyof FrameTalker, 'name' | 'id'>, min: number, max: number) => (
    <KeptNumber size="sm" label={label} min={min} max={max} value={talker[field]} onKeep={(value) => value !== null && onChange({ [field]: value })} />
  );
  return (
    <fieldset className="stack">
      <legend className="row-line apart fs-6 fw-bold mb-0">
        <span>{talker.name}</span>
        {onDelete && (
          <Button size="sm" variant="plain" aria-label={`Take ${talker.name} out of the frame`} onClick={onDelete}>
            <Trash2 size={15} aria-hidden />
          </Button>
        )}
      </legend>
      <KeptText label="Talker" hideLabel value={talker.name} maxLength={120} onKeep={(name) => name && onChange({ name })} />
      <div className="number-row">
        <Field label="Pose">
          {(id) => (
            <Form.Select id={id} size="sm" value={poseOf(talker)} onChange={(event) => onChange({ mouthHeightM: POSES[event.target.value as keyof typeof POSES] })}>
              {Object.keys(POSES).map((pose) => (
                <option key={pose}>{pose}</option>
              ))}
            </Form.Select>
          )}
        </Field>
        {number('Away m', 'awayM', 0.3, 60)}
        {number('Across m', 'acrossM', -20, 20)}
        {number('Mouth at m', 'mouthHeightM', 0.1, 3)}
        {number('Looks °', 'looksDeg', -180, 180)}
        {number('Leans m', 'leanM', 0, 1.5)}
        {number('Turns °', 'turnDeg', 0, 180)}
      </div>
    </fieldset>
  );
}
