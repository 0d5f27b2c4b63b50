import { type Caution, stationCautions } from '@marvet/core/domain/caution';
import { BOOM_SIDES, type BoomSide, type FrameBoom, frameBoomSchema, frameDraftSchema, type StoredFrame } from '@marvet/core/domain/frame';
import { newId } from '@marvet/core/domain/identity';
import type { Plan } from '@marvet/core/domain/plan';
import { acousticsSchema, type StoredStation } from '@marvet/core/domain/station';
import { boomFigures } from '@marvet/core/place/boomFigures';
import { nearestOut } from '@marvet/core/place/boomPlace';
import { frameDangers } from '@marvet/core/place/frameDangers';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Nav from 'react-bootstrap/Nav';
import { Link } from 'react-router';
import { useChainsQuery, useFramesQuery, useItemsQuery, useSaveFrameMutation, useStationsQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { usePlanQuery } from '../../data/work.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';
import { BodyPart } from './BodyPart.tsx';
import { BoomTable } from './BoomTable.tsx';
import { boomNames, SIDE_WORDS } from './boomWords.ts';
import { ForeseenPart } from './ForeseenPart.tsx';
import { FrameAbove } from './FrameAbove.tsx';
import { FrameFields } from './FrameFields.tsx';
import { FrameSide } from './FrameSide.tsx';
import { HearFrame } from './HearFrame.tsx';
import { Pegs } from './Pegs.tsx';
import { RoomPart } from './RoomPart.tsx';
import { type CandidateMicrophone, candidateMicrophones } from './roomLines.ts';
import { useFrameDraft } from './useFrameDraft.ts';
import { useMakeLevel } from './useMakeLevel.ts';
import { WalkMarks } from './WalkMarks.tsx';

const PARTS = [
  ['frames', 'Frames and booms'],
  ['body', 'Body and lavaliers'],
  ['rooms', 'Rooms and noise'],
  ['found', 'Foreseen and found'],
] as const;

/** What can be reckoned before anyone goes out: frames with their booms, bodies with what they wear, rooms and their noise. */
export default function Placing() {
  const trialId = useTrialId();
  const [search, changeAddress] = useAddress();
  const part = PARTS.find(([id]) => id === search.get('part'))?.[0] ?? 'frames';
  return (
    <>
      <Nav variant="underline" className="parts no-print" activeKey={part} onSelect={(key) => changeAddress({ part: key === 'frames' ? null : key })} aria-label="Parts of placing">
        {PARTS.map(([id, name]) => (
          <Nav.Item key={id}>
            <Nav.Link eventKey={id} as="button" type="button">
              {name}
            </Nav.Link>
          </Nav.Item>
        ))}
      </Nav>
      {part === 'frames' && <Frames trialId={trialId} />}
      {part === 'body' && <BodyPart trialId={trialId} />}
      {part === 'rooms' && <RoomPart trialId={trialId} />}
      {part === 'found' && <ForeseenPart trialId={trialId} />}
    </>
  );
}

/** Frames of a trial with their booms, drawn to scale. */
function Frames({ trialId }: { trialId: string }) {
  const frames = useFramesQuery(trialId);
  const stations = useStationsQuery(trialId);
  const plan = usePlanQuery(trialId);
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const candidates = useMemo(() => candidateMicrophones(chains.data ?? [], new Map((items.data ?? []).map((item) => [item.id, item]))), [chains.data, items.data]);
  const [search, changeAddress] = useAddress();
  const [save] = useSaveFrameMutation();
  const told = useTold();
  const add = async () => {
    const draft = frameDraftSchema.parse({ name: `Frame ${(frames.data?.length ?? 0) + 1}`, talkers: [{ id: newId(), name: 'Talker' }], position: frames.data?.length ?? 0 });
    const booms = (['above', 'below'] as const).flatMap((from) => nearestOut(draft, from, newBoom()) ?? []);
    const { data } = await told(save({ trialId, from: null, draft: { ...draft, booms } }));
    if (data) changeAddress({ frame: data.id });
  };
  return (
    <Loaded of={[frames, stations, plan, chains, items]}>
      {() => {
        const chosen = frames.data!.find((frame) => frame.id === search.get('frame')) ?? frames.data![0];
        return (
          <>
            <div className="row-line apart no-print">
              {frames.data!.length > 1 ? (
                <Form.Select size="sm" className="w-auto" aria-label="Frame" value={chosen?.id} onChange={(event) => changeAddress({ frame: event.target.value })}>
                  {frames.data!.map((frame) => (
                    <option key={frame.id} value={frame.id}>
                      {frame.name}
                    </option>
                  ))}
                </Form.Select>
              ) : (
                <b>{chosen?.name}</b>
              )}
              <Button size="sm" variant="outline" onClick={() => void add()}>
                <Plus size={15} aria-hidden /> Frame
              </Button>
            </div>
            {chosen ? (
              <FrameDesk key={chosen.id} saved={chosen} fetching={frames.isFetching} stations={stations.data!} plan={plan.data!} candidates={candidates} />
            ) : (
              <Empty>
                <p>Where does a microphone stay out of the picture, and what does it hear from there? Draw the frame to scale: camera, talkers, booms.</p>
                <Button variant="primary" onClick={() => void add()}>
                  Draw a frame
                </Button>
              </Empty>
            )}
          </>
        );
      }}
    </Loaded>
  );
}

/** A microphone as it comes, before it has a place. */
function newBoom(): Omit<FrameBoom, 'awayM' | 'acrossM' | 'heightM' | 'from'> {
  const { awayM: _away, acrossM: _across, heightM: _height, from: _from, ...rest } = frameBoomSchema.parse({ id: newId(), from: 'above', awayM: 0, heightM: 0 });
  return rest;
}

/** A place of which nothing is known. */
const NOWHERE = acousticsSchema.parse({});

interface FrameDeskProps {
  saved: StoredFrame;
  fetching: boolean;
  stations: StoredStation[];
  plan: Plan;
  candidates: readonly CandidateMicrophone[];
}

function FrameDesk({ saved, fetching, stations, plan, candidates }: FrameDeskProps) {
  const { frame, kept, change, move, rest, conflict, error } = useFrameDraft(saved, fetching);
  const bin = useBin(saved.trialId, 'frame');
  const tell = useNotice();
  const makeLevel = useMakeLevel(saved.trialId, plan);
  const figures = useMemo(() => frame.booms.map((boom) => boomFigures(frame, boom)), [frame]);
  const station = stations.find(({ id }) => id === frame.stationId);
  const around = station?.acoustics ?? NOWHERE;
  const place = (from: BoomSide, boom: Omit<FrameBoom, 'awayM' | 'acrossM' | 'heightM' | 'from'>): FrameBoom | null => {
    const found = nearestOut(frame, from, boom);
    if (!found)
      tell(
        `${SIDE_WORDS[from][0]?.toUpperCase()}${SIDE_WORDS[from].slice(1)} there is no place out of this frame: it reaches ${from === 'above' || from === 'side' ? 'too far' : 'down to the ground'}`,
      );
    return found;
  };
  const takeAway = (boom: FrameBoom, name: string) => {
    const before = frame.booms;
    change({ booms: before.filter((each) => each.id !== boom.id) });
    tell(`The microphone ${name} was taken away`, () => change({ booms: before }));
  };
  const names = boomNames(frame.booms);
  const drawing = { frame, kept, figures, onMove: move, onRest: rest };
  return (
    <>
      <Cautions cautions={[...dangerCautions(frame, names), ...(station ? stationCautions(station) : [])]} foldable />
      <SaveTrouble what="This frame" conflict={conflict} error={error} />
      <div className="columns">
        <div className="stack">
          <Sheet title="From the side, to scale" aside={<span className="small soft">{cameraText(frame)}</span>}>
            <FrameSide {...drawing} />
          </Sheet>
          <Sheet
            title="The booms side by side"
            aside={
              <span className="row-line small">
                <span className="soft">Add, just out of frame:</span>
                {BOOM_SIDES.map((from) => (
                  <Button
                    key={from}
                    size="sm"
                    variant="outline"
                    onClick={() => {
                      const boom = place(from, newBoom());
                      if (boom) change({ booms: [...frame.booms, boom] });
                    }}
                  >
                    {SIDE_WORDS[from]}
                  </Button>
                ))}
              </span>
            }
          >
            {frame.booms.length === 0 ? (
              <Empty>No microphone yet. Above is usually nearer for the same frame; below hears more chest and more sibilants of who looks down. Put both in and compare.</Empty>
            ) : (
              <BoomTable
                frame={frame}
                figures={figures}
                around={around}
                onChange={change}
                onJustOut={(boom) => {
                  const found = place(boom.from, boom);
                  if (found) change({ booms: frame.booms.map((each) => (each.id === boom.id ? found : each)) });
                }}
                onLevel={(what, boom, name, own) => void makeLevel(what, `${frame.name}, ${name}`, boom, own, saved.id)}
                onDelete={takeAway}
              />
            )}
            <p className="small soft mb-0 mt-2">
              All computed, nothing measured: inverse square, the mouth as a piston in a sphere, patterns by their formula. <Link to="/methods#frames">How each is worked out</Link>
            </p>
          </Sheet>
        </div>
        <div className="stack">
          <Sheet title="From above">
            <FrameAbove {...drawing} />
          </Sheet>
          <HearFrame frame={frame} place={around} candidates={candidates} />
          <Sheet
            title="The frame in numbers"
            aside={
              <Button size="sm" variant="plain" aria-label={`Delete ${frame.name}`} onClick={() => bin(saved.id, frame.name)}>
                <Trash2 size={15} aria-hidden />
              </Button>
            }
          >
            <FrameFields frame={frame} stations={stations} onChange={change} />
          </Sheet>
          <Pegs frame={frame} />
          <WalkMarks plan={plan} />
        </div>
      </div>
    </>
  );
}

/** What the drawing itself shows to be dangerous, as cautions. */
const dangerCautions = (frame: StoredFrame, names: readonly string[]): Caution[] =>
  frameDangers(frame, names).map(({ dangerId, kind, text }) => ({ id: `frame:${dangerId}`, subjects: [frame.name], danger: kind, text }));

const cameraText = ({ camera, talkers }: StoredFrame) => `camera ${camera.focalMm} mm, ${camera.aspect} : 1, ${talkers[0]?.awayM.toFixed(1)} m`;
