import { useMemo } from 'react';
import Nav from 'react-bootstrap/Nav';
import { useOutletContext } from 'react-router';
import { useChainsQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { useFilesQuery, usePlanQuery, useRecordingsQuery, useTakesQuery } from '../../data/work.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { BeginView } from './beginning/BeginView.tsx';
import { FigureMatrix } from './FigureMatrix.tsx';
import { FileTable } from './FileTable.tsx';
import { PlacesView } from './places/PlacesView.tsx';
import { RangeView } from './RangeView.tsx';
import { RecordingTable } from './RecordingTable.tsx';
import { SlatesSpoken } from './SlatesSpoken.tsx';
import { Uploads } from './Uploads.tsx';

/** Files in, matched to takes, measured; and all recordings with their figures. */
export default function Takes() {
  const trialId = useTrialId();
  const progress = useOutletContext<ReadonlyMap<string, number>>();
  const recordings = useRecordingsQuery(trialId);
  const files = useFilesQuery(trialId);
  const takes = useTakesQuery(trialId);
  const plan = usePlanQuery(trialId);
  const chains = useChainsQuery(trialId);
  const [search, changeAddress] = useAddress();
  const asked = search.get('view');
  const view = asked === 'begin' || asked === 'files' || asked === 'places' || asked === 'figures' || asked === 'range' ? asked : 'recordings';
  const loose = useMemo(() => {
    const withGap = new Set(
      recordings.data?.filter((recording) => (recording.setupId === null && recording.backup === null) || recording.takeId === null).map((recording) => recording.fileId),
    );
    return (files.data ?? []).filter((file) => withGap.has(file.id)).length;
  }, [recordings.data, files.data]);
  const placedIds = useMemo(() => new Set((files.data ?? []).filter(({ takeId }) => takeId !== null).map(({ id }) => id)), [files.data]);
  const unplaced = (files.data?.length ?? 0) - placedIds.size;
  // Who planned nothing has nothing to place files by: they are laid out by what they are.
  const unplanned = unplaced > 0 && plan.data?.committedAtMs === null;
  const choose = (next: string | null) => changeAddress({ view: next === 'recordings' ? null : next });
  return (
    <>
      <Uploads trialId={trialId} placedIds={placedIds} unplacedView={unplaced === 0 ? null : unplanned ? 'begin' : 'places'} />
      <Loaded of={[recordings, files, takes, plan, chains]}>
        {() =>
          // Links are judged by presses too: their range needs no file.
          files.data!.length === 0 && view !== 'range' && view !== 'begin' ? (
            <Empty>No audio yet. Name files by slate (S022_T01.wav) or let the recorder write scene and take; they find their takes by themselves.</Empty>
          ) : (
            <>
              <SlatesSpoken trialId={trialId} />
              <Sheet
                title={
                  {
                    begin: 'Begin with recordings',
                    files: 'Files',
                    places: 'Where files belong',
                    figures: 'Figures over the plan',
                    range: 'How far each link holds',
                    recordings: 'Recordings',
                  }[view]
                }
                aside={
                  <Nav variant="underline" activeKey={view} onSelect={choose}>
                    {(unplanned || view === 'begin') && (
                      <Nav.Item>
                        <Nav.Link as="button" type="button" eventKey="begin">
                          Lay out {unplaced > 0 && <span className="alarm small">{unplaced} new</span>}
                        </Nav.Link>
                      </Nav.Item>
                    )}
                    <Nav.Item>
                      <Nav.Link as="button" type="button" eventKey="recordings">
                        Recordings <span className="mono small">{recordings.data!.length}</span>
                      </Nav.Link>
                    </Nav.Item>
                    <Nav.Item>
                      <Nav.Link as="button" type="button" eventKey="figures">
                        Figures over the plan
                      </Nav.Link>
                    </Nav.Item>
                    <Nav.Item>
                      <Nav.Link as="button" type="button" eventKey="range">
                        Range
                      </Nav.Link>
                    </Nav.Item>
                    <Nav.Item>
                      <Nav.Link as="button" type="button" eventKey="files">
                        Files <span className="mono small">{files.data!.length}</span>
                        {loose > 0 && <span className="alarm small">, {loose} to be matched</span>}
                      </Nav.Link>
                    </Nav.Item>
                    <Nav.Item>
                      <Nav.Link as="button" type="button" eventKey="places">
                        Places {unplaced > 0 && <span className="alarm small">{unplaced} open</span>}
                      </Nav.Link>
                    </Nav.Item>
                  </Nav>
                }
              >
                {view === 'begin' ? (
                  <BeginView trialId={trialId} recordings={recordings.data!} chains={chains.data!} isFirst={takes.data!.length === 0} onDone={() => choose('recordings')} />
                ) : view === 'figures' ? (
                  <FigureMatrix trialId={trialId} recordings={recordings.data!} takes={takes.data!} plan={plan.data!} chains={chains.data!} />
                ) : view === 'range' ? (
                  <RangeView trialId={trialId} chains={chains.data!} />
                ) : view === 'places' ? (
                  <PlacesView trialId={trialId} files={files.data!} recordings={recordings.data!} takes={takes.data!} />
                ) : view === 'files' ? (
                  <FileTable trialId={trialId} files={files.data!} recordings={recordings.data!} takes={takes.data!} progress={progress} />
                ) : (
                  <RecordingTable trialId={trialId} recordings={recordings.data!} takes={takes.data!} plan={plan.data!} chains={chains.data!} />
                )}
              </Sheet>
            </>
          )
        }
      </Loaded>
    </>
  );
}
