import { type StationDraft, type StoredStation, stationDraftSchema } from '@marvet/core/domain/station';
import { roomRemarks } from '@marvet/core/place/roomFigures';
import { useCallback, useMemo } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useChainsQuery, useFramesQuery, useItemsQuery, useSaveStationMutation, useStationsQuery } from '../../data/records.ts';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { useMovedDraft } from '../../parts/useMovedDraft.ts';
import { DecayOfTake } from './DecayOfTake.tsx';
import { HearSetups } from './HearSetups.tsx';
import { NoisePlan } from './NoisePlan.tsx';
import { NoiseTable } from './NoiseTable.tsx';
import { RoomChart } from './RoomChart.tsx';
import { RoomSurfacesChoice } from './RoomSurfacesChoice.tsx';
import { RoomTables } from './RoomTables.tsx';
import { type PatternInRoom, patternsOf } from './roomLines.ts';
import { SourceFields } from './SourceFields.tsx';
import { listenersOf, type StationListener } from './stationListeners.ts';
import { WindTable } from './WindTable.tsx';

/** The rooms of the stations and their noise: how they ring, how far a microphone may stand from a mouth, what else it hears. */
export function RoomPart({ trialId }: { trialId: string }) {
  const stations = useStationsQuery(trialId);
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const frames = useFramesQuery(trialId);
  const [search, changeAddress] = useAddress();
  const patterns = useMemo(() => patternsOf(chains.data ?? [], new Map((items.data ?? []).map((item) => [item.id, item]))), [chains.data, items.data]);
  return (
    <Loaded of={[stations, chains, items, frames]}>
      {() => {
        const chosen = stations.data!.find(({ id }) => id === search.get('station')) ?? stations.data![0];
        if (!chosen)
          return (
            <Empty>
              No station yet. A room belongs to a station: add one in <Link to="../plan">Plan</Link>.
            </Empty>
          );
        return (
          <RoomDesk key={chosen.id} saved={chosen} fetching={stations.isFetching} patterns={patterns} listeners={listenersOf(chosen.id, frames.data!)}>
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
const SIDES = ['Length m', 'Width m', 'Height m'];

interface RoomDeskProps {
  saved: StoredStation;
  fetching: boolean;
  patterns: PatternInRoom[];
  listeners: readonly StationListener[];
  children: React.ReactNode;
}

function RoomDesk({ saved, fetching, patterns, listeners, children }: RoomDeskProps) {
  const { trialId, id } = saved;
  const [save, { error }] = useSaveStationMutation();
  const { shown, change, move, rest, conflict } = useMovedDraft(
    saved,
    fetching,
    useCallback(
      (station: StoredStation, _patch: Partial<StoredStation>, version: number) => save({ trialId, from: { id, version }, draft: stationDraftSchema.parse(station) }),
      [save, trialId, id],
    ),
  );
  const { acoustics } = shown;
  const { sizeM, absorption } = acoustics;
  const set = (patch: Partial<StationDraft['acoustics']>) => change({ acoustics: { ...acoustics, ...patch } });
  const walls = sizeM && absorption ? { sizeM, absorption } : null;
  return (
    <>
      <SaveTrouble what="This station" conflict={conflict} error={error} />
      <div className="columns">
        <div className="stack">
          <Sheet title="The place from above, to scale" aside={<span className="small soft">metres from the talker’s mark</span>}>
            <NoisePlan acoustics={acoustics} listeners={listeners} onMove={(sources, byKey) => move({ acoustics: { ...acoustics, sources } }, byKey)} onRest={rest} />
          </Sheet>
          <Sheet
            title="Voice over noise at each microphone"
            aside={
              <span className="small soft">
                computed: <Link to="/methods#noise-at">how</Link>
              </span>
            }
          >
            <NoiseTable acoustics={acoustics} listeners={listeners} />
          </Sheet>
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
                label={shown.indoors ? 'has walls' : 'has walls, though it is not indoors'}
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
              {sizeM && <RoomSurfacesChoice sizeM={sizeM} known={absorption} onUse={(shares) => set({ absorption: shares })} />}
              {sizeM && <DecayOfTake trialId={trialId} stationId={id} sizeM={sizeM} onUse={(shares) => set({ absorption: shares })} />}
            </div>
          </Sheet>
          <Sheet title="What is heard there">
            <SourceFields trialId={trialId} stationId={id} acoustics={acoustics} onChange={set} />
          </Sheet>
          <WindTable windMs={acoustics.windMs} listeners={listeners} onChange={(windMs) => set({ windMs })} />
          <HearSetups
            setups={listeners.map(({ name, boom }) => ({ name, setup: { kind: 'boom', id: boom.id, boom } }))}
            talkers={listeners[0]?.frame.talkers ?? []}
            place={acoustics}
            what="The place"
            seed={shown.name}
          />
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
