import type { DndContextProps } from '@dnd-kit/core';

/**
 * What screen readers hear of dragging: what is carried, and what became of it. Where it would land is told by the strip along the
 * bottom. @param nameOf what is carried, in words; @param byKeys how the same is done without a pointer, as a sentence
 */
export const dragWords = (nameOf: (id: string) => string, byKeys: string): DndContextProps['accessibility'] => ({
  screenReaderInstructions: { draggable: byKeys },
  announcements: {
    onDragStart: ({ active }) => `${nameOf(String(active.id))} is carried. Escape leaves it where it was.`,
    onDragOver: () => undefined,
    onDragEnd: ({ active }) => `${nameOf(String(active.id))} was let go.`,
    onDragCancel: ({ active }) => `${nameOf(String(active.id))} stays where it was.`,
  },
});
