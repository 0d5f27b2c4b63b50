import type { Chain, ChainDraft } from '../domain/chain.ts';
import type { FactorKind, Level } from '../domain/factor.ts';
import { nextTape, type Tape } from '../domain/tape.ts';

/** Factors whose levels can be recorded at one moment: each needs gear of its own, but the talker needs not change. */
export const SIMULTANEOUS_KINDS = ['placement', 'rig', 'windscreen', 'processing'] as const satisfies readonly FactorKind[];
export type SimultaneousKind = (typeof SIMULTANEOUS_KINDS)[number];

/**
 * Candidates that record the levels of a factor in one take: each candidate once for each level, rigged
 * or set as the level says.
 * @example two lavaliers, collar and breastbone: four candidates, each with where it sits
 */
export function levelsAsCandidates(chains: readonly Chain[], kind: SimultaneousKind, levels: readonly Level[]): ChainDraft[] {
  const tapes: Tape[] = [];
  return chains.flatMap((chain) =>
    levels.map((level): ChainDraft => {
      const { id: _id, trialId: _trial, ...draft } = chain;
      const name = `${chain.name}, ${level.label}`.slice(0, 120);
      const tape = nextTape(`${chain.tape.letters[0]}${level.label}`, tapes);
      tapes.push(tape);
      const placed = kind === 'placement' || kind === 'rig';
      return {
        ...draft,
        name,
        tape,
        candidate: true,
        rig: placed ? { ...draft.rig, placement: level.label } : draft.rig,
        remark: placed ? draft.remark : [draft.remark, `${kind}: ${level.label}`].filter(Boolean).join('. '),
        position: tapes.length - 1,
      };
    }),
  );
}

/** Takes that a plan needs for each condition when a factor's levels are recorded together rather than one after the other. */
export function takesSaved(takes: number, levels: number): number {
  return takes - Math.ceil(takes / levels);
}
