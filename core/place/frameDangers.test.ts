import { describe, expect, it } from 'vitest';
import { frameDraftSchema } from '../domain/frame.ts';
import { newId } from '../domain/identity.ts';
import { frameDangers } from './frameDangers.ts';

const NAMES = ['from above', 'planted'];
const found = (danger: object, operator: object = {}) => {
  const frame = frameDraftSchema.parse({
    name: 'Jetty',
    talkers: [{ id: newId(), name: 'Ferrier', awayM: 3, mouthHeightM: 1.5 }],
    booms: [
      { id: newId(), from: 'above', awayM: 2.8, acrossM: 0, heightM: 2 },
      { id: newId(), from: 'planted', awayM: 2.4, acrossM: 0.4, heightM: 1 },
    ],
    operator: { awayM: 3, acrossM: 2.5, handsM: 1.8, poleM: 3, ...operator },
    dangers: [{ id: newId(), awayM: 3, acrossM: 0, ...danger }],
  });
  return frameDangers(frame, NAMES).map(({ text }) => text);
};

describe('what a frame shows to be dangerous', () => {
  it('a line 6 m up over who holds a 3 m pole: 6 - 1.8 - 3 - 0.6 = 0.6 m are left', () => {
    expect(found({ kind: 'overhead line', heightM: 6 })[0]).toContain('comes to 0.6 m of the line');
    expect(found({ kind: 'overhead line', heightM: 5 })[0]).toContain('A raised pole reaches the line');
  });

  it('a line far off is not told, and a shorter pole is farther from it', () => {
    expect(found({ kind: 'overhead line', heightM: 6, awayM: 30 })).toEqual([]);
    expect(found({ kind: 'overhead line', heightM: 8 }, { poleM: 1 })[0]).toContain('comes to 4.6 m');
  });

  it('a pole over water is told, and one that is not is not', () => {
    expect(found({ kind: 'water', acrossM: 1.2, wideM: 1, deepM: 2 })[0]).toContain('from above is held over water');
    expect(found({ kind: 'water', acrossM: -3, wideM: 1, deepM: 2 })).toEqual([]);
    expect(found({ kind: 'water', acrossM: 2.5, wideM: 1, deepM: 2 })[0]).toContain('stands in the water');
  });

  it('a stand in a path is told, a pole that passes over it is not', () => {
    expect(found({ kind: 'path', awayM: 2.4, acrossM: 0.4, wideM: 0.6, deepM: 0.6 })[0]).toContain('the stand planted');
    expect(found({ kind: 'path', acrossM: 1.2, wideM: 0.4, deepM: 1 })).toEqual([]);
  });

  it('a pole over people is told', () => {
    expect(found({ kind: 'people', acrossM: 1.2, wideM: 1, deepM: 2 })[0]).toContain('over people');
  });
});
