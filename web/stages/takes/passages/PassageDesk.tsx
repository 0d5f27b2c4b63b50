import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import type { Take } from '@marvet/core/domain/take';
import type { LevelSeries } from '@marvet/core/measure/report.types';
import { matchFile } from '@marvet/core/takes/matchFile';
import { cutsAtPauses, pausesOf, SHORTEST_PASSAGE_S, snapped } from '@marvet/core/takes/passages/passages';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useHotkeys } from 'react-hotkeys-hook';
import { usePutInPlaceMutation } from '../../../data/places.ts';
import { KeptNumber } from '../../../parts/fields.tsx';
import { type KeyHelp, useKeyHelp } from '../../../parts/keys.tsx';
import { EdgeHandle } from '../../../parts/lanes/EdgeHandle.tsx';
import { LevelLanes } from '../../../parts/lanes/LevelLanes.tsx';
import { useNotice } from '../../../parts/notices.tsx';
import { SafePlayer, type Seek } from '../../../parts/SafePlayer.tsx';
import { Sheet } from '../../../parts/states.tsx';
import { useTold } from '../../../parts/useTold.ts';
import { ON_PICTURE, useTimeWindow, WindowButtons } from '../TimeWindow.tsx';
import { PassageTable } from './PassageTable.tsx';
import { cutAt, cutAtAll, draftOf, inOrder, joined, moved, of, type PassageDraft, placingOf, spansOf, takenTwice } from './passageDraft.ts';

const KEYS: KeyHelp[] = [{ keys: 'C', does: 'Cut at the playhead' }];
const USUAL_PAUSE_S = 2;
const NO_EVENTS: never[] = [];

/** A file and all that it is cut by. */
interface CutFile {
  file: FileRow;
  recordings: RecordingRow[];
  takes: Take[];
  levels: LevelSeries;
}

/** The desk on which a file is cut: the picture with its cuts, and the take of each passage; kept when all is as wanted. */
export function PassageDesk({ file, recordings, takes, levels }: CutFile) {
  const { trialId, format } = file;
  const lengthS = format.durationS;
  const time = useTimeWindow(lengthS);
  const kept = useMemo(() => draftOf(recordings, lengthS), [recordings, lengthS]);
  const [draft, setDraft] = useState<PassageDraft>(kept);
  const [snaps, setSnaps] = useState(true);
  const [pauseS, setPauseS] = useState(USUAL_PAUSE_S);
  const [atS, setAtS] = useState(0);
  const [seekTo, setSeekTo] = useState<Seek | null>(null);
  const [put, { isLoading }] = usePutInPlaceMutation();
  const told = useTold();
  const tell = useNotice();
  const order = useMemo(() => takes.map(({ id }) => id), [takes]);
  const pauses = useMemo(() => pausesOf(levels, pauseS), [levels, pauseS]);
  const placed = (seconds: number) => (snaps ? snapped(seconds, levels) : seconds);
  const cutHere = () => setDraft((now) => cutAt(now, placed(atS), lengthS, order));
  useKeyHelp(KEYS);
  useHotkeys('c', cutHere, ON_PICTURE);
  const atMarkers = () => {
    const moments = format.markers.map(({ atS: marked, label }) => ({
      atS: placed(marked),
      takeId: matchFile(label, { scene: null, take: null }, takes)?.takeId,
    }));
    setDraft((now) => cutAtAll(now, moments, lengthS, order));
  };
  const atPauses = () =>
    setDraft((now) =>
      cutAtAll(
        now,
        cutsAtPauses(levels, pauseS).map((cut) => ({ atS: cut })),
        lengthS,
        order,
      ),
    );
  const twice = takenTwice(draft);
  const changed = JSON.stringify(draft) !== JSON.stringify(kept);
  const keep = async () => {
    const { data: before } = await told(put({ trialId, places: [placingOf(draft, file.id, lengthS, file.takeId)] }));
    const parts = draft.takeIds.filter((takeId) => takeId !== null).length;
    if (before) tell(`${file.name} has ${parts} ${parts === 1 ? 'passage' : 'passages'}; its bytes are as they were`, () => void told(put({ trialId, ...before })));
  };
  return (
    <>
      <Sheet title="Where it is cut" aside={<WindowButtons time={time} atS={atS} />}>
        <div className="filters mb-2">
          <Button size="sm" variant="primary" onClick={cutHere} disabled={atS < SHORTEST_PASSAGE_S} title="Cut at the playhead (C)">
            Cut at the playhead
          </Button>
          {format.markers.length > 0 && (
            <Button size="sm" variant="outline" onClick={atMarkers}>
              Cut at its {format.markers.length} {format.markers.length === 1 ? 'marker' : 'markers'}
            </Button>
          )}
          <Button size="sm" variant="outline" onClick={atPauses} disabled={pauses.length === 0}>
            Cut at {pauses.length} {pauses.length === 1 ? 'pause' : 'pauses'}
          </Button>
          <span className="row-line small pause-length">
            of
            <KeptNumber size="sm" hideLabel label="Shortest pause that parts, s" min={0.3} max={600} value={pauseS} onKeep={(seconds) => seconds !== null && setPauseS(seconds)} />s
            and more
          </span>
          <Form.Check type="switch" id="snaps" label="cuts go to the quietest moment near" checked={snaps} onChange={(event) => setSnaps(event.target.checked)} />
        </div>
        <LevelLanes
          label="Level over time of the whole file"
          series={levels}
          activity={{ pause: pauses }}
          events={NO_EVENTS}
          window={time.window}
          atS={atS}
          onSeek={(seconds) => {
            setAtS(seconds);
            setSeekTo({ atS: seconds });
          }}
          onEvent={() => undefined}
          over={(share, heightShare) => (
            <div className="span-edges" style={{ height: `${heightShare * 100}%` }}>
              {draft.cutsS.map((cutS, index) => (
                <EdgeHandle
                  // A cut that is moved stays the same one.
                  key={`cut ${index + 1}`}
                  name={`Passage ${index + 2} begins`}
                  className="judged begins"
                  seconds={cutS}
                  window={time.window}
                  lengthS={lengthS}
                  share={share}
                  onMove={(seconds) => setDraft((now) => moved(now, index, seconds, lengthS))}
                  onKeep={() => undefined}
                />
              ))}
            </div>
          )}
        />
        <SafePlayer src={`/api/trials/${trialId}/files/${file.id}/channels/0/audio`} label={`Channel 1 of ${file.name}`} onTime={setAtS} seekTo={seekTo} />
      </Sheet>
      <Sheet
        title={`${spansOf(draft, lengthS).length} ${draft.cutsS.length === 0 ? 'passage' : 'passages'}`}
        aside={
          <span className="row-line">
            <Button size="sm" variant="outline" disabled={draft.cutsS.length === 0} onClick={() => setDraft(inOrder(draft, order))}>
              Takes in their order
            </Button>
            <Button size="sm" variant="plain" disabled={!changed} onClick={() => setDraft(kept)}>
              As it was
            </Button>
            <Button variant="primary" disabled={!changed || twice.size > 0 || isLoading} onClick={() => void keep()}>
              Keep these passages
            </Button>
          </span>
        }
      >
        {takes.length === 0 && <p className="caution p-2">There are no takes yet that a passage could be of: plan some, or lay the file out first.</p>}
        <PassageTable
          trialId={trialId}
          draft={draft}
          lengthS={lengthS}
          takes={takes}
          markers={format.markers}
          twice={twice}
          onTake={(index, takeId) => setDraft(of(draft, index, takeId))}
          onJoin={(index) => setDraft(joined(draft, index))}
          onHear={([fromS, toS]) => setSeekTo({ atS: fromS, untilS: toS })}
        />
        <p className="small soft mb-0 mt-2">
          Each passage is measured, heard and compared by itself. Nothing is copied or altered; what is in no take is not measured. Where a slate or a name is spoken, what is
          judged begins after it, if the trial or the file says so.
        </p>
      </Sheet>
    </>
  );
}
