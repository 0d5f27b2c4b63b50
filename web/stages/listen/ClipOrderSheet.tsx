import { type Announcements, closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import type { BlindRound, ClipOrder } from '@marvet/core/domain/round';
import { joinedInOrder, movedInOrder, ranksOfOrder } from '@marvet/core/listen/ranking';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useOrderMutation } from '../../data/judging.ts';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { ClipOrderRow } from './ClipOrderRow.tsx';

interface ClipOrderSheetProps {
  listenerId: string;
  letters: string[];
  criterion: BlindRound['criteria'][number];
  /** As it was given; undefined while it is not. */
  given: ClipOrder | undefined;
}

const placeText = (rank: number | undefined) => (rank === undefined ? '' : Number.isInteger(rank) ? String(rank) : rank.toFixed(1));

/** One criterion: all clips in order, the best on top, by drag or step; some may be equally good. */
export function ClipOrderSheet({ listenerId, letters, criterion, given }: ClipOrderSheetProps) {
  const [order, setOrder] = useState<ClipOrder>(given ?? letters.map((letter) => [letter]));
  const [send, { error, isLoading }] = useOrderMutation();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  const flat = order.flat();
  const ranks = ranksOfOrder(order);
  const keep = (next: ClipOrder) => {
    setOrder(next);
    void send({ listenerId, ranking: { criterionId: criterion.id, order: next } });
  };
  const placeOf = (letter: unknown) => `place ${flat.indexOf(String(letter)) + 1} of ${flat.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Clip ${active.id} is picked up, ${placeOf(active.id)}`,
    onDragOver: ({ active, over }) => (over ? `Clip ${active.id} is at ${placeOf(over.id)}` : `Clip ${active.id} is outside the order`),
    onDragEnd: ({ active, over }) => (over ? `Clip ${active.id} is put down at ${placeOf(over.id)}` : `Clip ${active.id} stays where it was`),
    onDragCancel: ({ active }) => `Clip ${active.id} stays at ${placeOf(active.id)}`,
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) keep(movedInOrder(order, String(active.id), flat.indexOf(String(over.id))));
  };
  return (
    <Sheet title={criterion.name} aside={<span className="small soft">Best on top. {criterion.remark}</span>}>
      <Trouble error={error} />
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements, screenReaderInstructions: { draggable: 'Space picks a clip up. Arrows move it. Space puts it down, Escape leaves it where it was.' } }}
        onDragEnd={dropped}
      >
        <SortableContext items={flat} strategy={verticalListSortingStrategy}>
          {flat.map((letter, at) => (
            <ClipOrderRow
              key={letter}
              letter={letter}
              place={placeText(ranks[letter])}
              criterion={criterion.name}
              first={at === 0}
              last={at === flat.length - 1}
              equal={at > 0 && !order.some((group) => group[0] === letter)}
              onMove={(by) => keep(movedInOrder(order, letter, at + by))}
              onEqual={() => keep(joinedInOrder(order, letter))}
            />
          ))}
        </SortableContext>
      </DndContext>
      <div className="row-line apart small">
        <span className="soft" role="status">
          {given ? 'This order is kept. It can change until you finish.' : 'Not in order yet.'}
        </span>
        {!given && (
          <Button size="sm" variant="outline" disabled={isLoading} onClick={() => keep(order)}>
            They are in order as they stand
          </Button>
        )}
      </div>
    </Sheet>
  );
}
