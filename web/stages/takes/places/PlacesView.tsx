import type { Places, Placings } from '@marvet/core/contract/places';
import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import type { SortingState } from '@tanstack/react-table';
import { useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { usePlacesQuery, usePutInPlaceMutation, useSetRecorderMutation } from '../../../data/places.ts';
import { useTrialWords } from '../../../data/trialData.ts';
import { useNotice } from '../../../parts/notices.tsx';
import { Progress } from '../../../parts/Progress.tsx';
import { SafePlayer } from '../../../parts/SafePlayer.tsx';
import { Loaded } from '../../../parts/states.tsx';
import { useTold } from '../../../parts/useTold.ts';
import { VirtualTable } from '../../../parts/VirtualTable.tsx';
import { type PlaceRow, usePlaceColumns } from './placeColumns.tsx';
import { isDoubtful, isSurelyElsewhere } from './placeWords.ts';
import { RecorderTable } from './RecorderTable.tsx';
import { SplitFiles } from './SplitFiles.tsx';

interface PlacesViewProps {
  trialId: string;
  files: FileRow[];
  recordings: RecordingRow[];
  takes: Take[];
}

/** More recorders than this stand folded: what is to be put in place comes first. */
const MOST_OPEN = 4;

/** Where files lie as this page knows it: put elsewhere meanwhile, they are not moved. */
const takeNow = ({ placed }: PlaceRow) => placed?.takeId ?? null;

/** Where files belong, before anything is final: each with its guess, how sure that is and why; put there one by one or many at once. */
export function PlacesView({ trialId, files, recordings, takes }: PlacesViewProps) {
  const query = usePlacesQuery(trialId);
  return <Loaded of={[query]}>{() => <PlacesDesk trialId={trialId} files={files} recordings={recordings} takes={takes} places={query.data!} />}</Loaded>;
}

function PlacesDesk({ trialId, files, recordings, takes, places }: PlacesViewProps & { places: Places }) {
  const words = useTrialWords(trialId);
  const [put] = usePutInPlaceMutation();
  const [setRecorder] = useSetRecorderMutation();
  const told = useTold();
  const tell = useNotice();
  const [all, setAll] = useState(false);
  const [heard, setHeard] = useState<string | null>(null);
  const [sorting, setSorting] = useState<SortingState>([{ id: 'sure', desc: false }]);
  const slates = useMemo(() => new Map(takes.map((take) => [take.id, slateLabel(take)])), [takes]);
  const names = useMemo(() => new Map(files.map(({ id, name }) => [id, name])), [files]);
  const rows = useMemo(() => {
    const byId = new Map(files.map((file) => [file.id, file]));
    return places.files.flatMap((place): PlaceRow[] => {
      const file = byId.get(place.fileId);
      return file ? [{ ...place, name: file.name, lengthS: file.format?.durationS ?? 0, doubtful: isDoubtful(place) }] : [];
    });
  }, [files, places.files]);
  const shown = all ? rows : rows.filter(({ placed, doubtful }) => !placed || doubtful);
  const sure = rows.filter(isSurelyElsewhere);
  // One after the other, each from where the last one left a file: who types a number chooses another take with each figure.
  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const left = useRef({ listed: places, takes: new Map<string, string | null>() });
  // Once the list is asked for anew it says where they lie.
  if (left.current.listed !== places) left.current = { listed: places, takes: new Map() };
  const send = (asked: Placings['places'], said: string) => {
    sending.current = sending.current.then(async () => {
      const moves = asked.map((move) => (left.current.takes.has(move.fileId) ? { ...move, from: left.current.takes.get(move.fileId) ?? null } : move));
      const { data: before } = await told(put({ trialId, places: moves }));
      if (!before) return;
      for (const { fileId, takeId } of moves) left.current.takes.set(fileId, takeId);
      tell(said, () => void told(put({ trialId, ...before })));
    });
  };
  const putOne = (row: PlaceRow, takeId: string | null) => {
    // Whoever looked at one and put it knows: it stands, and the clock of its recorder follows it.
    const by = takeId === null ? null : 'hand';
    const where = takeId === null ? 'in no take' : `in ${slates.get(takeId)}`;
    send([{ fileId: row.fileId, takeId, by, from: takeNow(row) }], `${row.name} lies ${where}`);
  };
  const cutOne = (row: PlaceRow) => {
    const { fileId, name, cuts } = row;
    const parts = cuts.map(({ takeId, startS, endS, logStartS }) => ({ takeId, startS, endS, logStartS }));
    send([{ fileId, takeId: cuts[0]?.takeId ?? null, by: row.by, from: takeNow(row), cuts: parts }], `${name} is cut about ${cuts.length} takes; its bytes are as they were`);
  };
  const nameRecorder = async (row: PlaceRow, recorder: string) => {
    const { error } = await told(setRecorder({ trialId, fileIds: [row.fileId], recorder }));
    if (!error) tell(`${row.name} is by ${recorder}`, () => void told(setRecorder({ trialId, fileIds: [row.fileId], recorder: row.recorder })));
  };
  const columns = usePlaceColumns({
    takes,
    words,
    slateOf: (id) => slates.get(id) ?? '?',
    onPut: putOne,
    onCut: cutOne,
    onHear: setHeard,
    onRecorder: (row, recorder) => void nameRecorder(row, recorder),
  });
  const first = recordings.find(({ fileId }) => fileId === heard);
  return (
    <div className="stack">
      <details open={places.recorders.length <= MOST_OPEN}>
        <summary>
          {places.recorders.length} {places.recorders.length === 1 ? 'recorder' : 'recorders'}, what their channels are of, and their clocks
        </summary>
        <RecorderTable trialId={trialId} recorders={places.recorders} chains={[...words.chains.values()]} />
      </details>
      {places.split.length > 0 && <SplitFiles trialId={trialId} split={places.split} names={names} />}
      {places.tooMany && (
        <p className="small soft mb-0">There are too many files to listen for what sounds alike. Put in place what its clock is sure of; the rest is listened to then.</p>
      )}
      {places.looked < places.of && (
        <div className="row-line small" role="status">
          <Progress share={places.looked / places.of} label="Pairs listened to" widthPx={160} /> Listening for what sounds in files in place as well: {places.looked} of {places.of}{' '}
          pairs
        </div>
      )}
      <div className="filters">
        <Button
          variant="primary"
          disabled={sure.length === 0}
          onClick={() =>
            send(
              sure.map((row) => ({ fileId: row.fileId, takeId: row.takeId, by: row.by, from: takeNow(row) })),
              `${sure.length} ${sure.length === 1 ? 'file is' : 'files are'} in place`,
            )
          }
        >
          {sure.length === 0 ? 'None left that is surer than 90 %' : `Put the ${sure.length} that ${sure.length === 1 ? 'is' : 'are'} surer than 90 %`}
        </Button>
        <Form.Check type="switch" id="all-places" label="those that are in place too" checked={all} onChange={(event) => setAll(event.target.checked)} />
        <span className="small soft">
          Nothing is copied or altered: a file is only tied to its take. <Link to="/methods#places">How a place is found</Link>
        </span>
      </div>
      {first && (
        <div className="row-line">
          <span className="small text-nowrap">{first.fileName}</span>
          <SafePlayer key={first.id} src={`/api/trials/${trialId}/recordings/${first.id}/audio`} label={`Channel 1 of ${first.fileName}`} />
        </div>
      )}
      {shown.length === 0 ? (
        <p className="soft mb-0">Every file is in its place{rows.length > 0 ? ', and no clock contradicts' : ''}.</p>
      ) : (
        <VirtualTable label="Table of places" rows={shown} columns={columns} rowKey={(row) => row.fileId} sorting={sorting} onSorting={setSorting} />
      )}
    </div>
  );
}
