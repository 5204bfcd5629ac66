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
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { HTMLAttributes, ReactNode, ThHTMLAttributes } from 'react';

/** Things that are put in order: dragged by their handles, by mouse and finger, or taken with Space and moved with the arrow keys. */
export function Sortable<T extends string>({
  order,
  onOrder,
  across = false,
  children,
}: {
  readonly order: readonly T[];
  readonly onOrder: (next: readonly T[]) => void;
  /** side by side, not one under another */
  readonly across?: boolean;
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
      <SortableContext
        items={[...order]}
        strategy={across ? horizontalListSortingStrategy : verticalListSortingStrategy}
      >
        {children}
      </SortableContext>
    </DndContext>
  );
}

interface Movable {
  readonly id: string;
  /** as a screen reader calls its handle: `Move weight` */
  readonly name: string;
  readonly children: (handle: ReactNode) => ReactNode;
}

/** What makes an element one of those that are put in order, and the handle it is moved by. */
function useMovable(id: string, name: string) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  return {
    place: {
      ref: setNodeRef,
      style: {
        transform: CSS.Translate.toString(transform),
        transition: transition ?? '',
        ...(isDragging ? { position: 'relative' as const, zIndex: 20, background: 'var(--paper)' } : {}),
      },
    },
    handle: (
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={name}
        className="grid size-11 shrink-0 cursor-grab touch-none place-items-center rounded-edge text-ink2 hover:bg-sheet hover:text-ink"
      >
        <GripVertical size={18} aria-hidden="true" />
      </button>
    ),
  };
}

/** A row of a table that is put in order; `children` is given the handle. */
export function SortableRow({
  id,
  name,
  children,
  ...rest
}: Movable & Omit<HTMLAttributes<HTMLTableRowElement>, keyof Movable>) {
  const { place, handle } = useMovable(id, name);
  return (
    <tr {...place} {...rest}>
      {children(handle)}
    </tr>
  );
}

/** The head of a column that is put in order; `children` is given the handle. */
export function SortableHead({
  id,
  name,
  children,
  ...rest
}: Movable & Omit<ThHTMLAttributes<HTMLTableCellElement>, keyof Movable>) {
  const { place, handle } = useMovable(id, name);
  return (
    <th scope="col" {...place} {...rest}>
      {children(handle)}
    </th>
  );
}
