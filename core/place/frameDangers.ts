import type { FrameBoom, FrameDanger, FrameDraft } from '../domain/frame.ts';
import { tailOf } from './boomPlace.ts';
import { between, lengthOf, type Place } from './point.ts';

/** What the drawing shows to be dangerous: where, how near, and what comes near it. */
export interface DangerFound {
  dangerId: string;
  kind: FrameDanger['kind'];
  text: string;
}

/** Arms lift a pole's foot so much over where hands hold it at rest. */
const ARMS_UP_M = 0.6;
/** Whatever reaches nearer to a line than this is told; how near it may come is the line's owner's to say. */
const LINE_TOLD_M = 8;
const STEPS = 20;

type Given = Pick<FrameDraft, 'talkers' | 'booms' | 'operator' | 'dangers'>;

/** Every danger of a frame that something comes near to or stands in. */
export function frameDangers(frame: Given, names: readonly string[]): DangerFound[] {
  return frame.dangers.flatMap((danger): DangerFound[] => {
    const text = danger.kind === 'overhead line' ? lineText(danger, frame) : stripText(danger, frame, names);
    return text === null ? [] : [{ dangerId: danger.id, kind: danger.kind, text }];
  });
}

/** A pole can be raised anyhow: what counts is how far its end reaches, not where it is drawn. */
function lineText({ awayM, heightM }: FrameDanger, { operator }: Given): string | null {
  const apartM = Math.hypot(operator.awayM - awayM, heightM - operator.handsM) - operator.poleM - ARMS_UP_M;
  if (apartM > LINE_TOLD_M) return null;
  const reach = apartM <= 0 ? 'A raised pole reaches the line' : `The end of a raised pole comes to ${apartM.toFixed(1)} m of the line`;
  return `${reach}. Do not raise it: work from below, plant a microphone, or move the frame. The line’s owner and local rules say which distance must be kept.`;
}

const within = (danger: FrameDanger, { awayM, acrossM }: Pick<Place, 'awayM' | 'acrossM'>) =>
  Math.abs(awayM - danger.awayM) <= danger.deepM / 2 && Math.abs(acrossM - danger.acrossM) <= danger.wideM / 2;

/** What stands in a strip of the ground, or is held over it. */
function stripText(danger: FrameDanger, { talkers, booms, operator }: Given, names: readonly string[]): string | null {
  const held = booms.some((boom) => boom.from !== 'planted');
  const stands = booms.flatMap((boom, index) => (boom.from === 'planted' && within(danger, boom) ? [names[index] ?? 'a stand'] : []));
  const over = booms.flatMap((boom, index) => (boom.from !== 'planted' && passesOver(danger, boom, talkers, operator) ? [names[index] ?? 'a pole'] : []));
  const inIt = held && within(danger, operator);
  if (danger.kind === 'water') {
    if (inIt) return 'Who holds the pole stands in the water or at its edge: a life jacket where local rules ask for one, a second person, and no cable that can pull anyone in.';
    return over.length > 0 ? `${poles(over)} held over water: a second person watches, the cable runs free, and nothing is tied to who holds it.` : null;
  }
  if (danger.kind === 'path') {
    const blocking = [...stands.map((name) => `the stand ${name}`), ...(inIt ? ['who holds the pole'] : [])];
    return blocking.length > 0 ? `In the path: ${list(blocking)}. Weigh it down, mark it and light it, or move it; keep ways of escape free.` : null;
  }
  return over.length > 0 ? `${poles(over)} held over people: tie the microphone on, and ask those under it.` : null;
}

function passesOver(danger: FrameDanger, boom: FrameBoom, talkers: FrameDraft['talkers'], { awayM, acrossM, handsM }: FrameDraft['operator']): boolean {
  const hands: Place = { awayM, acrossM, heightM: handsM };
  const way = between(hands, tailOf(boom, talkers));
  if (lengthOf(way) === 0) return within(danger, hands);
  return Array.from({ length: STEPS + 1 }, (_, step) => step / STEPS).some((share) => within(danger, { awayM: awayM + share * way.awayM, acrossM: acrossM + share * way.acrossM }));
}

const poles = (names: readonly string[]) => (names.length === 1 ? `The pole ${list(names)} is` : `The poles ${list(names)} are`);
const list = (words: readonly string[]) => words.join(' and ');
