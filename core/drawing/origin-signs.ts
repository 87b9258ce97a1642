import type { Origin } from '../model/plan.ts';

/** The box that the signs are drawn in, in pixels. */
export const SIGN_WIDTH = 20;
export const SIGN_HEIGHT = 14;

/**
 * Each origin as a piece of track, the data of an SVG path: a line that begins, goes on, goes on by a detour, parts,
 * or comes together.
 */
export const ORIGIN_SIGNS: Readonly<Record<Origin, string>> = {
  new: 'M8 7H19M2.5 7C2.5 5.6 3.6 4.5 5 4.5C6.4 4.5 7.5 5.6 7.5 7C7.5 8.4 6.4 9.5 5 9.5C3.6 9.5 2.5 8.4 2.5 7Z',
  keep: 'M1 7H19',
  rework: 'M1 7H6L8.5 3H11.5L14 7H19',
  split: 'M1 7H6L12 2.5H19M6 7L12 11.5H19',
  gather: 'M1 2.5H8L14 7H19M1 11.5H8L14 7',
};
