import { CLOTHS } from '@marvet/core/domain/clothLayer';
import { frameBoomSchema, frameTalkerSchema } from '@marvet/core/domain/frame';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import type { SpotId } from '@marvet/core/domain/spot';
import { acousticsSchema } from '@marvet/core/domain/station';
import { hearSetups, type SetupToHear } from '@marvet/core/place/hearSetups';

const id = (number: number) => `00000000-0000-4000-8000-00000000000${number}`;

/** Everything that can be in a place at once. */
const PLACE = acousticsSchema.parse({
  sizeM: [9, 6, 3.5],
  absorption: Array(6).fill(0.1),
  noiseDba: 35,
  windMs: 3,
  hum: { fundamentalHz: 43, levelDba: 40 },
  sources: [{ id: id(7), name: 'stove', awayM: 1, acrossM: 1, levelDba: 45 }],
});

const worn = (number: number, spot: SpotId): SetupToHear => ({
  kind: 'worn',
  id: id(number),
  talker: 0,
  worn: { placement: placementDraftSchema.parse({ name: spot, spot }), rig: rigRecordDraftSchema.parse({ name: 'two cloths', layers: CLOTHS.slice(0, 2) }) },
});
const boom = (number: number, tubeM: number): SetupToHear => ({
  kind: 'boom',
  id: id(number),
  boom: frameBoomSchema.parse({ id: id(number), from: 'above', awayM: 2, acrossM: 0.1, heightM: 2, tubeM }),
});

/** Prints how long two lavaliers and two booms take to be heard in a room with noise, sources, hum and wind. */
export function benchHearing(voice: Float64Array, rateHz: number): void {
  const before = process.cpuUsage();
  hearSetups({
    setups: [worn(1, 'lapel'), worn(2, 'collar'), boom(3, 0), boom(4, 0.25)],
    talkers: [frameTalkerSchema.parse({ id: id(9), name: 'Talker' })],
    place: PLACE,
    voice,
    rateHz,
    seed: 'bench',
  });
  const { user, system } = process.cpuUsage(before);
  const seconds = (user + system) / 1e6;
  console.log(`Four microphones heard on ${(voice.length / rateHz).toFixed(0)} s of words: ${seconds.toFixed(1)} s of processor time (to stay under 5)`);
}
