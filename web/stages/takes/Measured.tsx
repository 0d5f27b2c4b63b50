import type { RecordingDetail } from '@marvet/core/contract/recordings';
import type { EventKind } from '@marvet/core/domain/measureId';
import { recordingLengthS } from '@marvet/core/domain/recording';
import { shownEvents } from '@marvet/core/measure/events/corrected';
import { type AudioEvent, METHOD_VERSION, type Span } from '@marvet/core/measure/report.types';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { useMarkPerformanceMutation, useMeasureAgainMutation } from '../../data/work.ts';
import { type KeyHelp, useKeyHelp } from '../../parts/keys.tsx';
import { LevelLanes } from '../../parts/lanes/LevelLanes.tsx';
import type { MovableSpan } from '../../parts/lanes/SpanHandles.tsx';
import { SafePlayer, type Seek } from '../../parts/SafePlayer.tsx';
import { Sheet } from '../../parts/states.tsx';
import { useTold } from '../../parts/useTold.ts';
import { EventEditor } from './EventEditor.tsx';
import { EventList } from './EventList.tsx';
import { FiguresTable } from './FiguresTable.tsx';
import { Performance, SHORTEST_PERFORMANCE_S } from './Performance.tsx';
import { RoomTone, SHORTEST_ROOM_TONE_S, useRoomTone } from './RoomTone.tsx';
import { SpectrumChart } from './SpectrumChart.tsx';
import { SpectrumLane } from './SpectrumLane.tsx';
import { ON_PICTURE, useTimeWindow, WindowButtons } from './TimeWindow.tsx';
import { useCorrections } from './useCorrections.ts';
import { markedAt, useEventInHand } from './useEventInHand.ts';

const AROUND_S = 1;
const LOOP_AROUND_S = 0.15;
const SHORTEST_EVENT_S = 0.005;
const KEYS: KeyHelp[] = [
  { keys: 'M', does: 'Mark an event' },
  { keys: 'Esc', does: 'Put an event down' },
];

/** Level and spectrum over time, words, pauses and events, all of which can be heard and moved; and every figure. */
export function Measured({ recording }: { recording: RecordingDetail }) {
  const { report, series, file, trialId, corrections } = recording;
  const lengthS = Math.max((series?.rmsDbfs.length ?? 0) * (series?.stepS ?? 0), 0.1);
  const time = useTimeWindow(lengthS);
  const [atS, setAtS] = useState(0);
  const [seekTo, setSeekTo] = useState<Seek | null>(null);
  const [again] = useMeasureAgainMutation();
  const [markPerformance] = useMarkPerformanceMutation();
  const markRoomTone = useRoomTone(recording);
  const told = useTold();
  const events = useMemo(() => shownEvents(report?.events ?? [], corrections), [report, corrections]);
  const hand = useEventInHand(events);
  const { correct, takeBack } = useCorrections(recording);
  const startMarking = () => {
    const [startS, endS] = markedAt(atS, time.window, lengthS);
    hand.mark({ kind: 'disturbance', startS, endS });
  };
  useKeyHelp(KEYS);
  useHotkeys('m', startMarking, ON_PICTURE);
  useHotkeys('escape', hand.putDown, ON_PICTURE);
  if (!report || !series) return null;
  const { event } = hand;
  const hear = (heard: AudioEvent) => setSeekTo({ atS: Math.max(0, heard.startS - AROUND_S), untilS: heard.endS + AROUND_S });
  const loopOf = ({ startS, endS }: AudioEvent): Seek => ({ atS: Math.max(0, startS - LOOP_AROUND_S), untilS: Math.min(lengthS, endS + LOOP_AROUND_S), loop: true });
  const looped = seekTo?.loop === true;
  const change = async (now: { kind: EventKind; startS: number; endS: number } | null) => {
    const result = await correct(hand.draft ? null : event, now);
    if (!result.error && now) hand.follow(result.id);
    if (!result.error && !now) hand.putDown();
    return result;
  };
  const moved = async ([startS, endS]: Span) => {
    if (!event) return {};
    const now = { kind: event.kind, startS, endS };
    if (looped) setSeekTo(loopOf({ ...event, ...now }));
    if (!hand.draft) return change(now);
    hand.mark(now);
    return {};
  };
  const movable: MovableSpan[] = [
    ...(recording.judged
      ? [
          {
            span: recording.judged.span,
            names: ['What is judged begins', 'What is judged ends'] as const,
            className: 'judged' as const,
            shortestS: SHORTEST_PERFORMANCE_S,
            onMove: (span: Span) => told(markPerformance({ trialId, id: recording.id, performance: span })),
          },
        ]
      : []),
    ...(recording.roomTone
      ? [
          {
            span: recording.roomTone,
            names: ['Room tone begins', 'Room tone ends'] as const,
            className: 'room-tone' as const,
            shortestS: SHORTEST_ROOM_TONE_S,
            onMove: markRoomTone,
          },
        ]
      : []),
    ...(event
      ? [
          {
            span: [event.startS, event.endS] as Span,
            names: ['The event begins', 'The event ends'] as const,
            className: 'one-event' as const,
            shortestS: SHORTEST_EVENT_S,
            onMove: moved,
          },
        ]
      : []),
  ];
  const own = corrections.find(({ id }) => id === event?.correctionId);
  const longest = report.activity.pause.reduce<Span | null>((most, span) => (most && most[1] - most[0] >= span[1] - span[0] ? most : span), null);
  return (
    <>
      {file.methodVersion !== METHOD_VERSION && (
        <p className="caution p-2 mb-0" role="status">
          These figures are of an older method.{' '}
          <Button size="sm" variant="outline" onClick={() => void told(again({ trialId, fileId: recording.fileId }))}>
            Measure again
          </Button>
        </p>
      )}
      <Sheet
        title="Level over time, dBFS"
        aside={
          <span className="text-nowrap">
            <Button size="sm" variant="outline" onClick={startMarking} title="Mark what nobody found (M)">
              Mark an event
            </Button>{' '}
            <WindowButtons time={time} atS={atS} />
          </span>
        }
      >
        <LevelLanes
          label="Level over time"
          series={series}
          activity={report.activity}
          events={hand.draft && event ? [...events, event] : events}
          chosen={event}
          window={time.window}
          atS={atS}
          performance={recording.judged?.span ?? null}
          roomTone={recording.roomTone}
          movable={movable}
          onSeek={(seconds) => setSeekTo({ atS: seconds })}
          onEvent={(each) => {
            hand.choose(each);
            hear(each);
          }}
        />
        {series.bands && <SpectrumLane bands={series.bands} window={time.window} atS={atS} onSeek={(seconds) => setSeekTo({ atS: seconds })} />}
        <SafePlayer src={`/api/trials/${trialId}/recordings/${recording.id}/audio`} label="This recording" onTime={setAtS} seekTo={seekTo} />
        {event && (
          <EventEditor
            event={event}
            draft={hand.draft}
            looped={looped}
            onLoop={(on) => setSeekTo(on ? loopOf(event) : { atS })}
            onKind={(kind) => {
              const now = { kind, startS: event.startS, endS: event.endS };
              if (hand.draft) hand.mark(now);
              else void change(now);
            }}
            onNone={() => void change(null)}
            onKeep={() => void change({ kind: event.kind, startS: event.startS, endS: event.endS })}
            onTakeBack={
              own?.was
                ? () => {
                    takeBack(own);
                    hand.putDown();
                  }
                : null
            }
            onClose={hand.putDown}
          />
        )}
        <Performance recording={recording} shown={time.window} />
        <RoomTone recording={recording} lengthS={recordingLengthS(recording, file.format.durationS)} shown={time.window} longest={longest} onMark={markRoomTone} />
      </Sheet>
      <div className="columns">
        <Sheet title="Third-octave spectrum, dBFS">
          <SpectrumChart spectrum={report.spectrum} />
        </Sheet>
        <EventList
          report={report}
          lengthS={recordingLengthS(recording, file.format.durationS)}
          events={events}
          corrections={corrections}
          chosen={event}
          csvHref={`/api/trials/${trialId}/recordings/events.csv?recording=${recording.id}`}
          onHear={hear}
          onChoose={hand.choose}
          onTakeBack={takeBack}
        />
      </div>
      <FiguresTable
        recordingId={recording.id}
        report={report}
        lengthS={recordingLengthS(recording, file.format.durationS)}
        against={recording.against}
        both={recording.second ? recording.figures : null}
      />
    </>
  );
}
