import { describe, expect, it } from 'vitest';
import { frameDraftSchema } from '../domain/frame.ts';
import { pegsOf, walkMarks } from './pegs.ts';

const ID = '00000000-0000-4000-8000-000000000001';
const frame = frameDraftSchema.parse({
  name: 'Quay',
  talkers: [
    { id: ID, name: 'Ferrier', awayM: 4, acrossM: 3 },
    { id: ID, name: 'Netmaker', awayM: 3, acrossM: 0 },
  ],
  booms: [{ id: ID, from: 'planted', awayM: 2.4, acrossM: 0, heightM: 1.1 }],
});

describe('pegs for the ground', () => {
  it('are told from under the lens, the nearest first, along, across, straight, and by hand', () => {
    expect(pegsOf(frame, ['planted'])).toEqual([
      { what: 'under the microphone planted', awayM: 2.4, acrossM: 0, straightM: 2.4, byHand: '8 feet' },
      { what: 'Netmaker', awayM: 3, acrossM: 0, straightM: 3, byHand: '4 paces' },
      { what: 'Ferrier', awayM: 4, acrossM: 3, straightM: 5, byHand: '6.5 paces' },
    ]);
  });

  it('has one for whoever holds a pole', () => {
    const held = { ...frame, booms: [{ ...frame.booms[0]!, from: 'above' as const }] };
    expect(pegsOf(held, ['from above']).map(({ what }) => what)).toContain('who holds the pole');
  });
});

describe('marks of a walk', () => {
  it('stand at the distances of the plan, nearest first, each with how far it is from the one before', () => {
    expect(walkMarks([40, 10, 20, 10, 0])).toEqual([
      { awayM: 10, byHand: '13.5 paces', onM: 10 },
      { awayM: 20, byHand: '26.5 paces', onM: 10 },
      { awayM: 40, byHand: '53.5 paces', onM: 20 },
    ]);
  });
});
