import type { Take } from '@marvet/core/domain/take';

/** The take of the address; else the one that is rolling; else the first that is still planned; else the last. */
export function currentTake(takes: readonly Take[], wanted: string | null): Take | undefined {
  return takes.find((take) => take.id === wanted) ?? takes.find((take) => take.status === 'rolling') ?? takes.find((take) => take.status === 'planned') ?? takes.at(-1);
}

/** The take to go to after one: the next that is planned, else one that was left before it. */
export function nextTake(takes: readonly Take[], current: Take): Take | undefined {
  const at = takes.indexOf(current);
  return takes.slice(at + 1).find((take) => take.status === 'planned') ?? takes.find((take) => take.status === 'planned' && take.id !== current.id);
}
