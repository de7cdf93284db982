import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type UniqueIdentifier,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { useId, useRef, type ReactNode } from "react";
import * as say from "../words.ts";

/** A thing that is moved within its list, and where it was let go. */
export interface Dropped {
  id: string;
  /** Places in the list, from 0; `to` is `from` where it was let go over nothing else. */
  from: number;
  to: number;
  /** How far to the side, in pixels; negative is left. */
  aside: number;
}

/** A list that is put in order by dragging, or by keyboard with Space and the arrows on a thing's grip; told aloud by name and place. */
export function SortedList(props: {
  ids: readonly string[];
  nameOf: (id: string) => string;
  onDrop: (dropped: Dropped) => void;
  children: ReactNode;
}) {
  const { ids, nameOf, onDrop } = props;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const hasMoved = useRef(false);
  const name = (id: UniqueIdentifier): string => `“${nameOf(String(id))}”`;
  const place = (id: UniqueIdentifier): string => say.placeOf(ids.indexOf(String(id)) + 1, ids.length);
  const announcements: Announcements = {
    onDragStart({ active }) {
      hasMoved.current = false;
      return say.isPickedUpFrom(name(active.id), place(active.id));
    },
    onDragOver({ active, over }) {
      // The first is its own place, told at once with the picking up.
      hasMoved.current ||= over?.id !== active.id;
      if (!hasMoved.current) return undefined;
      return over ? say.isOver(name(active.id), place(over.id)) : say.isOverNoPlace(name(active.id));
    },
    onDragEnd: ({ active, over }) => say.isPutDownAt(name(active.id), place((over ?? active).id)),
    onDragCancel: ({ active }) => say.isBackAt(name(active.id), place(active.id)),
  };
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: say.spacePicksItUpAndPutsIt,
        },
      }}
      onDragEnd={({ active, over, delta }) => {
        const from = ids.indexOf(String(active.id));
        onDrop({
          id: String(active.id),
          from,
          to: over ? ids.indexOf(String(over.id)) : from,
          aside: delta.x,
        });
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {props.children}
      </SortableContext>
    </DndContext>
  );
}
