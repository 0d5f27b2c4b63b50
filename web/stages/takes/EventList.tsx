import type { Correction } from '@marvet/core/domain/correction';
import type { ShownEvent } from '@marvet/core/measure/events/corrected';
import { eventText, SEVERITY_WORDS, unusual } from '@marvet/core/measure/eventWords';
import type { AudioEvent, ChannelReport } from '@marvet/core/measure/report.types';
import { Hand, Pencil, Volume2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Empty, Sheet } from '../../parts/states.tsx';

interface EventListProps {
  report: ChannelReport;
  lengthS: number;
  events: readonly ShownEvent[];
  corrections: readonly Correction[];
  chosen: ShownEvent | null;
  csvHref: string;
  onHear(event: AudioEvent): void;
  onChoose(event: AudioEvent): void;
  onTakeBack(correction: Correction): void;
}

/** What is unusual, in sentences, and every event with buttons to hear and to correct it. */
export function EventList({ report, lengthS, events, corrections, chosen, csvHref, onHear, onChoose, onTakeBack }: EventListProps) {
  const sentences = unusual({ ...report, events: [...events] }, lengthS);
  const none = corrections.filter((correction) => correction.was && !correction.now);
  return (
    <Sheet
      title="What is unusual"
      aside={
        <span className="small soft">
          {events.length === 0 ? 'no events' : `${events.length} events`} <a href={csvHref}>CSV</a>
        </span>
      }
    >
      {sentences.length === 0 ? (
        <Empty>Nothing: no break-ups, clicks, clipping, plosives, wind, handling, rustle or other noises were found.</Empty>
      ) : (
        <ul className="ps-3 mb-2">
          {sentences.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {events.length + none.length > 0 && (
        <section className="event-list" tabIndex={0} aria-label="Events">
          <table className="plain">
            <tbody>
              {events.map((event) => (
                <tr key={`${event.kind} ${event.startS}`} className={event === chosen ? 'chosen' : undefined}>
                  <td className="text-nowrap">
                    <Button size="sm" variant="plain" className="px-1" aria-label={`Hear ${eventText(event)}`} title="Hear it with a second around" onClick={() => onHear(event)}>
                      <Volume2 size={15} aria-hidden />
                    </Button>
                    <Button
                      size="sm"
                      variant="plain"
                      aria-label={`Correct ${eventText(event)}`}
                      title="Correct it: another kind, other edges, or none"
                      onClick={() => onChoose(event)}
                    >
                      <Pencil size={15} aria-hidden />
                    </Button>
                  </td>
                  <td className="text-nowrap">
                    {eventText(event)} {event.correctionId && <Hand size={13} role="img" aria-label="marked by hand" />}
                  </td>
                  <td className="num text-nowrap" title={event.pending ? 'Being measured' : `${event.severityDb.toFixed(0)} dB ${SEVERITY_WORDS[event.kind]}`}>
                    {event.pending ? '…' : `${event.severityDb.toFixed(0)} dB`}
                  </td>
                </tr>
              ))}
              {none.map((correction) => (
                <tr key={correction.id} className="soft">
                  <td />
                  <td>
                    <s>{eventText({ ...correction.was!, severityDb: 0 })}</s>, none by ear
                  </td>
                  <td className="num">
                    <Button size="sm" variant="plain" onClick={() => onTakeBack(correction)}>
                      As it was found
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </Sheet>
  );
}
