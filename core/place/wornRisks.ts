import type { PlacementDraft } from '../domain/placement.ts';
import type { RigRecordDraft } from '../domain/rigRecord.ts';
import { spotOf } from '../domain/spot.ts';
import { placeOnBody } from './nearMouth.ts';

/** How likely something is heard of it, by rules of the craft and not by a computation. */
export interface WornRisk {
  kind: 'breath' | 'rub' | 'cable' | 'sweat';
  level: 'low' | 'some' | 'high' | 'not known';
  why: string;
}

const DEGREES = 180 / Math.PI;
const BLAST_WITHIN_M = 0.08;
const BLAST_HALF_DEG = 40;
const NOSE_WITHIN_M = 0.13;
/** Cloth that lets so little air through is stiff, and snaps where it folds. */
const CRISP_PA_S_M = 1000;
const HOLDS_CLOTH_STILL: readonly RigRecordDraft['fixing'][] = ['tape triangle', 'loop and tape', 'pad', 'tape', 'vampire clip'];

type Given = { placement: Pick<PlacementDraft, 'at' | 'spot' | 'on'>; rig: RigRecordDraft | null };

/** What may be heard of breath, cloth, cable and sweat with a worn microphone, each with its reason. */
export function wornRisks(given: Given): WornRisk[] {
  return [breath(given), rub(given), cable(given), ...(given.rig?.onSkin ? [SWEAT] : [])];
}

const SWEAT: WornRisk = { kind: 'sweat', level: 'some', why: 'On skin sweat runs along the cable and closes a capsule: tie a drip loop, and look at it at every break.' };

function breath({ placement, rig }: Given): WornRisk {
  const at = placeOnBody(placement);
  if (!at) return { kind: 'breath', level: 'not known', why: 'Where it sits is not drawn.' };
  const distanceM = Math.hypot(at.forwardM, at.leftM, at.upM);
  const offDeg = Math.acos(Math.max(-1, Math.min(1, at.forwardM / Math.max(distanceM, 1e-6)))) * DEGREES;
  const text = `${Math.round(100 * distanceM)} cm from the mouth, ${Math.round(offDeg)}° off its axis`;
  const covered = (rig?.layers.length ?? 0) > 0 || (rig?.clothLayers ?? 0) > 0 || rig?.cover === 'foam' || rig?.cover === 'fur';
  if (distanceM < BLAST_WITHIN_M && offDeg < BLAST_HALF_DEG)
    return {
      kind: 'breath',
      level: covered ? 'some' : 'high',
      why: `${text}: the air of P and B meets it${covered ? ', though something is over it' : ''}. Move it out of the stream, to the corner.`,
    };
  const underNose = at.upM < 0 && distanceM < NOSE_WITHIN_M && Math.abs(at.leftM) < 0.03;
  if (underNose && rig?.faces !== 'down' && !covered)
    return { kind: 'breath', level: 'some', why: `${text}: breath of the nose comes straight down here. Facing down it passes by, and the sound hardly changes.` };
  return { kind: 'breath', level: 'low', why: `${text}: the air of P and B passes by.` };
}

function rub({ placement, rig }: Given): WornRisk {
  if (!rig) return { kind: 'rub', level: 'not known', why: 'No rig is chosen.' };
  if (placement.spot === 'hairline' || placement.spot === 'behind an ear')
    return { kind: 'rub', level: 'some', why: 'Hair moves over it: fix the strands beside it, and let the capsule look out of them.' };
  const layers = Math.max(rig.layers.length, rig.clothLayers);
  if (layers === 0) return { kind: 'rub', level: 'low', why: 'Nothing lies over it.' };
  const crisp = rig.layers.find(({ flowPaSM }) => flowPaSM === null || flowPaSM >= CRISP_PA_S_M);
  if (crisp)
    return { kind: 'rub', level: 'high', why: `${capital(crisp.name)} is crisp: its folds snap. Tape it to the cloth under it on both sides of the microphone, or leave it open.` };
  if (!HOLDS_CLOTH_STILL.includes(rig.fixing) && rig.cover !== 'cage')
    return {
      kind: 'rub',
      level: 'high',
      why: `Fixed with ${rig.fixing === 'none' ? 'nothing' : `a ${rig.fixing}`}, it does not hold the cloth over it: a tape triangle on each side keeps both from sliding.`,
    };
  const carried = placement.spot ? spotOf(placement.spot).carrier : 'trunk';
  if (carried === 'arm') return { kind: 'rub', level: 'high', why: 'An arm moves under its sleeve all the time.' };
  if (layers > 1) return { kind: 'rub', level: 'some', why: `${layers} layers slide on each other, though the one beneath is held.` };
  return { kind: 'rub', level: 'low', why: 'The cloth over it is held, and one soft layer hardly rubs.' };
}

function cable({ rig }: Given): WornRisk {
  if (!rig || rig.strainRelief === null) return { kind: 'cable', level: 'not known', why: 'Whether its cable has a loop is not noted.' };
  if (!rig.strainRelief) return { kind: 'cable', level: 'high', why: 'Without a loop every pull of the cable knocks on the capsule.' };
  return { kind: 'cable', level: 'low', why: 'A loop takes the pull off the capsule.' };
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
