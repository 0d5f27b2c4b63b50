import { type Announcements, closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, type UniqueIdentifier, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type ChainDraft, NO_SETTINGS } from '@marvet/core/domain/chain';
import { type Item, itemKindSchema } from '@marvet/core/domain/item';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type UseFormReturn, useFieldArray } from 'react-hook-form';
import { ChainLinkRow } from './ChainLinkRow.tsx';

/** While a link is dragged, Escape ends the drag and not the dialog; told a moment longer, until that key was heard by all. */
function setDragging(on: boolean): void {
  if (on) document.body.dataset.dragging = 'link';
  else setTimeout(() => delete document.body.dataset.dragging, 0);
}

/** The links of a chain in signal order: add from the library, drag or step to their place, set, take out. */
export function ChainLinks({ form, items }: { form: UseFormReturn<ChainDraft>; items: Item[] }) {
  const { fields, append, move, remove } = useFieldArray({ control: form.control, name: 'links' });
  const [chosen, setChosen] = useState('');
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  const errors = form.formState.errors.links;
  const nameOf = (id: UniqueIdentifier | undefined) => items.find((item) => item.id === fields.find((field) => field.id === id)?.itemId)?.name ?? 'the link';
  const placeOf = (id: UniqueIdentifier | undefined) => `place ${fields.findIndex((field) => field.id === id) + 1} of ${fields.length}`;
  // Names and places are read aloud; identities say nothing to anybody.
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(active.id)} is picked up, ${placeOf(active.id)}`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active.id)} is at ${placeOf(over.id)}` : `${nameOf(active.id)} is outside the chain`),
    onDragEnd: ({ active, over }) => (over ? `${nameOf(active.id)} is put down at ${placeOf(over.id)}` : `${nameOf(active.id)} stays where it was`),
    onDragCancel: ({ active }) => `${nameOf(active.id)} stays at ${placeOf(active.id)}`,
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    setDragging(false);
    const [from, to] = [active.id, over?.id].map((id) => fields.findIndex((field) => field.id === id)) as [number, number];
    if (from >= 0 && to >= 0 && from !== to) move(from, to);
  };
  return (
    <fieldset>
      <legend className="form-label">Signal order</legend>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements, screenReaderInstructions: { draggable: 'Space picks a link up. Arrows move it. Space puts it down, Escape leaves it where it was.' } }}
        onDragStart={() => setDragging(true)}
        onDragCancel={() => setDragging(false)}
        onDragEnd={dropped}
      >
        <SortableContext items={fields.map((field) => field.id)} strategy={verticalListSortingStrategy}>
          {fields.map((field, index) => (
            <ChainLinkRow
              key={field.id}
              id={field.id}
              form={form}
              index={index}
              last={index === fields.length - 1}
              item={items.find((item) => item.id === field.itemId)}
              onMove={(to) => move(index, to)}
              onRemove={() => remove(index)}
            />
          ))}
        </SortableContext>
      </DndContext>
      {errors && (
        <div className="invalid-feedback d-block" role="alert">
          Gain is −60 to 90 dB, a pad 0 to 40 dB, low-cut 0 to 500 Hz, a safety track 0 to −40 dB.
        </div>
      )}
      <div className="row-line mt-2">
        <Form.Select className="w-auto grow" aria-label="Item to add" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          <option value="">{items.length === 0 ? 'The library is empty: add items under Library first' : 'Add from the library'}</option>
          {itemKindSchema.options.map((kind) => {
            const ofKind = items.filter((item) => item.kind === kind);
            return (
              ofKind.length > 0 && (
                <optgroup key={kind} label={kind}>
                  {ofKind.map((item) => (
                    <option key={item.id} value={item.id}>
                      {item.name}
                    </option>
                  ))}
                </optgroup>
              )
            );
          })}
        </Form.Select>
        <Button
          variant="outline"
          disabled={!chosen}
          onClick={() => {
            append({ itemId: chosen, settings: NO_SETTINGS });
            setChosen('');
          }}
        >
          Add
        </Button>
      </div>
    </fieldset>
  );
}
