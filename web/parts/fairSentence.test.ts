import { UNKNOWN_CONDITION } from '@marvet/core/domain/factor';
import { type Compared, compareTakes } from '@marvet/core/fair/compare';
import { describe, expect, it } from 'vitest';
import { fairSentence } from './fairSentence.ts';

const one: Compared = {
  takeId: '1',
  setupId: 'a',
  candidateId: 'qo',
  condition: { station: 'slip', distance: '1', windscreen: 'fur', script: 'n' },
  gains: {},
  windMs: 3,
  noiseDba: 60,
  controls: [{ name: 'Talker', value: 'Ferrier' }],
  startedAtMs: 0,
};
const other = (change: Partial<Compared>, condition: Partial<Compared['condition']> = {}): Compared => ({
  ...one,
  takeId: '2',
  setupId: 'b',
  candidateId: 'lb',
  ...change,
  condition: { ...one.condition, ...condition },
});
const words = { label: (_kind: string, id: string) => id.toUpperCase(), letters: (id: string) => id.toUpperCase(), slate: (place: number) => `0${place + 1}` };
const said = (second: Compared) => {
  const { answer, why } = fairSentence(compareTakes([one, second], 'candidate'), 'candidate', words);
  return `${answer} ${why}`;
};

describe('what the tray says', () => {
  it('of recordings without a plan names what is not known, and asks for nothing that has no place', () => {
    const bare = { windMs: null, noiseDba: null, condition: UNKNOWN_CONDITION };
    const { answer, why } = fairSentence(
      compareTakes(
        [
          { ...one, ...bare },
          { ...other({}), ...bare, takeId: '1' },
        ],
        'candidate',
      ),
      'candidate',
      words,
    );
    expect(`${answer} ${why}`).toBe('Whether it is fair cannot be told. Not known: windscreen and distance.');
  });

  it.each([
    [other({}), 'Fair. Only the candidate differs.'],
    [other({ startedAtMs: 50 * 60_000 }), 'Fair. Only the candidate differs; takes are 50 min apart.'],
    [other({}, { windscreen: 'bare' }), 'Not fair: windscreen differs. FUR and BARE.'],
    [other({ windMs: 9, noiseDba: 70 }), 'Not fair: wind and noise differ. 3 m/s and 9 m/s; 60 dB A and 70 dB A.'],
    [other({ windMs: null }), 'Whether it is fair cannot be told. Fill in: wind at take 02.'],
    [other({ controls: [] }, { rig: 'high' }), 'Whether it is fair cannot be told. Fill in: which rig take 01 had; Talker of take 02.'],
  ])('%#', (second, sentence) => expect(said(second)).toBe(sentence));
});
