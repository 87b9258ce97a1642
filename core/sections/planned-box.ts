import { BOX_TYPES } from '../model/sketch.ts';

/** The attribute by which a part of a text says for which box of a sketch it stands; null or left out for none. */
export const PLANNED_BOX = 'box';

/** The parts of a text that can stand for one: what boxes become, and what these are turned into while one writes. */
export const STAND_FOR_BOXES: readonly string[] = [
  'paragraph',
  'heading',
  'bulletList',
  'orderedList',
  ...BOX_TYPES.filter((type) => type !== 'text'),
];
