import { DndContext, MouseSensor, TouchSensor, useSensor, useSensors } from "@dnd-kit/core";

/**
 * Within it filters are dragged onto the stop scale. It stands around the whole place, so that it
 * is not drawn again with each change of the shot.
 */
export function GlassDrag({ children }: { children: React.ReactNode }) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
  );
  return (
    <DndContext sensors={sensors} accessibility={{ container: document.body }}>
      {children}
    </DndContext>
  );
}
