import type { DayPlan } from '@marvet/core/domain/plan';
import { X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { clockText, dateText } from '../../parts/dateText.ts';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { DropFirst } from './DropFirst.tsx';
import type { PlanPartProps } from './planPart.ts';
import { Timeline } from './Timeline.tsx';

const HOUR_MS = 3_600_000;

/** When the day starts and must be over, its breaks, the light, and the hours as they will go. */
export function DayPart(props: PlanPartProps) {
  const { plan, worked, stations, onChange } = props;
  const { day } = plan;
  const set = (patch: Partial<DayPlan>, told?: string) => onChange({ day: { ...day, ...patch } }, told);
  const result = worked?.day ?? null;
  const nameOf = (id: string) => stations.find((station) => station.id === id)?.name ?? '';
  return (
    <>
      <div className="columns">
        <Sheet title="Hours">
          <div className="row-line align-items-end">
            <InstantField label="Start" value={day.startsAtMs} onKeep={(startsAtMs) => set({ startsAtMs })} />
            <InstantField label="Over by" value={day.endsAtMs} onKeep={(endsAtMs) => set({ endsAtMs })} />
            <KeptNumber label="Change of batteries, min" size="sm" min={0} max={60} value={day.batteryChangeMin} onKeep={(minutes) => set({ batteryChangeMin: minutes ?? 0 })} />
          </div>
          <h3 className="mt-3 mb-1">Breaks</h3>
          {day.breaks.map((each, index) => (
            <div key={each.startsAtMs} className="row-line align-items-end mb-2">
              <InstantField
                label={`Break ${index + 1} from`}
                value={each.startsAtMs}
                onKeep={(startsAtMs) => startsAtMs !== null && set({ breaks: day.breaks.map((other) => (other === each ? { ...each, startsAtMs } : other)) })}
              />
              <KeptNumber
                label="Minutes"
                size="sm"
                min={1}
                max={480}
                value={each.lengthMin}
                onKeep={(lengthMin) => set({ breaks: day.breaks.map((other) => (other === each ? { ...each, lengthMin: lengthMin ?? 30 } : other)) })}
              />
              <Button
                size="sm"
                variant="plain"
                className="icon"
                aria-label={`Remove break ${index + 1}`}
                onClick={() => set({ breaks: day.breaks.filter((other) => other !== each) }, 'The break is gone')}
              >
                <X size={14} aria-hidden />
              </Button>
            </div>
          ))}
          <Button
            size="sm"
            variant="outline"
            disabled={day.startsAtMs === null}
            onClick={() => set({ breaks: [...day.breaks, { startsAtMs: (day.breaks.at(-1)?.startsAtMs ?? day.startsAtMs ?? 0) + 2 * HOUR_MS, lengthMin: 30 }] })}
          >
            Add a break
          </Button>
        </Sheet>
        <Sheet title="Light">
          {day.startsAtMs === null ? (
            <p className="soft mb-0">Give the day a start.</p>
          ) : (
            <>
              <dl className="facts mb-2">
                {(result?.suns ?? []).map(({ stationId, sunriseMs, sunsetMs, allDay }) => (
                  <div key={`${stationId} ${sunriseMs}`} className="fact">
                    <dt>{nameOf(stationId)}</dt>
                    <dd>
                      {allDay === 'light'
                        ? 'the sun does not set'
                        : allDay === 'dark'
                          ? 'the sun does not rise'
                          : `sun from ${sunriseMs === null ? '?' : clockText(sunriseMs)} to ${sunsetMs === null ? '?' : clockText(sunsetMs)}`}
                      {stations.find((station) => station.id === stationId)?.needsDaylight && ', needs daylight'}
                    </dd>
                  </div>
                ))}
              </dl>
              {result?.suns.length === 0 && <p className="soft">Give stations a position, and the sun is worked out for each.</p>}
              <p className="small soft mb-0">
                Computed for a level horizon, times of this computer’s zone. Hills and cloud take light away earlier; twilight is not counted as light.
              </p>
            </>
          )}
        </Sheet>
      </div>
      {result ? (
        <>
          <DayVerdict {...props} />
          <DropFirst {...props} />
          <Timeline {...props} />
        </>
      ) : (
        <Empty>With a start time the day is laid out minute by minute: changes, travel, takes, breaks, batteries, and whether it ends in time and in the light.</Empty>
      )}
    </>
  );
}

/** Whether the day ends in time and in the light, in a sentence or two. */
function DayVerdict({ worked, plan, stations }: PlanPartProps) {
  const day = worked?.day;
  if (!day || plan.day.startsAtMs === null) return null;
  const lateMin = Math.ceil(day.lateMs / 60_000);
  return (
    <Sheet title="How it ends">
      <p className="mb-1">
        {dateText(plan.day.startsAtMs)}: from <b className="mono">{clockText(plan.day.startsAtMs)}</b> to <b className="mono">{clockText(day.finishesAtMs)}</b>.{' '}
        {plan.day.endsAtMs !== null &&
          (lateMin > 0 ? <span className="alarm">{lateMin} min late.</span> : `In time, with ${Math.floor((plan.day.endsAtMs - day.finishesAtMs) / 60_000)} min to spare.`)}
      </p>
      {day.lightUnknown.length > 0 && (
        <p className="mb-1">
          <span className="alarm">Light not known:</span> {day.lightUnknown.map((id) => stations.find((station) => station.id === id)?.name).join(', ')} needs daylight and has no
          position, so nobody can say whether it will have it. Give it one under What is varied.
        </p>
      )}
      {day.inTheDark.length > 0 && (
        <p className="mb-1">
          <span className="alarm">In the dark:</span> take {day.inTheDark.map((index) => index + 1).join(', ')} in the order below, at a station that needs daylight. Start earlier,
          or put such stations first under Order.
        </p>
      )}
    </Sheet>
  );
}

/** Text of an instant as the input of this computer's own time wants it. */
function localText(ms: number): string {
  return new Date(ms - new Date(ms).getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

function InstantField({ label, value, onKeep }: { label: string; value: number | null; onKeep: (ms: number | null) => void }) {
  return (
    <Field label={label}>
      {(id) => (
        <Form.Control
          id={id}
          size="sm"
          type="datetime-local"
          value={value === null ? '' : localText(value)}
          onChange={(event) => {
            const ms = event.target.value ? new Date(event.target.value).getTime() : null;
            if (ms === null || Number.isFinite(ms)) onKeep(ms);
          }}
        />
      )}
    </Field>
  );
}
