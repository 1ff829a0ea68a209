import { useDraggable, useDroppable } from '@dnd-kit/core';
import { useState, type ReactNode } from 'react';

/**
 * What a row is dragged by. It takes part in dragging once the pointer comes to it: whatever takes
 * part is rendered whenever another row comes into view.
 */
export function DragHandle({
  id,
  enabled,
  className,
  role,
  title,
  children,
  onDoubleClick,
}: {
  id: string;
  enabled: boolean;
  className: string;
  role?: 'gridcell';
  title?: string;
  children: ReactNode;
  onDoubleClick?(): void;
}) {
  const [near, setNear] = useState(false);
  const common = {
    role,
    title,
    onDoubleClick,
    className: `${className} ${enabled ? 'cursor-grab' : ''}`,
  };
  return near && enabled ? (
    <NearHandle id={id} common={common}>
      {children}
    </NearHandle>
  ) : (
    <div {...common} onPointerEnter={() => setNear(true)}>
      {children}
    </div>
  );
}

function NearHandle({
  id,
  common,
  children,
}: {
  id: string;
  common: React.HTMLAttributes<HTMLDivElement>;
  children: ReactNode;
}) {
  const { setNodeRef, listeners } = useDraggable({ id });
  return (
    <div ref={setNodeRef} {...common} {...listeners}>
      {children}
    </div>
  );
}

/** Takes what is dropped on the row around it; there only while something is dragged. */
export function DropTarget({ id }: { id: string }) {
  const { setNodeRef } = useDroppable({ id });
  return <div ref={setNodeRef} aria-hidden className="pointer-events-none absolute inset-0" />;
}
