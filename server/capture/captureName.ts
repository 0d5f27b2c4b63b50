import type { Take } from '@marvet/core/domain/take';

/**
 * The name of a file that was recorded here: trial, slate and take, as a field recorder would name it.
 * @example captureName('Reed bank walk', { slate: 7, pass: 2 }, 1) // "Reed-bank-walk_S007_T02.wav"
 */
export function captureName(trialName: string, { slate, pass }: Pick<Take, 'slate' | 'pass'>, part: number): string {
  const trial = trialName
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40);
  const slated = `S${String(slate).padStart(3, '0')}_T${String(pass).padStart(2, '0')}`;
  return `${[trial, slated, part > 1 ? `part${part}` : ''].filter(Boolean).join('_')}.wav`;
}
