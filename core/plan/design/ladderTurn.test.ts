import { describe, expect, it } from 'vitest';
import { newId } from '../../domain/identity.ts';
import { designSchema } from '../../domain/plan.ts';
import { type Take, untouchedTake } from '../../domain/take.ts';
import { ladderTurn } from './ladderTurn.ts';

const candidateId = newId();
const ladder = designSchema.parse({ kind: 'ladder', ladder: { kind: 'noise', speechId: 'text', silenceId: 'tone' } });
const take = (noise: string, script: string, more: Partial<Take> = {}): Take => ({
  ...untouchedTake({
    id: newId(),
    trialId: newId(),
    slate: 1,
    position: 0,
    condition: { station: 's', script, windscreen: 'fur', distance: '1', noise },
    setups: [{ id: newId(), candidateId, levels: {} }],
  }),
  ...more,
});

describe('a ladder in the field', () => {
  const takes = [take('calm', 'text'), take('road', 'text'), take('road', 'tone'), take('calm', 'tone')];
  it('asks at each rung for the passage with speech and the one without in turn', () => {
    expect(ladderTurn(ladder, takes, takes[0]!)).toEqual({ passage: 'speech', rungId: 'calm', other: takes[3] });
    expect(ladderTurn(ladder, takes, takes[2]!)).toEqual({ passage: 'silence', rungId: 'road', other: takes[1] });
  });

  it('means the pass that is still to be done', () => {
    const again = [take('calm', 'tone', { status: 'done' }), take('calm', 'tone', { pass: 2 })];
    expect(ladderTurn(ladder, [takes[0]!, ...again], takes[0]!)?.other).toBe(again[1]);
  });

  it('is none where the plan climbs none, or the script is another', () => {
    expect(ladderTurn(designSchema.parse({}), takes, takes[0]!)).toBeNull();
    expect(ladderTurn(ladder, takes, take('calm', 'whisper'))).toBeNull();
    expect(ladderTurn(ladder, [], takes[0]!)?.other).toBeNull();
  });
});
