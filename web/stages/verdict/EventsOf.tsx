import type { EventMoment, EventsTold } from '@marvet/core/decide/eventsTold';
import { listed } from '@marvet/core/domain/listed';
import { slateLabel } from '@marvet/core/domain/take';
import { EVENT_NAMES } from '@marvet/core/measure/eventNames';
import { lastedText, SEVERITY_WORDS } from '@marvet/core/measure/eventWords';
import { Volume2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useEventsToldQuery } from '../../data/judging.ts';
import { useTakesById, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { SafePlayer, type Seek } from '../../parts/SafePlayer.tsx';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** A second around an event, so that it is heard in its place. */
const AROUND_S = 1;

const perMinuteText = (perMinute: number) => `${perMinute < 10 ? perMinute.toFixed(1) : Math.round(perMinute)} a minute`;

/** What was found in the recordings of a candidate, with the moments to hear. */
export function EventsOf({ candidateId }: { candidateId: string }) {
  const trialId = useTrialId();
  const query = useEventsToldQuery(trialId);
  const byId = useTakesById(trialId);
  const slateOf = (takeId: string) => {
    const take = byId.get(takeId);
    return take ? slateLabel(take) : 'gone';
  };
  const [heard, setHeard] = useState<{ moment: EventMoment; seekTo: Seek } | null>(null);
  return (
    <Loaded of={[query]}>
      {() => {
        const told = query.data!.find((each) => each.candidateId === candidateId);
        if (!told || told.recordings === 0) return null;
        return (
          <Sheet title="Found in its takes" aside={<span className="small soft">{lengthText(told)}</span>}>
            {told.kinds.length === 0 && <p className="mb-0">No break-ups, clicks, clipping, plosives, wind, handling, rustle or other noises.</p>}
            {told.kinds.map(({ kind, count, perMinute, worst }) => (
              <div key={kind} className="found-kind">
                <b>{EVENT_NAMES[kind]}</b>
                <span className="mono small">
                  {count}, {perMinuteText(perMinute)}
                </span>
                <span className="row-line">
                  {worst.map((moment) => (
                    <span key={`${moment.recordingId} ${moment.event.startS}`}>
                      <Button
                        size="sm"
                        variant={heard?.moment === moment ? 'primary' : 'plain'}
                        className="icon no-print"
                        aria-label={`Hear ${EVENT_NAMES[kind]} in take ${slateOf(moment.takeId)} at ${moment.event.startS.toFixed(1)} s`}
                        onClick={() => setHeard({ moment, seekTo: stretchOf(moment) })}
                      >
                        <Volume2 size={15} aria-hidden />
                      </Button>{' '}
                      <Link to={`/trials/${trialId}/takes/${moment.recordingId}`}>
                        take {slateOf(moment.takeId)} at {moment.event.startS.toFixed(1)} s
                      </Link>{' '}
                      <span className="small soft">
                        {lastedText(moment.event.endS - moment.event.startS)}, {moment.event.severityDb.toFixed(0)} dB {SEVERITY_WORDS[kind]}
                      </span>
                    </span>
                  ))}
                </span>
              </div>
            ))}
            {heard && (
              <div className="mt-2 no-print">
                <SafePlayer
                  key={heard.moment.recordingId}
                  src={`/api/trials/${trialId}/recordings/${heard.moment.recordingId}/audio`}
                  label={`Take ${slateOf(heard.moment.takeId)}`}
                  seekTo={heard.seekTo}
                />
              </div>
            )}
          </Sheet>
        );
      }}
    </Loaded>
  );
}

/** What was found of every candidate, in a line each, for a page that is printed. */
export function EventsOfAll({ candidateIds }: { candidateIds: readonly string[] }) {
  const trialId = useTrialId();
  const query = useEventsToldQuery(trialId);
  const words = useTrialWords(trialId);
  const byId = useTakesById(trialId);
  const momentText = ({ takeId, event }: EventMoment) => {
    const take = byId.get(takeId);
    return take ? [`take ${slateLabel(take)} at ${event.startS.toFixed(1)} s`] : [];
  };
  return (
    <Sheet title="Found in the takes" aside={<span className="small soft">how often, and where to hear the strongest</span>}>
      <Loaded of={[query]}>
        {() => (
          <dl className="facts small">
            {candidateIds.flatMap((id) => {
              const told = query.data!.find(({ candidateId }) => candidateId === id);
              const chain = words.chains.get(id);
              if (!told || told.recordings === 0 || !chain) return [];
              return (
                <div key={id} className="fact">
                  <dt>
                    <TapeMark tape={chain.tape} name="" /> {chain.name}
                  </dt>
                  <dd className="fw-normal">
                    {told.kinds.length === 0
                      ? 'Nothing.'
                      : told.kinds
                          .map(
                            ({ kind, count, perMinute, worst }) => `${EVENT_NAMES[kind]} ${count} (${perMinuteText(perMinute)}; ${listed(worst.slice(0, 2).flatMap(momentText))})`,
                          )
                          .join('. ')}{' '}
                    <span className="soft">In {lengthText(told)}.</span>
                  </dd>
                </div>
              );
            })}
          </dl>
        )}
      </Loaded>
    </Sheet>
  );
}

const lengthText = ({ recordings, minutes }: EventsTold) => `${recordings} ${recordings === 1 ? 'recording' : 'recordings'}, ${minutes.toFixed(1)} minutes`;

function stretchOf({ event: { startS, endS } }: EventMoment): Seek {
  return { atS: Math.max(0, startS - AROUND_S), untilS: endS + AROUND_S };
}
