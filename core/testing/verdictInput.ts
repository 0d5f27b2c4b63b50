import type { VerdictRecording } from '../decide/usableRecordings.ts';
import { type Criterion, criterionDraftSchema } from '../domain/criterion.ts';
import type { Figures } from '../domain/recording.ts';
import { type Take, untouchedTake } from '../domain/take.ts';

/** An identity from a word, the same each time. */
export const id = (text: string) =>
  `${text.padEnd(8, '0').slice(0, 8)}-0000-4000-8000-000000000000`.replace(/[^0-9a-f-]/g, (letter) => letter.charCodeAt(0).toString(16).at(-1) as string);
const names = ['a', 'b', 'c'];
export const candidates = names.map((name) => ({ id: id(name), name, price: 100, currency: 'EUR' }));
/** A measured criterion. */
export const measured = (measureId: 'noise.snrDb' | 'events.dropout.perMinute', rest: Partial<Criterion> = {}): Criterion => ({
  ...criterionDraftSchema.parse({ name: measureId, kind: 'measured', measureId, weight: 10, best: 40, worst: 0 }),
  id: measureId,
  trialId: 't',
  ...rest,
});
/** A listened criterion. */
export const heard: Criterion = { ...criterionDraftSchema.parse({ name: 'Clear', kind: 'listened', weight: 90, best: 10, worst: 0 }), id: 'clear', trialId: 't' };

/** A take that was done, with a setup for each candidate. */
export function take(slate: number, distance: string, who: string[], change: Partial<Take> = {}): Take {
  const pass = change.pass ?? 1;
  return {
    ...untouchedTake({
      id: id(`1${slate}${pass}`),
      trialId: id('9'),
      slate,
      position: slate,
      condition: { station: 's', windscreen: 'bare', distance, script: 'x' },
      setups: who.map((name) => ({ id: id(`2${slate}${pass}${name}`), candidateId: id(name), levels: {} })),
    }),
    status: 'done',
    startedAtMs: 1,
    stoppedAtMs: 2,
    ...change,
  };
}

/** The recording of a candidate in a take. */
export function recording(of: Take, who: string, figures: Figures, change: Partial<VerdictRecording> = {}): VerdictRecording {
  const setupId = of.setups.find((setup) => setup.candidateId === id(who))!.id;
  return {
    id: `r${of.slate}${of.pass}${who}`,
    takeId: of.id,
    setupId,
    fileName: `S${of.slate}_${who}.wav`,
    uploadedAtMs: 0,
    cutShort: false,
    lossyCodec: null,
    measured: true,
    figures,
    ...change,
  };
}
