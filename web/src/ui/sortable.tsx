import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { HTMLAttributes, ReactNode } from 'react';

/** Things that are put in order: dragged by their handles, by mouse and finger, or taken with Space and moved with the arrow keys. */
export function Sortable<T extends string>({
  order,
  onOrder,
  children,
}: {
  readonly order: readonly T[];
  readonly onOrder: (next: readonly T[]) => void;
  readonly children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent): void => {
    const [from, to] = [order.indexOf(active.id as T), over ? order.indexOf(over.id as T) : -1];
    if (from >= 0 && to >= 0 && from !== to) onOrder(arrayMove([...order], from, to));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={[...order]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** A row of a table that is put in order; `children` is given the handle. */
export function SortableRow({
  id,
  name,
  children,
  ...rest
}: Omit<HTMLAttributes<HTMLTableRowElement>, 'children' | 'id'> & {
  readonly id: string;
  /** as a screen reader calls its handle: `Move weight` */
  readonly name: string;
  readonly children: (handle: ReactNode) => ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  return (
    <tr
      ref={setNodeRef}
      style={{
        transform: CSS.Translate.toString(transform),
        transition: transition ?? '',
        ...(isDragging ? { position: 'relative', zIndex: 1, background: 'var(--paper)' } : {}),
      }}
      {...rest}
    >
      {children(
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={name}
          className="grid size-11 shrink-0 cursor-grab touch-none place-items-center rounded-edge text-ink2 hover:bg-sheet hover:text-ink"
        >
          <GripVertical size={18} aria-hidden="true" />
        </button>,
      )}
    </tr>
  );
}
