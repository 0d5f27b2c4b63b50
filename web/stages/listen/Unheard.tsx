import { listed } from '@marvet/core/domain/listed';

/** Clips that were not played since the page was opened: whoever judges them judges from memory, or not at all. It is said, not forbidden. */
export function Unheard({ letters }: { letters: readonly string[] }) {
  return letters.length === 0 ? null : <span className="d-block small">Not played since this page was opened: {listed([...letters])}.</span>;
}
