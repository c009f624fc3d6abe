/** The points of a round in walking order: dragged by their handle, or moved with the arrow keys. */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Button } from "~/ui/form";

export interface WayPoint {
  id: string;
  machine: string;
  label: string;
}

interface Props {
  points: readonly WayPoint[];
  onOrder(ids: string[]): void;
}

/** A press that moves less is no drag, so that a list is still scrolled by touch beside its handles. */
const DRAG_FROM_PX = 6;

export function WayList({ points, onOrder }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM_PX } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = points.map((p) => p.id);
  const nameOf = (id: string | number) => points.find((p) => p.id === id)?.label ?? "the point";
  const placeOf = (id: string | number | undefined) => ids.indexOf(String(id)) + 1;
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onOrder(arrayMove(ids, placeOf(active.id) - 1, placeOf(over.id) - 1));
  };
  return (
    <DndContext
      id="way"
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            "Press space to pick the point up, the arrow keys to move it along the way, space to put it down, escape to leave it where it was.",
        },
        announcements: {
          onDragStart: ({ active }) => `Picked up ${nameOf(active.id)}, place ${placeOf(active.id)} of ${ids.length}.`,
          // over itself at the very beginning: what was said of it being picked up stays
          onDragOver: ({ active, over }) =>
            over && over.id !== active.id
              ? `${nameOf(active.id)} to place ${placeOf(over.id)} of ${ids.length}.`
              : undefined,
          onDragEnd: ({ active, over }) => `${nameOf(active.id)} put down at place ${placeOf(over?.id ?? active.id)}.`,
          onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
        },
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className="goes-on lg:max-h-[26rem] lg:overflow-y-auto" tabIndex={-1}>
          {points.map((p) => (
            <WayRow key={p.id} point={p} onLeave={() => onOrder(ids.filter((id) => id !== p.id))} />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function WayRow({ point, onLeave }: { point: WayPoint; onLeave(): void }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: point.id,
  });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`ruled flex items-center gap-2 py-1 ${isDragging ? "relative z-10 bg-sheet shadow-lg" : ""}`}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${point.machine}, ${point.label}`}
        className="min-h-11 w-11 shrink-0 cursor-grab touch-none text-ink-2 active:cursor-grabbing"
      >
        <svg
          aria-hidden="true"
          viewBox="0 0 16 16"
          className="mx-auto size-4"
          stroke="currentColor"
          strokeWidth="1.6"
          strokeLinecap="round"
        >
          <path d="M3 5h10M3 8h10M3 11h10" />
        </svg>
      </button>
      <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
        <span className="text-ink-2">{point.machine}, </span>
        {point.label}
      </span>
      <Button
        type="button"
        tone="plain"
        className="shrink-0 px-3"
        aria-label={`Leave out: ${point.label}`}
        onClick={onLeave}
      >
        ×
      </Button>
    </li>
  );
}
