import { type StationDraft, type StoredStation, stationDraftSchema } from '@marvet/core/domain/station';
import { criticalDistanceM, decaysOf, ROOM_OCTAVES_HZ, roomRemarks } from '@marvet/core/place/roomFigures';
import { meanAbsorption, type RoomSurfaces, SURFACES } from '@marvet/core/place/surfaces';
import { useCallback, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useChainsQuery, useItemsQuery, useSaveStationMutation, useStationsQuery } from '../../data/records.ts';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { useDraft } from '../../parts/useDraft.ts';
import { RoomChart } from './RoomChart.tsx';
import { type PatternInRoom, patternsOf } from './roomLines.ts';

/** The rooms of the stations: how they ring, and how far a microphone may stand from a mouth in them. */
export function RoomPart({ trialId }: { trialId: string }) {
  const stations = useStationsQuery(trialId);
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const [search, changeAddress] = useAddress();
  return (
    <Loaded of={[stations, chains, items]}>
      {() => {
        const chosen = stations.data!.find(({ id }) => id === search.get('station')) ?? stations.data![0];
        if (!chosen)
          return (
            <Empty>
              No station yet. A room belongs to a station: add one in <Link to="../plan">Plan</Link>.
            </Empty>
          );
        return (
          <RoomDesk key={chosen.id} saved={chosen} fetching={stations.isFetching} patterns={patternsOf(chains.data!, new Map(items.data!.map((item) => [item.id, item])))}>
            <Field label="Station">
              {(id) => (
                <Form.Select id={id} size="sm" value={chosen.id} onChange={(event) => changeAddress({ station: event.target.value })}>
                  {stations.data!.map((station) => (
                    <option key={station.id} value={station.id}>
                      {station.name}
                    </option>
                  ))}
                </Form.Select>
              )}
            </Field>
          </RoomDesk>
        );
      }}
    </Loaded>
  );
}

const USUAL_SIZE_M: [number, number, number] = [5, 4, 2.6];
const USUAL_SURFACES: RoomSurfaces = { floor: 'wood floor', ceiling: 'plaster', walls: 'gypsum', onWalls: 'window', onWallsShare: 0.1 };
const SIDES = ['Length m', 'Width m', 'Height m'];

interface RoomDeskProps {
  saved: StoredStation;
  fetching: boolean;
  patterns: PatternInRoom[];
  children: React.ReactNode;
}

function RoomDesk({ saved, fetching, patterns, children }: RoomDeskProps) {
  const { trialId, id } = saved;
  const [save, { error }] = useSaveStationMutation();
  const { draft, change, conflict } = useDraft(
    saved,
    fetching,
    useCallback(
      (station: StoredStation, _patch: Partial<StoredStation>, version: number) => save({ trialId, from: { id, version }, draft: stationDraftSchema.parse(station) }),
      [save, trialId, id],
    ),
  );
  const { acoustics } = draft;
  const { sizeM, absorption } = acoustics;
  const set = (patch: Partial<StationDraft['acoustics']>) => change({ acoustics: { ...acoustics, ...patch } });
  const walls = sizeM && absorption ? { sizeM, absorption } : null;
  return (
    <>
      <SaveTrouble what="This station" conflict={conflict} error={error} />
      <div className="columns">
        <div className="stack">
          <Sheet
            title="Voice over the room, at 1 kHz"
            aside={
              <span className="small soft">
                computed: <Link to="/methods#rooms">how</Link>
              </span>
            }
          >
            {walls ? <RoomChart walls={walls} patterns={patterns} /> : <Empty>Give the room its size and its surfaces: then it is seen how near a microphone must be.</Empty>}
          </Sheet>
          {walls && <RoomTables walls={walls} patterns={patterns} />}
        </div>
        <div className="stack">
          <Sheet title="The room">
            <div className="stack">
              {children}
              <Form.Check
                id="room-walls"
                label={draft.indoors ? 'has walls' : 'has walls, though it is not indoors'}
                checked={sizeM !== null}
                onChange={(event) => set(event.target.checked ? { sizeM: USUAL_SIZE_M } : { sizeM: null, absorption: null })}
              />
              {sizeM && (
                <div className="number-row">
                  {SIDES.map((label, side) => (
                    <KeptNumber
                      key={label}
                      size="sm"
                      label={label}
                      min={0.5}
                      max={500}
                      value={sizeM[side] as number}
                      onKeep={(value) => value !== null && set({ sizeM: sizeM.map((each, place) => (place === side ? value : each)) as [number, number, number] })}
                    />
                  ))}
                </div>
              )}
              {sizeM && <Surfaces sizeM={sizeM} known={absorption} onUse={(shares) => set({ absorption: shares })} />}
            </div>
          </Sheet>
          {walls && roomRemarks(walls).length > 0 && (
            <Sheet title="Worth knowing">
              {roomRemarks(walls).map((remark) => (
                <p key={remark} className="mb-2">
                  {remark}
                </p>
              ))}
            </Sheet>
          )}
        </div>
      </div>
    </>
  );
}

const KINDS: [keyof Omit<RoomSurfaces, 'onWallsShare'>, string][] = [
  ['floor', 'Floor'],
  ['ceiling', 'Ceiling'],
  ['walls', 'Walls'],
  ['onWalls', 'On part of the walls'],
];

/** What the surfaces are made of, and what they take up by that. */
function Surfaces({ sizeM, known, onUse }: { sizeM: [number, number, number]; known: readonly number[] | null; onUse: (absorption: number[]) => void }) {
  const [surfaces, setSurfaces] = useState(USUAL_SURFACES);
  const shares = meanAbsorption(sizeM, surfaces).map((share) => Math.round(share * 100) / 100);
  return (
    <details open={known === null}>
      <summary>{known ? `Surfaces take up ${known.map((share) => Math.round(100 * share)).join(', ')} %` : 'What are its surfaces?'}</summary>
      <div className="stack mt-2">
        {KINDS.map(([kind, label]) => (
          <Field key={kind} label={label}>
            {(id) => (
              <Form.Select id={id} size="sm" value={surfaces[kind]} onChange={(event) => setSurfaces({ ...surfaces, [kind]: event.target.value })}>
                {SURFACES.map((surface) => (
                  <option key={surface.id} value={surface.id}>
                    {surface.name}
                  </option>
                ))}
              </Form.Select>
            )}
          </Field>
        ))}
        <KeptNumber
          size="sm"
          label="Part of the walls, %"
          min={0}
          max={100}
          value={Math.round(100 * surfaces.onWallsShare)}
          onKeep={(percent) => percent !== null && setSurfaces({ ...surfaces, onWallsShare: percent / 100 })}
        />
        <p className="small soft mb-0">By octaves from 125 Hz to 4 kHz: {shares.map((share) => `${Math.round(100 * share)} %`).join(', ')}.</p>
        <div>
          <Button size="sm" variant="primary" onClick={() => onUse(shares.map((share) => Math.min(0.99, Math.max(0.01, share))))}>
            Use these surfaces
          </Button>
        </div>
      </div>
    </details>
  );
}

const TOLD_BANDS = [1, 3, 5];

function RoomTables({ walls, patterns }: { walls: { sizeM: [number, number, number]; absorption: number[] }; patterns: readonly PatternInRoom[] }) {
  return (
    <Sheet title="How it rings, and how near is near">
      <div className="row-line align-items-start">
        <table className="plain w-auto grow" aria-label="Decay by octave">
          <thead>
            <tr>
              <th className="num">Octave Hz</th>
              <th className="num">Sabine s</th>
              <th className="num">Eyring s</th>
            </tr>
          </thead>
          <tbody>
            {decaysOf(walls).map(({ hz, sabineS, eyringS }) => (
              <tr key={hz}>
                <td className="num">{hz}</td>
                <td className="num">{sabineS.toFixed(2)}</td>
                <td className="num">{eyringS.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <table className="plain w-auto grow" aria-label="Critical distance">
          <thead>
            <tr>
              <th>As strong as the room at</th>
              {TOLD_BANDS.map((band) => (
                <th key={band} className="num">
                  {ROOM_OCTAVES_HZ[band]} Hz
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {patterns.map(({ name, letters, pattern }) => (
              <tr key={name}>
                <td>
                  {name}
                  {letters.length > 0 && <div className="small soft">{letters.join(', ')}</div>}
                </td>
                {TOLD_BANDS.map((band) => (
                  <td key={band} className="num">
                    {criticalDistanceM(walls, pattern, band).toFixed(2)} m
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Sheet>
  );
}
