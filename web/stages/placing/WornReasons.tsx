import type { WornRisk } from '@marvet/core/place/wornRisks';
import { ListPlus, Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { WornRow } from './wornRows.ts';

const WORDS: Record<WornRisk['kind'], string> = { breath: 'Breath', rub: 'Rub', cable: 'Cable', sweat: 'Sweat' };

interface WornReasonsProps {
  row: WornRow;
  onLevel: () => void;
  onDelete: () => void;
}

/** Of the chosen placement: why something may be heard of it, by rules of the craft, and what can be done with it. */
export function WornReasons({ row, onLevel, onDelete }: WornReasonsProps) {
  const { placement, risks } = row;
  return (
    <div className="row-line align-items-start mt-2">
      <ul className="small mb-0 reasons grow">
        {risks.map(({ kind, level, why }) => (
          <li key={kind}>
            <b>
              {WORDS[kind]}, {level}
            </b>
            : {why}
          </li>
        ))}
      </ul>
      <span className="text-nowrap no-print">
        <Button size="sm" variant="outline" aria-label={`Make ${placement.name} a level of the plan`} onClick={onLevel}>
          <ListPlus size={15} aria-hidden /> Level
        </Button>
        <Button size="sm" variant="plain" aria-label={`Delete ${placement.name}`} onClick={onDelete}>
          <Trash2 size={15} aria-hidden />
        </Button>
      </span>
    </div>
  );
}
