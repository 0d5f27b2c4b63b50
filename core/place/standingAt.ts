import type { FrameTalker } from '../domain/frame.ts';
import type { Acoustics } from '../domain/station.ts';
import type { Standing } from '../simulate/hearing.ts';
import type { Point } from '../simulate/imageRoom.ts';
import { mouthOf } from './boomPlace.ts';
import { between, type Place } from './point.ts';

const WALL_MARGIN_M = 0.12;

/** Talker and microphone in the room of a place, the talker off its middle; null where no room is known. */
export function standingAt(talker: FrameTalker, microphone: Place, { sizeM, absorption }: Pick<Acoustics, 'sizeM' | 'absorption'>): Standing | null {
  if (!sizeM || !absorption) return null;
  const from = between(mouthOf(talker), microphone);
  const within = (metres: number, axis: 0 | 1 | 2) => Math.min(sizeM[axis] - WALL_MARGIN_M, Math.max(WALL_MARGIN_M, metres));
  const talkerM: Point = [0.45 * sizeM[0], 0.43 * sizeM[1], within(talker.mouthHeightM, 2)];
  const microphoneM: Point = [within(talkerM[0] + from.awayM, 0), within(talkerM[1] + from.acrossM, 1), within(talkerM[2] + from.heightM, 2)];
  return { sizeM, absorption, talkerM, microphoneM };
}
