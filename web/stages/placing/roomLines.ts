import type { StoredChain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import type { Tape } from '@marvet/core/domain/tape';
import { PATTERN_OF } from '@marvet/core/place/patterns';
import { criticalDistanceM, directAtDb } from '@marvet/core/place/roomFigures';
import type { Walls } from '@marvet/core/simulate/imageRoom';
import type { MicrophonePattern } from '@marvet/core/simulate/microphone';

/** A pattern in a room, and which candidates have it. */
export interface PatternInRoom {
  name: NonNullable<Item['pattern']>;
  letters: string[];
  /** Of the first candidate that has it. */
  tape: Tape | null;
  pattern: MicrophonePattern;
}

/** A candidate with its own microphone, as far as it can be heard before it is bought. */
export interface CandidateMicrophone {
  id: string;
  name: string;
  pattern: MicrophonePattern;
  selfNoiseDba: number | null;
}

/** The candidates whose microphone has a pattern in Kit. */
export function candidateMicrophones(chains: readonly StoredChain[], items: ReadonlyMap<string, Item>): CandidateMicrophone[] {
  return chains.flatMap((chain): CandidateMicrophone[] => {
    const microphone = chain.links.map((link) => items.get(link.itemId)).find((item) => item?.kind === 'microphone');
    if (!chain.candidate || !microphone?.pattern) return [];
    return [{ id: chain.id, name: `${chain.tape.letters} ${chain.name}`, pattern: PATTERN_OF[microphone.pattern], selfNoiseDba: microphone.selfNoiseDba }];
  });
}

const AT_1_KHZ = 3;
const FROM_M = 0.1;
const TO_M = 8;
const STEPS = 40;

/** The patterns of the candidates' microphones; where none is known those that booms usually have. */
export function patternsOf(chains: readonly StoredChain[], items: ReadonlyMap<string, Item>): PatternInRoom[] {
  const byName = new Map<PatternInRoom['name'], Tape[]>();
  for (const chain of chains.filter((each) => each.candidate)) {
    const pattern = chain.links.map((link) => items.get(link.itemId)).find((item) => item?.kind === 'microphone')?.pattern;
    if (pattern) byName.set(pattern, [...(byName.get(pattern) ?? []), chain.tape]);
  }
  const usual: PatternInRoom['name'][] = ['omnidirectional', 'cardioid', 'supercardioid', 'interference tube'];
  const names = byName.size > 0 ? [...byName.keys()] : usual;
  return names.map((name) => {
    const tapes = byName.get(name) ?? [];
    return { name, letters: tapes.map(({ letters }) => letters), tape: tapes[0] ?? null, pattern: PATTERN_OF[name] };
  });
}

export const lineName = ({ name, letters }: PatternInRoom): string => (letters.length > 0 ? `${letters.join(', ')}: ${name}` : name);

/** Direct sound over the room's own against distance, a column a pattern, at 1 kHz. */
export function directOverRoom(walls: Walls, patterns: readonly PatternInRoom[]): Record<string, number>[] {
  const critical = patterns.map(({ pattern }) => criticalDistanceM(walls, pattern, AT_1_KHZ));
  return Array.from({ length: STEPS + 1 }, (_, step) => {
    const distanceM = FROM_M * (TO_M / FROM_M) ** (step / STEPS);
    return { distanceM, ...Object.fromEntries(critical.map((metres, index) => [`line${index}`, directAtDb(metres, distanceM)])) };
  });
}
