import type { StoredChain } from '../domain/chain.ts';
import { type Placement, spotByName } from '../domain/placement.ts';
import type { RigRecord } from '../domain/rigRecord.ts';
import type { SpotId } from '../domain/spot.ts';
import { setupCondition, type Take, type TakeSetup } from '../domain/take.ts';

/** What a setup was recorded with, as far as its place goes. */
export type HeardAs = { kind: 'worn'; spot: SpotId; under: boolean; placement: Placement | null; rig: RigRecord | null } | { kind: 'boom'; placement: Placement | null };

/** Records of a trial by their ids. */
export interface PlaceRecords {
  chains: ReadonlyMap<string, Pick<StoredChain, 'rig'>>;
  placements: ReadonlyMap<string, Placement>;
  rigs: ReadonlyMap<string, RigRecord>;
}

const BOOM_WORDS = /\b(boom|pole|from above|from below|overhead|planted)\b/i;
const UNDER_WORDS = /\b(under|hidden|beneath|inside)\b(?! (a|the) brim)/i;

/**
 * Whether a setup of a take is worn, and where, or is a boom: by the placement and the rig of the plan where they are varied, else by
 * the words that its chain says of its place. Null where neither tells.
 */
export function heardAs(take: Pick<Take, 'condition'>, setup: TakeSetup, { chains, placements, rigs }: PlaceRecords): HeardAs | null {
  const levels = setupCondition(take, setup);
  const placement = placements.get(levels.placement ?? '') ?? null;
  const rig = rigs.get(levels.rig ?? '') ?? null;
  const words = chains.get(setup.candidateId)?.rig.placement ?? '';
  if (placement ? placement.on === 'boom' || placement.on === 'stand' : BOOM_WORDS.test(words)) return { kind: 'boom', placement };
  const spot = placement ? (placement.spot ?? spotByName(placement.name)) : spotByName(words);
  if (!spot) return null;
  const covered = rig ? rig.layers.length > 0 || rig.clothLayers > 0 : UNDER_WORDS.test(placement?.name ?? words);
  return { kind: 'worn', spot, under: covered, placement, rig };
}
