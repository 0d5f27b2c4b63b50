import { type FrameBoom, type FrameDraft, frameBoomSchema, frameDraftSchema, type StoredFrame } from '@marvet/core/domain/frame';
import { boomNames } from './boomWords.ts';

/** A microphone that listens at a station, in the frame that it belongs to. */
export interface StationListener {
  name: string;
  frame: FrameDraft;
  boom: FrameBoom;
}

/** Names no record: where no frame is drawn at a station. */
const ID = '00000000-0000-4000-8000-00000000000';
const USUAL_AWAY_M = 2.5;

/** A boom where one often hangs, and a microphone on the camera: what a place does to either. */
const USUAL: StationListener[] = (() => {
  const frame = frameDraftSchema.parse({ name: 'nothing drawn', talkers: [{ id: `${ID}9`, name: 'Talker', awayM: USUAL_AWAY_M }] });
  const boom = (id: number, given: object) => frameBoomSchema.parse({ id: `${ID}${id}`, from: 'above', acrossM: 0, screenM: 0, ...given });
  return [
    { name: 'boom, 0.6 m above', frame, boom: boom(1, { awayM: 2.1, heightM: 2 }) },
    { name: 'on the camera', frame, boom: boom(2, { from: 'planted', awayM: 0.1, heightM: 1.5 }) },
  ];
})();

/** The microphones of the frames that are at a station; two usual ones where none is drawn there. All hear the first frame's talkers. */
export function listenersOf(stationId: string, frames: readonly StoredFrame[]): StationListener[] {
  const frame = frames.find((each) => each.stationId === stationId && each.booms.length > 0);
  if (!frame) return USUAL;
  const names = boomNames(frame.booms);
  return frame.booms.map((boom, index) => ({ name: names[index] as string, frame, boom }));
}
