import { frameBoomSchema, frameTalkerSchema } from '@marvet/core/domain/frame';
import type { Placement } from '@marvet/core/domain/placement';
import { acousticsSchema, type StoredStation } from '@marvet/core/domain/station';
import type { StoredWearer } from '@marvet/core/domain/wearer';
import type { SetupToHear } from '@marvet/core/place/hearSetups';
import { radians } from '@marvet/core/place/point';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { KeptNumber } from '../../parts/fields.tsx';
import { HearSetups } from './HearSetups.tsx';
import type { BesideBoom, WornRow } from './wornRows.ts';

interface HearWornProps {
  /** Rows of the rig, and of the one beside it. */
  rows: readonly WornRow[];
  chosenId: string | null;
  boom: BesideBoom;
  wearer: StoredWearer;
  stations: readonly StoredStation[];
  /** Of the candidate that sits at a placement, in dB A; null where it is not known. */
  selfNoiseOf: (placement: Placement) => number | null;
}

/** A mouth is so much lower than the top of the head. */
const MOUTH_SHARE = 0.905;
const CAMERA_M = 3;
const MOST = 6;
const NOWHERE = acousticsSchema.parse({});
/** Names no record: a microphone that is only compared with. */
const BOOM_ID = '00000000-0000-4000-8000-000000000001';

/** Hears the chosen spot under each rig, the other spots if wanted, and the boom beside them. */
export function HearWorn({ rows, chosenId, boom, wearer, stations, selfNoiseOf }: HearWornProps) {
  const [all, setAll] = useState(false);
  const [stationId, setStationId] = useState('');
  const [link, setLink] = useState<{ distanceM: number; reliableToM: number } | null>(null);
  const talker = frameTalkerSchema.parse({ id: wearer.id, name: wearer.name, awayM: CAMERA_M, mouthHeightM: Math.round(100 * wearer.heightM * MOUTH_SHARE) / 100 });
  const worn = rows.filter(({ placement, figures }) => figures && (all || placement.id === chosenId)).slice(0, MOST);
  const away = radians(boom.offAxisDeg);
  const setups: { name: string; setup: SetupToHear }[] = [
    ...worn.map(({ placement, rig }) => {
      const selfNoiseDba = selfNoiseOf(placement);
      return {
        name: `${placement.name}${rig ? `, ${rig.name}` : ''}`,
        setup: { kind: 'worn' as const, id: `${placement.id}/${rig?.id ?? ''}`, talker: 0, worn: { placement, rig }, link, ...(selfNoiseDba === null ? {} : { selfNoiseDba }) },
      };
    }),
    {
      name: boom.name,
      setup: {
        kind: 'boom',
        id: BOOM_ID,
        boom: frameBoomSchema.parse({
          id: BOOM_ID,
          from: 'above',
          awayM: CAMERA_M - boom.distanceM * Math.cos(away),
          acrossM: 0,
          heightM: talker.mouthHeightM + boom.distanceM * Math.sin(away),
          screenM: 0,
        }),
      },
    },
  ];
  return (
    <HearSetups
      setups={setups}
      talkers={[talker]}
      place={stations.find(({ id }) => id === stationId)?.acoustics ?? NOWHERE}
      what="The body or its rig"
      seed={wearer.name}
      more={
        <div className="row-line align-items-end mt-2">
          <Form.Select size="sm" className="w-auto" aria-label="Where" value={stationId} onChange={(event) => setStationId(event.target.value)}>
            <option value="">nowhere in particular</option>
            {stations.map((station) => (
              <option key={station.id} value={station.id}>
                {station.name}
              </option>
            ))}
          </Form.Select>
          <Form.Check id="hear-all-spots" label="all spots" checked={all} onChange={(event) => setAll(event.target.checked)} />
          <Form.Check
            id="hear-link"
            label="over its radio"
            checked={link !== null}
            onChange={(event) => setLink(event.target.checked ? { distanceM: 30, reliableToM: 40 } : null)}
          />
          {link && (
            <>
              <KeptNumber size="sm" label="Receiver at m" min={1} max={1000} value={link.distanceM} onKeep={(distanceM) => distanceM !== null && setLink({ ...link, distanceM })} />
              <KeptNumber
                size="sm"
                label="Good to m"
                min={1}
                max={1000}
                value={link.reliableToM}
                onKeep={(reliableToM) => reliableToM !== null && setLink({ ...link, reliableToM })}
              />
            </>
          )}
        </div>
      }
    />
  );
}
