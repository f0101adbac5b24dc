import { Box, type BoxProps } from '@chakra-ui/react';
import {
  closestCenter,
  DndContext,
  KeyboardCode,
  KeyboardSensor,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type CollisionDetection,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { IconButton } from './IconButton';

/** Where the pointer is, or where the keys have brought it. */
const under: CollisionDetection = (args) => {
  const hit = pointerWithin(args);
  return hit.length > 0 ? hit : closestCenter(args);
};

/** Arrow keys go from one place to the next, not by so many pixels. */
const byPlaces: KeyboardCoordinateGetter = (event, { context }) => {
  const step = {
    [KeyboardCode.Down]: 1,
    [KeyboardCode.Right]: 1,
    [KeyboardCode.Up]: -1,
    [KeyboardCode.Left]: -1,
  }[event.code];
  const { collisionRect, droppableRects, droppableContainers, over } = context;
  if (step === undefined || !collisionRect) return undefined;
  event.preventDefault();
  const places = droppableContainers
    .getEnabled()
    .flatMap((c) => {
      const rect = droppableRects.get(c.id);
      return rect ? [{ id: c.id, rect }] : [];
    })
    .sort((a, b) => a.rect.top - b.rect.top || a.rect.left - b.rect.left);
  const at = places.findIndex((p) => p.id === over?.id);
  const to = places[Math.max(0, Math.min(places.length - 1, at + step))];
  return to && { x: to.rect.left + 8, y: to.rect.top + 8 };
};

/** A thing that was put elsewhere is drawn there anew: whoever works by keys finds it with the focus. */
export function focusThing(id: string, tries = 12): void {
  setTimeout(() => {
    const handle = document.querySelector<HTMLElement>(`[data-thing="${CSS.escape(id)}"]`);
    handle?.focus();
    if (document.activeElement !== handle && tries > 0) focusThing(id, tries - 1);
  }, 40);
}

/** A pointer that hardly moved has not dragged; a touch that moves at once scrolls the page. */
const useHands = () => [
  useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
  useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
];
/** What a thing that slides comes to is said by its own name. */
const SILENT = {
  onDragStart: () => undefined,
  onDragOver: () => undefined,
  onDragEnd: () => undefined,
  onDragCancel: () => undefined,
};

/** Within it things are taken to places: by pointer, by touch, or by Space, arrows and Space. A menu does the same. */
export function DragArea({
  onDrop,
  nameOf,
  children,
}: {
  onDrop: (thing: string, place: string) => void;
  /** What a thing or a place is called, for those who hear the page. */
  nameOf: (id: string) => string;
  children: ReactNode;
}) {
  const sensors = useSensors(...useHands(), useSensor(KeyboardSensor, { coordinateGetter: byPlaces }));
  const name = (id: string | number): string => nameOf(String(id));
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={under}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            'Press Space to take it, arrows to choose a place, Space to put it there, Escape to leave it.',
        },
        announcements: {
          onDragStart: ({ active }) => `${name(active.id)} taken`,
          onDragOver: ({ active, over }) => (over ? `${name(active.id)} over ${name(over.id)}` : undefined),
          onDragEnd: ({ active, over }) =>
            over ? `${name(active.id)} put: ${name(over.id)}` : `${name(active.id)} stays where it was`,
          onDragCancel: ({ active }) => `${name(active.id)} stays where it was`,
        },
      }}
      onDragEnd={({ active, over, activatorEvent }) => {
        if (!over) return;
        onDrop(String(active.id), String(over.id));
        if (activatorEvent instanceof KeyboardEvent) focusThing(String(active.id));
      }}
    >
      {children}
    </DndContext>
  );
}

/** Within it things are moved along a line, by pointer or by touch; keys are their own affair. Told in pixels once let go. */
export function SlideArea({
  onSlide,
  children,
}: {
  onSlide: (thing: string, pixels: number) => void;
  children: ReactNode;
}) {
  return (
    <DndContext
      sensors={useSensors(...useHands())}
      accessibility={{ announcements: SILENT }}
      onDragEnd={({ active, delta }) => onSlide(String(active.id), delta.x)}
    >
      {children}
    </DndContext>
  );
}

/** What is spread upon a thing of a SlideArea, and by how many pixels it is moved just now. */
export function useSlide(id: string, disabled: boolean) {
  const { setNodeRef, listeners, transform } = useDraggable({ id, disabled });
  return { ref: setNodeRef as (node: Element | null) => void, listeners, by: transform?.x ?? 0 };
}

/** A thing that can be taken by its handle. */
export function Draggable({ id, name, children }: { id: string; name: string; children: ReactNode }) {
  const { setNodeRef, attributes, listeners, transform, isDragging } = useDraggable({ id });
  return (
    <Box
      ref={setNodeRef}
      display="flex"
      alignItems="baseline"
      gap="1"
      minWidth="0"
      {...(isDragging ? { bg: 'work.wash', position: 'relative' as const, zIndex: 'popover' as const } : {})}
      css={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {}}
    >
      <IconButton
        small
        word={`Take ${name} elsewhere`}
        data-thing={id}
        icon={<GripVertical />}
        css={{ cursor: 'grab', touchAction: 'none' }}
        {...attributes}
        {...listeners}
      />
      {children}
    </Box>
  );
}

/** A place that takes things. */
export function DropPlace({
  id,
  children,
  ...rest
}: { id: string; children: ReactNode } & Omit<BoxProps, 'id'>) {
  const { setNodeRef, isOver, active } = useDroppable({ id });
  return (
    <Box
      ref={setNodeRef}
      {...rest}
      {...(isOver ? { bg: 'work.wash' } : {})}
      css={active ? { outline: '1px dashed {colors.work}', outlineOffset: '2px' } : {}}
    >
      {children}
    </Box>
  );
}
