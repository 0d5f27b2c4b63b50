import type { Marker } from '@marvet/core/domain/fileFormat';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import type { Span } from '@marvet/core/measure/report.types';
import { Play } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useTrialWords } from '../../../data/trialData.ts';
import { type PassageDraft, spansOf } from './passageDraft.ts';

interface PassageTableProps {
  trialId: string;
  draft: PassageDraft;
  lengthS: number;
  takes: readonly Take[];
  markers: readonly Marker[];
  /** Takes that stand at more than one passage. */
  twice: ReadonlySet<string>;
  onTake(index: number, takeId: string | null): void;
  onJoin(index: number): void;
  onHear(span: Span): void;
}

/** A marker stands by the passage that it begins, even where the cut went to the pause beside it. */
const NEAR_S = 1;
const labelsIn = (markers: readonly Marker[], [fromS, toS]: Span) =>
  markers
    .filter(({ atS, label }) => label && atS >= fromS - NEAR_S && atS < toS - NEAR_S)
    .map(({ label }) => label)
    .join(', ');

/** Passages one after the other: how long each is, what was marked in it, and its take. */
export function PassageTable({ trialId, draft, lengthS, takes, markers, twice, onTake, onJoin, onHear }: PassageTableProps) {
  const words = useTrialWords(trialId);
  const spans = spansOf(draft, lengthS);
  return (
    <div className="table-box">
      <table className="table table-sm align-middle mb-0">
        <thead>
          <tr>
            <th>Passage</th>
            <th className="text-end">From s</th>
            <th className="text-end">To s</th>
            <th>Marked</th>
            <th>Take</th>
            <th>
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {spans.map((span, index) => {
            const takeId = draft.takeIds[index] ?? null;
            return (
              // A passage is the one that begins there.
              <tr key={span[0]}>
                <td>{index + 1}</td>
                <td className="mono text-end">{span[0].toFixed(2)}</td>
                <td className="mono text-end">{span[1].toFixed(2)}</td>
                <td className="small">{labelsIn(markers, span)}</td>
                <td>
                  <Form.Select
                    size="sm"
                    className="choice"
                    aria-label={`Take of passage ${index + 1}`}
                    value={takeId ?? ''}
                    isInvalid={takeId !== null && twice.has(takeId)}
                    onChange={(event) => onTake(index, event.target.value || null)}
                  >
                    <option value="">no take</option>
                    {takes.map((take) => (
                      <option key={take.id} value={take.id}>
                        {slateLabel(take)}: {words.condition(take)} {take.setups.length === 1 && words.chains.get(take.setups[0]?.candidateId ?? '')?.name}
                      </option>
                    ))}
                  </Form.Select>
                  {takeId !== null && twice.has(takeId) && <span className="alarm small">This take stands twice: what was said again is a take of its own.</span>}
                </td>
                <td className="text-nowrap">
                  <Button size="sm" variant="plain" title="Hear it" aria-label={`Hear passage ${index + 1}`} onClick={() => onHear(span)}>
                    <Play size={14} aria-hidden />
                  </Button>
                  {index < spans.length - 1 && (
                    <Button size="sm" variant="plain" aria-label={`Join passage ${index + 1} with the next`} onClick={() => onJoin(index)}>
                      Join with the next
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
