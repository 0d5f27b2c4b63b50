import { eventText, SEVERITY_WORDS, unusual } from '@marvet/core/measure/eventWords';
import type { AudioEvent, ChannelReport } from '@marvet/core/measure/report.types';
import { Volume2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Empty, Sheet } from '../../parts/states.tsx';

/** What is unusual, in sentences, and every event with a button to hear it. */
export function EventList({ report, lengthS, onEvent }: { report: ChannelReport; lengthS: number; onEvent: (event: AudioEvent) => void }) {
  const sentences = unusual(report, lengthS);
  const events = report.events ?? [];
  return (
    <Sheet title="What is unusual" aside={<span className="small soft">{events.length === 0 ? 'no events' : `${events.length} events`}</span>}>
      {sentences.length === 0 ? (
        <Empty>Nothing: no break-ups, clicks, clipping, plosives, wind, handling, rustle or other noises were found.</Empty>
      ) : (
        <ul className="ps-3 mb-2">
          {sentences.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {events.length > 0 && (
        <section className="event-list" tabIndex={0} aria-label="Events">
          <table className="plain">
            <tbody>
              {events.map((event) => (
                <tr key={`${event.kind} ${event.startS}`}>
                  <td>
                    <Button size="sm" variant="plain" aria-label={`Hear ${eventText(event)}`} title="Hear it with a second around" onClick={() => onEvent(event)}>
                      <Volume2 size={15} aria-hidden />
                    </Button>
                  </td>
                  <td>{eventText(event)}</td>
                  <td className="num" title={`${event.severityDb.toFixed(0)} dB ${SEVERITY_WORDS[event.kind]}`}>
                    {event.severityDb.toFixed(0)} dB
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
