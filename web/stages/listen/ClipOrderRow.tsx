import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, Equal, GripVertical } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { BlindMark } from '../../parts/TapeMark.tsx';

interface ClipOrderRowProps {
  letter: string;
  place: string;
  /** On what it is put in order; there may be several sheets on a page. */
  criterion: string;
  first: boolean;
  last: boolean;
  /** As good as the one before it. */
  equal: boolean;
  onMove(by: -1 | 1): void;
  onEqual(): void;
}

/** One clip of an order: dragged by its grip, or stepped. */
export function ClipOrderRow({ letter, place, criterion, first, last, equal, onMove, onEqual }: ClipOrderRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: letter });
  const named = `clip ${letter}, ${criterion}`;
  return (
    <div ref={setNodeRef} className={`order-row ${isDragging ? 'dragged' : ''} ${equal ? 'equal' : ''}`} style={{ transform: CSS.Transform.toString(transform), transition }}>
      <button type="button" className="btn btn-plain icon grip" {...attributes} {...listeners} aria-label={`Drag ${named}`}>
        <GripVertical size={18} aria-hidden />
      </button>
      <span className="mono place" title="place">
        {place}
      </span>
      <BlindMark letter={letter} />
      <span className="row-line ms-auto">
        {!first && (
          <Button variant={equal ? 'primary' : 'outline'} aria-pressed={equal} onClick={onEqual} aria-label={`As good as the one above: ${named}`}>
            <Equal size={16} aria-hidden /> <span className="wide-only">as good as above</span>
          </Button>
        )}
        <Button variant="plain" className="icon" disabled={first} onClick={() => onMove(-1)} aria-label={`Better: ${named}`}>
          <ArrowUp size={18} aria-hidden />
        </Button>
        <Button variant="plain" className="icon" disabled={last} onClick={() => onMove(1)} aria-label={`Worse: ${named}`}>
          <ArrowDown size={18} aria-hidden />
        </Button>
      </span>
    </div>
  );
}
