import type { Box } from '#core/model/sketch.ts';

/** Makes other boxes of those that are there; gives whether that could be done. */
export type EditBoxes = (change: (boxes: readonly Box[]) => readonly Box[]) => boolean;

/** Whether a text that is pasted has several lines. */
export const isList = (text: string): boolean => text.trim().includes('\n');
