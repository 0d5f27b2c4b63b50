import type { Criterion } from '../../domain/criterion.ts';
import type { Role } from '../../domain/trial.ts';
import { criterionUnit } from '../verdictCsv.ts';

/** A least value in the words of its criterion: of one where less is better, the most. */
export function leastText(criterion: Criterion, limit: number): string {
  return `${criterion.name} ${criterion.best < criterion.worst ? 'at most' : 'at least'} ${limit} ${criterionUnit(criterion)}`.trim();
}

/** What a role asks of its gear in one line, as far as it asks anything. */
export function asksText({ importance, spares, mustLock, mustHide, least }: Role, criteria: readonly Criterion[]): string {
  const asked = [
    ...(importance > 1 ? [`counts ${importance} times`] : []),
    ...(spares > 0 ? [`${spares} to spare`] : []),
    ...(mustLock ? ['plugs that lock'] : []),
    ...(mustHide ? ['worn or hidden'] : []),
    ...least.flatMap(({ criterionId, limit }) => {
      const criterion = criteria.find(({ id }) => id === criterionId);
      return criterion ? [leastText(criterion, limit)] : [];
    }),
  ];
  return asked.length > 0 ? asked.join(', ') : 'any candidate will do';
}
